// The places of a site as plans need them: by name, by shape, and the width rule of one shape.
import type {
  ArrangementOptions,
  PlanContext,
  ShapeId,
  Size,
  Slot,
  SlotId,
  SlotShape,
  WidthRule,
} from '../contract/index.ts';
import { constant, extreme, scaled } from '../css/width-rule.ts';
import { contain, ratioOf } from '../geometry/geometry.ts';

type Slots = Pick<PlanContext, 'slots'>;

/**
 * The slots with these names in the site's order, each arrangement's with that of its large pictures. A name whose slot is
 * gone is passed over: nothing is planned for it.
 */
export const slotsIn = ({ slots }: Slots, ids: readonly SlotId[]): Slot[] =>
  slots.filter(({ id, of }) => ids.includes(id) || (of !== undefined && ids.includes(of)));

/** The slots that photos are put into; those of large pictures come along. */
export const standable = (slots: readonly Slot[]): Slot[] => slots.filter(({ of }) => of === undefined);

/** The slots that are said by a width of their own; those of arrangements follow from what they are made of. */
export const typedPlaces = (slots: readonly Slot[]): Slot[] =>
  standable(slots).filter(({ arranged }) => arranged === undefined);

/** Viewport widths that a shape serves: from ≤ width < to, in CSS px. */
export const spanOf = ({ from, to }: SlotShape): { from: number; to: number } => ({
  from,
  to: to ?? Infinity,
});

/** The shape that a slot shows at a viewport width in CSS px. */
export const shapeAt = ({ shapes }: Slot, viewport: number): SlotShape | null =>
  shapes.find((part) => viewport >= part.from && viewport < spanOf(part).to) ?? null;

/** Shape of the cells in which pictures of a grid are seen whole; null where they fill what they stand in. */
export const evenShapeOf = (options: ArrangementOptions | undefined): ShapeId | null =>
  options?.kind === 'grid' && options.fit === 'whole' && options.shape !== 'own' ? options.shape : null;

/** Ratio of those cells. */
function evenCellOf({ arranged }: Slot): number | null {
  const shape = evenShapeOf(arranged?.options);
  return shape && ratioOf(shape, { width: 1, height: 1 });
}

/** Whether a photo's own crop decides how wide it is seen: otherwise all photos of a slot share their widths. */
export const hangsOnCrop = (slot: Slot): boolean =>
  slot.fit !== null || evenCellOf(slot) !== null || wholeHeight(slot) !== null;

/** Height in CSS px that pictures are seen whole in; null where there is none, or where it hangs on the window's. */
const wholeHeight = ({ tallest }: Slot): number | null =>
  tallest && !tallest.cut && tallest.unit === 'px' ? tallest.height : null;

/**
 * The display width rule of one shape in a slot; a fitted slot shows no photo above its own pixels. A height that hangs on
 * the window's is left out: files are planned for windows that are high enough.
 */
export function ruleFor(slot: Slot, shape: ShapeId, crop: Size): WidthRule {
  const ratio = ratioOf(shape, crop);
  const cell = evenCellOf(slot);
  if (cell !== null) return scaled(slot.rule, Math.min(1, ratio / cell));
  const height = wholeHeight(slot);
  if (height !== null && !slot.fit) return extreme(slot.rule, constant(height * ratio), 'min');
  if (!slot.fit) return slot.rule;
  const widest = contain({ width: crop.width, height: crop.width / ratio }, slot.fit).width;
  return extreme(slot.rule, constant(widest), 'min');
}

/** Every shape that slots need, each once, in the site's order. */
export const shapesOf = (context: Slots, ids: readonly SlotId[]): ShapeId[] => [
  ...new Set(slotsIn(context, ids).flatMap((slot) => slot.shapes.map(({ shape }) => shape))),
];
