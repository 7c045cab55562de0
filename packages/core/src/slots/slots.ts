// The five slots that ship: width rule, shapes by viewport, byte budget and loading rule.
import type { ShapeId, Size, SlotId } from '../contract/index.ts';
import { contain, ratioOf } from '../geometry/geometry.ts';
import { constant, extreme, type WidthRule } from '../css/width-rule.ts';

/** One shape of a slot and the viewport widths it serves: from ≤ viewport < to, in CSS px. */
export interface SlotShape {
  shape: ShapeId;
  from: number;
  to: number;
}

export interface Slot {
  id: SlotId;
  name: string;
  /** What an editor reads beside the name. */
  hint: string;
  rule: WidthRule;
  /** Largest viewport first; more than one means art direction with `<picture media>`. */
  shapes: readonly SlotShape[];
  /** Bytes of the file that a phone (390 px at 2×) is sent. */
  budget: number;
  /** "first": loads at once as the page's first picture does; "lazy": waits until it comes near. */
  loading: 'first' | 'lazy';
  /** Largest display box in CSS px for slots that show the whole photo. */
  fit?: Size;
}

const PAGE_MARGIN = 32;
const everywhere = (shape: ShapeId): SlotShape[] => [{ shape, from: 0, to: Infinity }];

export const SLOTS: readonly Slot[] = [
  {
    id: 'hero',
    name: 'Full-width hero',
    hint: '3:1 from 700 px, 4:5 on phones',
    rule: [{ from: 0, vw: 1, px: 0 }],
    shapes: [
      { shape: '3:1', from: 700, to: Infinity },
      { shape: '4:5', from: 0, to: 700 },
    ],
    budget: 90_000,
    loading: 'first',
  },
  {
    id: 'column',
    name: 'Text column',
    hint: '3:2, up to 720 px wide',
    rule: [
      { from: 0, vw: 1, px: -PAGE_MARGIN },
      { from: 720 + PAGE_MARGIN, vw: 0, px: 720 },
    ],
    shapes: everywhere('3:2'),
    budget: 50_000,
    loading: 'lazy',
  },
  {
    id: 'half',
    name: 'Half column',
    hint: '4:5, beside text from 752 px',
    rule: [
      { from: 0, vw: 1, px: -PAGE_MARGIN },
      { from: 720 + PAGE_MARGIN, vw: 0, px: 348 },
    ],
    shapes: everywhere('4:5'),
    budget: 60_000,
    loading: 'lazy',
  },
  {
    id: 'grid',
    name: 'Square thumbnail grid',
    hint: '1:1, two to five in a row',
    rule: [
      { from: 0, vw: 1 / 2, px: -PAGE_MARGIN / 2 - 6 },
      { from: 600, vw: 1 / 3, px: -PAGE_MARGIN / 3 - 8 },
      { from: 960, vw: 0, px: 240 },
    ],
    shapes: everywhere('1:1'),
    budget: 20_000,
    loading: 'lazy',
  },
  {
    id: 'viewer',
    name: 'Viewer',
    hint: 'whole photo, inside 1600 × 1200',
    rule: [{ from: 0, vw: 1, px: -PAGE_MARGIN }],
    shapes: everywhere('own'),
    budget: 120_000,
    loading: 'lazy',
    fit: { width: 1600, height: 1200 },
  },
];

/** @throws RangeError for a slot that does not exist. */
export function slotById(id: SlotId): Slot {
  const slot = SLOTS.find((candidate) => candidate.id === id);
  if (!slot) throw new RangeError(`There is no slot "${id}".`);
  return slot;
}

export const isSlotId = (value: string): value is SlotId => SLOTS.some((slot) => slot.id === value);

/** The display width rule of one shape in a slot; a fitted slot shows no photo above its own pixels. */
export function ruleFor(slot: Slot, shape: ShapeId, crop: Size): WidthRule {
  if (!slot.fit) return slot.rule;
  const ratio = ratioOf(shape, crop);
  const widest = contain({ width: crop.width, height: crop.width / ratio }, slot.fit).width;
  return extreme(slot.rule, constant(widest), 'min');
}

/** Every shape that a list of slots needs, each once, in the slots' order. */
export function shapesOf(slots: readonly SlotId[]): ShapeId[] {
  return [...new Set(slots.flatMap((id) => slotById(id).shapes.map((s) => s.shape)))];
}
