// Photo + slots + policy → the variants that are wanted, as pure data, each with its key.
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type {
  OutputFormat,
  Photo,
  PlannedVariant,
  Policy,
  Rect,
  RowVariant,
  StoredFacts,
  ShapeId,
  SlotId,
  EncoderSettings,
} from '../contract/index.ts';
import { cropFor, heightFor, ratioOf } from '../geometry/geometry.ts';
import { candidateWidths, demandsOf, viewingDensity } from '../slots/candidates.ts';
import { DEFAULT_DEVICES, MOST_DENSITY } from '../slots/devices.ts';
import { slotById } from '../slots/slots.ts';
import { formatsFor, settingsFor } from '../weight/format.ts';
import { treatmentOf } from '../weight/kind.ts';

/** Raised when rendering changes in a way that makes stored variants wrong. */
export const PIPELINE_VERSION = 2;

/** Everything a variant's pixels and bytes depend on. */
export interface KeyParts {
  original: string;
  orientation: number;
  /** Degrees; 0 until straightening exists. */
  straighten: number;
  crop: Rect;
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
}

/** The key of a variant: SHA-256 in hex over its parts in a fixed order. */
export function variantKey(parts: KeyParts): string {
  const { crop, settings } = parts;
  const text = JSON.stringify([
    PIPELINE_VERSION,
    parts.original,
    parts.orientation,
    parts.straighten,
    [crop.x, crop.y, crop.width, crop.height],
    [parts.width, parts.height],
    parts.format,
    Object.entries(settings).sort(([a], [b]) => (a < b ? -1 : 1)),
  ]);
  return bytesToHex(sha256(utf8ToBytes(text)));
}

/** The slots a photo stands in: its own, or those of its set. */
export const slotsOf = (photo: Pick<Photo, 'slots'>, setSlots: readonly SlotId[]): readonly SlotId[] =>
  photo.slots ?? setSlots;

/** How a slot's files are planned, where it is not as the policy and the device table say. */
export interface PlanChange {
  /** Densities above it count as this one. */
  mostDensity?: number;
  /** These widths instead of those that are computed. */
  widths?: readonly number[];
}

/** The variants of one shape in one slot, ascending by width, the modern format first. */
export function planShape(
  photo: Photo,
  slotId: SlotId,
  shape: ShapeId,
  policy: Policy,
  { mostDensity = MOST_DENSITY, widths: given }: PlanChange = {},
): PlannedVariant[] {
  const slot = slotById(slotId);
  const part = slot.shapes.find((s) => s.shape === shape)!;
  const crop = cropFor(photo, shape);
  // Own: the crop's ratio is the shape. Otherwise the shape's ratio, so that every width of it agrees.
  const ratio = shape === 'own' ? crop.width / crop.height : ratioOf(shape, photo.original);
  const { hash, orientation } = photo.original;
  const treatment = treatmentOf(photo.original);
  const demands = demandsOf(slot, part, crop, DEFAULT_DEVICES, mostDensity);
  const widths = given ?? candidateWidths(slot, part, crop, DEFAULT_DEVICES, mostDensity).widths;
  return widths.flatMap((width) => {
    const density = viewingDensity(width, widths, demands);
    const height = heightFor(width, ratio);
    return formatsFor(treatment, policy).map((format) => {
      const settings = settingsFor(format, treatment, { target: policy.target, density });
      const key = variantKey({
        original: hash,
        orientation,
        straighten: 0,
        crop,
        width,
        height,
        format,
        settings,
      });
      return { key, slot: slotId, shape, crop, width, height, format, settings };
    });
  });
}

/**
 * All variants a photo wants in the given slots. Two slots may want the same file: it then has the same
 * key twice and is made once. A binned photo wants nothing.
 */
export function planPhoto(photo: Photo, setSlots: readonly SlotId[], policy: Policy): PlannedVariant[] {
  if (photo.binned) return [];
  return slotsOf(photo, setSlots).flatMap((id) =>
    slotById(id).shapes.flatMap(({ shape }) => planShape(photo, id, shape, policy)),
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
    failure,
  };
}
