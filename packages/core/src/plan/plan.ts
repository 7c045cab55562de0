// Photo + slots + policy → the variants that are wanted, as pure data, each with its key.
import type {
  OriginalFacts,
  OutputFormat,
  Photo,
  Placement,
  PlanContext,
  PlannedVariant,
  Policy,
  QualityDecision,
  Rect,
  RowVariant,
  SetPlaces,
  ShapeId,
  Size,
  Slot,
  SlotId,
  SlotShape,
  StoredFacts,
  Words,
} from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { cropFor, frameCropProblem } from '../geometry/frame.ts';
import { heightFor, ratioOf } from '../geometry/geometry.ts';
import { candidateWidths, demandsOf, viewingDensity } from '../slots/candidates.ts';
import { MOST_DENSITY } from '../slots/devices.ts';
import { ruleFor, slotsIn, spanOf } from '../slots/slots.ts';
import { formatsFor, settingsFor } from '../weight/format.ts';
import { isModern } from '../weight/served.ts';
import { TARGETS } from '../weight/target.ts';
import { treatmentOf, type Treatment } from '../weight/kind.ts';
import { variantKey } from './keys.ts';
import { slotsOf } from './set-places.ts';

/** Whether a thorough pass may do with fewer bytes: what an editor has pinned, moves or is a drawing stays as it is. */
export const mayImprove = ({ settings: { target, lossless }, format }: PlannedVariant): boolean =>
  format !== 'svg' && (target !== undefined || lossless === true);

type Placed = Pick<Photo, 'placements'>;

const BARE: Omit<Placement, 'slot'> = { link: '', words: {}, crops: {} };

/** What is decided for a photo in one slot alone. */
export const placementIn = (photo: Placed, slot: SlotId): Placement =>
  photo.placements?.find((placement) => placement.slot === slot) ?? { slot, ...BARE };

/**
 * The crop that a shape shows in a slot: of this placement, of the photo, or the automatic one. A placement's crop that was made
 * in another set's frame, before the photo was turned or replaced there, may fit no more: then it is not used.
 */
export function cropIn(photo: Photo, slot: SlotId, shape: ShapeId): Rect {
  const own = placementIn(photo, slot).crops[shape];
  return own && frameCropProblem(own, shape, photo) === null ? own : cropFor(photo, shape);
}

/** The words that a photo has in a slot. */
export const wordsIn = (photo: Pick<Photo, 'placements' | 'words'>, slot: SlotId): Words => ({
  ...photo.words,
  ...placementIn(photo, slot).words,
});

/** What kind of picture goes out where, as it was decided: still, laid on a colour, with or without loss, as bitmaps. */
export function treatmentIn(original: OriginalFacts, decision: QualityDecision): Treatment {
  const { still, background, lossless, format } = decision;
  const treatment = treatmentOf(
    {
      ...original,
      ...(still && { frames: 1 }),
      ...(background !== undefined && { transparent: false }),
    },
    format === undefined && lossless === undefined && background === undefined,
  );
  const chosen = lossless !== undefined && lossless !== treatment.lossless;
  if (!chosen || treatment.kind === 'animation') return treatment;
  const reason = lossless
    ? 'Lossless, as you chose: as WebP and PNG.'
    : 'With loss, as you chose, although its kind goes out without.';
  return { ...treatment, lossless, reason };
}

/** True where a photo goes out as a drawing, which is sharp on every screen. */
export const isDrawingIn = (
  { original, quality }: Pick<Photo, 'original' | 'quality'>,
  slot: SlotId,
): boolean => treatmentIn(original, quality[slot] ?? {}).kind === 'drawing';

/** How a slot's files are planned, where it is not as the site says. */
export interface PlanChange {
  /** Densities above it count as this one. */
  mostDensity?: number;
  /** This policy instead of the site's. */
  policy?: Policy;
}

/** The width in CSS px that a picture has where nothing more is known of the screen: on a laptop of 1280 px. */
export const plainWidth = (slot: Slot, part: SlotShape, crop: Size): number =>
  Math.max(1, Math.round(widthAt(ruleFor(slot, part.shape, crop), Math.min(1280, spanOf(part).to - 1))));

/** The quality that a format takes as it is, where one was chosen for it. */
const pinnedFor = (format: OutputFormat, pinned: QualityDecision['pinned']): number | undefined =>
  typeof pinned !== 'object' ? pinned : pinned.format === format ? pinned.quality : undefined;

/** Widths that end at the widest that is wanted. */
const upTo = (widest: number | undefined, widths: readonly number[]): readonly number[] =>
  widest === undefined || widths.every((width) => width <= widest)
    ? widths
    : [...widths.filter((width) => width < widest), widest];

/** Whether a file may keep what its photo has beyond sRGB: colours laid under it are sRGB, and so is what every browser reads. */
const keepsWide = (
  { wide }: OriginalFacts,
  { kind, lossless }: Treatment,
  { background }: QualityDecision,
  format: OutputFormat,
): boolean =>
  wide === true && kind !== 'animation' && !lossless && background === undefined && isModern(format);

/** The variants of one shape in one slot, ascending by width, the modern format first. */
export function planShape(
  photo: Photo,
  slot: Slot,
  shape: ShapeId,
  { devices, policy: ofSite }: Pick<PlanContext, 'devices' | 'policy'>,
  { mostDensity, policy = ofSite }: PlanChange = {},
): PlannedVariant[] {
  const part = slot.shapes.find((s) => s.shape === shape)!;
  const crop = cropIn(photo, slot.id, shape);
  // Own: the crop's ratio is the shape. Otherwise the shape's ratio, so that every width of it agrees.
  const ratio = ratioOf(shape, crop);
  const { hash, orientation, frames, transparent } = photo.original;
  const { mirrored, turns, angle } = photo.frame;
  const decision = photo.quality[slot.id] ?? {};
  const treatment = treatmentIn(photo.original, decision);
  const frame = Math.min(decision.frame ?? 0, frames - 1);
  // Two frames stay at least: one would be a still.
  const every = Math.min(decision.every ?? 1, Math.floor(frames / 2));
  const { pinned } = decision;
  const target = typeof pinned === 'object' ? pinned.difference : TARGETS[decision.target ?? policy.target];
  const most = Math.min(mostDensity ?? MOST_DENSITY, policy.density ?? MOST_DENSITY);
  const demands = demandsOf(slot, part, crop, devices, most);
  const widths =
    treatment.kind === 'drawing'
      ? [plainWidth(slot, part, crop)]
      : upTo(decision.widest, candidateWidths(slot, part, crop, devices, most).widths);
  return widths.flatMap((width) => {
    const density = viewingDensity(width, widths, demands);
    const height = heightFor(width, ratio);
    return formatsFor(treatment, { modern: decision.format ?? policy.modern }).map((format) => {
      const settings = {
        ...settingsFor(
          format,
          treatment,
          { target, density, pixels: width * height, pinned: pinnedFor(format, pinned) },
          policy,
        ),
        ...(decision.still && frames > 1 && { still: true, ...(frame > 0 && { frame }) }),
        ...(treatment.kind === 'animation' && every > 1 && { every }),
        ...(policy.wideColours &&
          keepsWide(photo.original, treatment, decision, format) && { gamut: 'p3' as const }),
        ...(decision.background !== undefined && transparent && { background: decision.background }),
      };
      const key = variantKey({
        original: hash,
        orientation,
        turning: { mirrored, turns, angle },
        crop,
        width,
        height,
        format,
        settings,
      });
      return { key, slot: slot.id, shape, crop, width, height, format, settings };
    });
  });
}

/**
 * All variants a photo wants where it is seen. Two slots may want the same file: it then has the same key twice and
 * is made once. A binned photo wants nothing.
 */
export function planPhoto(
  photo: Photo,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots' | 'devices' | 'policy'>,
): PlannedVariant[] {
  if (photo.binned) return [];
  return slotsIn(context, slotsOf(photo, setPlaces)).flatMap((slot) =>
    slot.shapes.flatMap(({ shape }) => planShape(photo, slot, shape, context)),
  );
}

/** A planned variant as a row of the worktable carries it, with what is known of its file. */
export function rowVariant(
  { key, slot, shape, width, height, format, settings }: PlannedVariant,
  stored: StoredFacts | undefined,
  failure: string | null,
): RowVariant {
  const { bytes = null, contentHash = null, quality = null, difference = null } = stored ?? {};
  const target = settings.target ?? null;
  return {
    key,
    slot,
    shape,
    width,
    height,
    format,
    bytes,
    contentHash,
    quality,
    difference,
    target,
    file: stored?.standIn ?? key,
    failure,
  };
}

/** What is known of files by their keys, and why some could not be made. */
export interface Files {
  get: (key: string) => StoredFacts | undefined;
  failureOf: (key: string) => string | null;
}

/** Planned variants with what is stored of their files. */
export const withFiles = (planned: readonly PlannedVariant[], files: Files): RowVariant[] =>
  planned.map((one) => rowVariant(one, files.get(one.key), files.failureOf(one.key)));

/** The files that a photo wants, with what is stored of them. */
export const variantsOf = (
  photo: Photo,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots' | 'devices' | 'policy'>,
  files: Files,
): RowVariant[] => withFiles(planPhoto(photo, setPlaces, context), files);
