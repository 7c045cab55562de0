// Words that a picture shows: which of what a reader of characters reports are words, and whether they are carried.
import type { Extent, ShownLine, Words } from '../../contract/index.ts';
import { wordsOf } from './text.ts';

/** A word as it was read, somewhere in a picture that may have been turned for it. */
export interface ReadWord {
  text: string;
  /** How sure the reader is, 0 to 100. */
  confidence: number;
  /** In fractions of the picture's sides, as it lies. */
  box: Extent;
  /** Words of one line have the same number. */
  line: number;
}

/** One reading of the whole picture. */
export interface Reading {
  /** Degrees by which it was turned, clockwise. */
  angle: number;
  words: ReadWord[];
  /** How far its lines still lie from level, degrees clockwise; null where none was read that tells. */
  slope: number | null;
}

/** A line as it was read in a turned picture: where its letters stand, in its px. */
export interface Baseline {
  from: { x: number; y: number };
  to: { x: number; y: number };
}

/** A line that is steeper was not read along its letters. Degrees. */
const STEEPEST = 8;

/** How far lines lie from level: the middle one's slope, each as often as it is long. Degrees clockwise. */
export function slopeOf(lines: readonly Baseline[]): number | null {
  const slopes = lines
    .map(({ from, to }) => ({
      slope: (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI,
      length: Math.hypot(to.x - from.x, to.y - from.y),
    }))
    .filter(({ slope, length }) => length > 0 && Math.abs(slope) <= STEEPEST)
    .sort((a, b) => a.slope - b.slope);
  const half = slopes.reduce((sum, { length }) => sum + length, 0) / 2;
  let passed = 0;
  return slopes.find(({ length }) => (passed += length) >= half)?.slope ?? null;
}

/** Leaves, bricks and pebbles are read as short words, rarely as long ones that are sure. */
const SURE = { letters: 4, confidence: 85 };
/** Beside a sure word on its line others are believed sooner. */
const BESIDE = { letters: 1, confidence: 60 };
/** In a picture that has a sure word, others are words with less. */
const LIKELY = { letters: 3, confidence: 70 };
/** So many sure words are text for certain: another angle would bring the same once more. */
const ENOUGH = 3;

const lettersOf = (text: string): number => (text.match(/[\p{L}\p{N}]/gu) ?? []).length;

/** Written as words are: capitals throughout, or at the beginning, or none; few marks. */
function isRegular(text: string): boolean {
  const bare = text.replace(/^[\p{P}\p{S}]+|[\p{P}\p{S}]+$/gu, '');
  return /^(?:\p{Lu}+|\p{Lu}?\p{Ll}+|[\p{N}.,:]+\p{L}{0,2}|\p{Lu}?[\p{Ll}]+[-’']\p{L}+)$/u.test(bare);
}

const reaches = ({ text, confidence }: ReadWord, least: typeof SURE): boolean =>
  confidence >= least.confidence && lettersOf(text) >= least.letters && isRegular(text);

const isSure = (word: ReadWord): boolean => reaches(word, SURE);

const around = (boxes: readonly Extent[]): Extent => ({
  left: Math.min(...boxes.map(({ left }) => left)),
  top: Math.min(...boxes.map(({ top }) => top)),
  right: Math.max(...boxes.map(({ right }) => right)),
  bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
});

/** Lines that hold words, with what stands beside them; none where no word is sure. */
function linesIn({ words }: Reading): ShownLine[] {
  if (!words.some(isSure)) return [];
  const byLine = new Map<number, ReadWord[]>();
  for (const word of words) byLine.set(word.line, [...(byLine.get(word.line) ?? []), word]);
  return [...byLine.values()].flatMap((line) => {
    if (!line.some((word) => reaches(word, LIKELY))) return [];
    const kept = line.filter(
      (word) =>
        reaches(word, LIKELY) ||
        (word.confidence >= BESIDE.confidence && lettersOf(word.text) >= BESIDE.letters),
    );
    return [{ text: kept.map(({ text }) => text).join(' '), box: around(kept.map(({ box }) => box)) }];
  });
}

const sureIn = ({ words }: Reading): number => words.filter(isSure).length;

/** Whether a reading has found text for certain, so that no other angle need be tried. */
export const isPlain = (reading: Reading): boolean => sureIn(reading) >= ENOUGH;

/** Letters of the words that reach something, each by how sure it is. */
const weightOf = ({ words }: Reading, least: typeof SURE): number =>
  words
    .filter((word) => reaches(word, least))
    .reduce((sum, { text, confidence }) => sum + lettersOf(text) * confidence, 0);

function heaviest(readings: readonly Reading[], least: typeof SURE): Reading | null {
  let best: { reading: Reading; weight: number } | null = null;
  for (const reading of readings) {
    const weight = weightOf(reading, least);
    if (weight > (best?.weight ?? 0)) best = { reading, weight };
  }
  return best?.reading ?? null;
}

/** The reading that found most: at one angle a sign is straight, at the others it is noise. Null where no word is sure. */
export const clearest = (readings: readonly Reading[]): Reading | null => heaviest(readings, SURE);

/** The reading beside whose angle a word may be found that none of them is sure of; null where there is no hope. */
export const hopeful = (readings: readonly Reading[]): Reading | null =>
  clearest(readings) ?? heaviest(readings, { ...SURE, confidence: LIKELY.confidence });

/** The lines of words of the reading that found most. */
export function shownLines(readings: readonly Reading[]): ShownLine[] {
  const best = clearest(readings);
  return best === null ? [] : linesIn(best);
}

/** A box of a turned picture in the picture as it lies; both in fractions of their own sides. */
export function turnedBack(
  box: Extent,
  turned: { width: number; height: number },
  lying: { width: number; height: number },
  degrees: number,
): Extent {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const corners = [box.left, box.right].flatMap((x) =>
    [box.top, box.bottom].map((y) => {
      const [dx, dy] = [(x - 0.5) * turned.width, (y - 0.5) * turned.height];
      return {
        x: (dx * cos + dy * sin) / lying.width + 0.5,
        y: (dy * cos - dx * sin) / lying.height + 0.5,
      };
    }),
  );
  const within = (value: number) => Math.min(1, Math.max(0, value));
  return {
    left: within(Math.min(...corners.map(({ x }) => x))),
    top: within(Math.min(...corners.map(({ y }) => y))),
    right: within(Math.max(...corners.map(({ x }) => x))),
    bottom: within(Math.max(...corners.map(({ y }) => y))),
  };
}

/** A text with the words that a picture shows put behind it. */
export function withShown(
  words: Words,
  shown: readonly ShownLine[],
  field: 'alt' | 'longDescription',
): Partial<Words> {
  const lines = shown.map(({ text }) => text);
  const before = words[field].trim();
  if (field === 'longDescription')
    return { longDescription: [before, ...lines].filter(Boolean).join('\n\n') };
  const said = lines.join(' ');
  return { alt: before ? `${before.replace(/[.\s]+$/, '')}: “${said}”` : said };
}

/** Share of the words shown that must be told elsewhere: readers of characters err, and nobody repeats a colophon. */
const CARRIED = 0.6;
/** From so many letters on, one of them may be read wrongly. */
const MAY_ERR = 5;

/** True where two words differ by one letter at most: put in, left out, or another one. */
function almostEqual(a: string, b: string): boolean {
  if (a === b) return true;
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (short.length < MAY_ERR || long.length - short.length > 1) return false;
  let at = 0;
  while (at < short.length && short[at] === long[at]) at++;
  return short.slice(long.length === short.length ? at + 1 : at) === long.slice(at + 1);
}

/** Whether texts tell what a picture shows in words. */
export function isCarried(lines: readonly ShownLine[], texts: readonly string[]): boolean {
  const shown = new Set(lines.flatMap(({ text }) => wordsOf(text)).filter((word) => word.length > 2));
  if (shown.size === 0) return true;
  const told = new Set(texts.flatMap(wordsOf));
  const carried = [...shown].filter(
    (word) => told.has(word) || [...told].some((other) => almostEqual(word, other)),
  );
  return carried.length >= CARRIED * shown.size;
}
