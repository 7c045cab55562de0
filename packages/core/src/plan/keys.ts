// Keys of variants: what their pixels and bytes depend on, as one hash.
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type {
  EncoderSettings,
  OutputFormat,
  Photo,
  PlannedVariant,
  Rect,
  Turning,
} from '../contract/index.ts';
import { isTurned } from '../geometry/frame.ts';
import { isLossy } from '../weight/curves.ts';
import { FORMER, QUICK } from '../weight/recipes.ts';

/** Raised when rendering changes in a way that makes stored variants wrong. */
export const PIPELINE_VERSION = 5;

/** Everything a variant's pixels and bytes depend on. */
export interface KeyParts {
  original: string;
  orientation: number;
  turning: Turning;
  crop: Rect;
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
}

/**
 * The key of a variant: SHA-256 in hex over its parts in a fixed order.
 * @param version of the pipeline; files of another one are not wanted any more
 */
export function variantKey(parts: KeyParts, version = PIPELINE_VERSION): string {
  const { crop, settings, turning } = parts;
  const text = JSON.stringify([
    version,
    parts.original,
    parts.orientation,
    // A photo that is not turned keeps the key that it had before there were turns.
    isTurned(turning) ? [turning.mirrored, turning.turns, turning.angle] : 0,
    [crop.x, crop.y, crop.width, crop.height],
    [parts.width, parts.height],
    parts.format,
    Object.entries(settings).sort(([a], [b]) => (a < b ? -1 : 1)),
  ]);
  return bytesToHex(sha256(utf8ToBytes(text)));
}

/** Raised when the thorough pass makes other files than before. */
const THOROUGH_VERSION = 1;

/** Key of the file that the thorough pass makes for a variant. */
export const thoroughKey = (key: string): string =>
  bytesToHex(sha256(utf8ToBytes(JSON.stringify(['thorough', THOROUGH_VERSION, key]))));

const RECIPE_KEYS = Object.keys({ ...QUICK.jpeg, ...QUICK.webp, ...QUICK.avif });

/** Settings as the pipeline's version before had them: without its recipe, and with the one of then. */
export function formerSettings({
  format,
  settings,
}: Pick<PlannedVariant, 'format' | 'settings'>): EncoderSettings {
  if (!isLossy(format) || settings.fullChroma === undefined) return settings;
  const rest = Object.entries(settings).filter(([name]) => !RECIPE_KEYS.includes(name));
  return { ...Object.fromEntries(rest), ...FORMER[format] };
}

/** Keys of the files that the pipeline's version before made of the same variant, the thorough one first. */
export function formerKeys(
  { original, frame }: Pick<Photo, 'original' | 'frame'>,
  planned: PlannedVariant,
): readonly string[] {
  const { crop, width, height, format } = planned;
  const { mirrored, turns, angle } = frame;
  const key = variantKey(
    {
      ...{ original: original.hash, orientation: original.orientation, turning: { mirrored, turns, angle } },
      ...{ crop, width, height, format, settings: formerSettings(planned) },
    },
    PIPELINE_VERSION - 1,
  );
  return [thoroughKey(key), key];
}
