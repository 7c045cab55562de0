// What changes where another original takes a photo's place, in sentences: size, ratio, crops, sharpness.
import type { OriginalFacts, Photo, PlanContext, SetPlaces, Size } from '../contract/index.ts';
import { frameReplaced, sameRatio } from '../geometry/replace.ts';
import { listedNames } from '../slots/density-words.ts';
import { slotsIn } from '../slots/slots.ts';
import { bytesInWords } from '../weight/units.ts';
import { cropIn } from './plan.ts';
import { slotsOf } from './set-places.ts';
import { sharpnessIn } from './sharpness.ts';

export interface ReplacementChange {
  what: 'size' | 'ratio' | 'crops' | 'sharpness';
  /** care: visitors would lose by it; todo: the editor has something to look at. */
  state: 'ready' | 'todo' | 'care';
  sentence: string;
}

const sizeInWords = ({ width, height }: Size): string => `${width} × ${height} px`;

/** "3:2" where the sides are in small numbers, by up to 1 %, "1.62:1" otherwise. */
function ratioInWords({ width, height }: Size): string {
  for (let of = 1; of <= 16; of++) {
    const to = Math.round((width * of) / height);
    if (to > 0 && to <= 21 && sameRatio({ width, height }, { width: to, height: of })) return `${to}:${of}`;
  }
  return `${(width / height).toFixed(2)}:1`;
}

function sizeChange(before: OriginalFacts, after: OriginalFacts): ReplacementChange {
  const was = `${sizeInWords(before)}, ${bytesInWords(before.bytes)}`;
  const sentence =
    before.width === after.width && before.height === after.height
      ? `As large as before: ${sizeInWords(after)}; ${bytesInWords(after.bytes)} after ${bytesInWords(before.bytes)}.`
      : `${sizeInWords(after)}, ${bytesInWords(after.bytes)}; before, ${was}.`;
  return { what: 'size', state: 'ready', sentence };
}

const RANK = { sharp: 0, soft: 1, 'too-small': 2 } as const;
const SAID = { sharp: 'sharp', soft: 'soft on dense screens', 'too-small': 'too small' } as const;

/**
 * What the editor is told before a replacement, and why; in the order size, ratio, crops, sharpness.
 * @param setPlaces where photos of the set are seen
 */
export function replacementChanges(
  photo: Photo,
  original: OriginalFacts,
  setPlaces: SetPlaces,
  places: Pick<PlanContext, 'slots' | 'devices'>,
): ReplacementChange[] {
  const { frame, kept, given } = frameReplaced(photo, original);
  const after: Photo = { ...photo, original, frame };
  const same = sameRatio(photo.original, original);
  const ratio: ReplacementChange = same
    ? { what: 'ratio', state: 'ready', sentence: `The same ratio, ${ratioInWords(original)}.` }
    : {
        what: 'ratio',
        state: 'todo',
        sentence: `Another ratio: ${ratioInWords(original)} after ${ratioInWords(photo.original)}.`,
      };
  const crops: ReplacementChange = {
    what: 'crops',
    state: given.length > 0 || !same ? 'todo' : 'ready',
    sentence: !same
      ? `${given.length > 0 ? `The crop ${listedNames(given)} is let go: the` : 'The'} first guess frames it anew.`
      : given.length > 0
        ? `The crop ${listedNames(given)} follows the focal point again; what else was framed stays.`
        : kept.length > 0
          ? `The crop ${listedNames(kept)} and the focal point stay where they were.`
          : 'Focal point and turns stay where they were.',
  };
  const verdicts = slotsIn(places, slotsOf(photo, setPlaces)).flatMap((slot) =>
    slot.shapes.flatMap((part) => {
      const [was, is] = [photo, after].map((one) =>
        sharpnessIn(one, slot, part, cropIn(one, slot.id, part.shape), places.devices),
      );
      if (was!.verdict === is!.verdict) return [];
      const where = part.shape === 'own' ? slot.name : `${slot.name} ${part.shape}`;
      const short = is!.missing > 0 ? `, ${is!.missing} px short` : '';
      const worse = RANK[is!.verdict] > RANK[was!.verdict];
      const change: ReplacementChange = {
        what: 'sharpness',
        state: worse ? 'care' : 'ready',
        sentence: `${where} becomes ${SAID[is!.verdict]}${short}.`,
      };
      return [change];
    }),
  );
  const sharpness: ReplacementChange[] =
    verdicts.length > 0
      ? verdicts
      : [{ what: 'sharpness', state: 'ready', sentence: 'As sharp as before wherever it stands.' }];
  return [sizeChange(photo.original, original), ratio, crops, ...sharpness];
}
