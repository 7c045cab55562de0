// Quantisation tables of a JPEG: most encoders scale the two examples of the standard, so that a table that is one of
// them but for a few numbers far off was garbled.

/** ITU-T T.81, tables K.1 (lightness) and K.2 (colour), row by row. */
const LIGHTNESS = [
  16, 11, 10, 16, 24, 40, 51, 61, 12, 12, 14, 19, 26, 58, 60, 55, 14, 13, 16, 24, 40, 57, 69, 56, 14, 17, 22,
  29, 51, 87, 80, 62, 18, 22, 37, 56, 68, 109, 103, 77, 24, 35, 55, 64, 81, 104, 113, 92, 49, 64, 78, 87, 103,
  121, 120, 101, 72, 92, 95, 98, 112, 100, 103, 99,
];
const REST = [99, 99, 99, 99];
const COLOUR = [
  ...[17, 18, 24, 47, ...REST, 18, 21, 26, 66, ...REST, 24, 26, 56, 99, ...REST, 47, 66, 99, 99, ...REST],
  ...Array.from({ length: 32 }, () => 99),
];

/** Where the numbers of a file stand in the rows of a block (T.81, figure A.6). */
const ZIGZAG = [...Array(64).keys()].sort((a, b) => {
  const [lineA, lineB] = [a, b].map((at) => (at >> 3) + (at & 7)) as [number, number];
  const along = (at: number, line: number) => (line % 2 === 0 ? at & 7 : at >> 3);
  return lineA - lineB || along(a, lineA) - along(b, lineB);
});

/** A table at the quality of 1 to 100 by which encoders scale it, in a file's order; numbers end at 255. */
const scaled = (table: readonly number[], quality: number): number[] => {
  const percent = quality < 50 ? Math.floor(5000 / quality) : 200 - 2 * quality;
  return ZIGZAG.map((at) => Math.min(255, Math.max(1, Math.floor((table[at]! * percent + 50) / 100))));
};

/** Both at every quality, made once: a TIFF has the tables of a JPEG for each of its strips. */
const SOUND = [LIGHTNESS, COLOUR].flatMap((table) =>
  Array.from({ length: 100 }, (_, i) => scaled(table, i + 1)),
);

/** At most so many numbers are wrong; of those that are not at the end of what is possible so many must be right. */
const MOST_WRONG = 6;
const FEWEST_RIGHT = 40;
/** A wrong one is so many times too large or too small, and by so much: encoders that round otherwise are a little off. */
const FAR_OFF = 1.8;
const FAR = 8;

const isFarOff = (is: number, should: number): boolean =>
  Math.abs(is - should) >= FAR && Math.max(is / should, should / is) >= FAR_OFF;

/** Whether a table is one of the standard's but for a few numbers that are far off. @param table 64 numbers in a file's order */
export function isGarbledTable(table: ArrayLike<number>): boolean {
  const all = Array.from(table);
  if (all.includes(0)) return true;
  for (const sound of SOUND) {
    const wrong: number[] = [];
    for (let i = 0; i < all.length && wrong.length <= MOST_WRONG; i++) if (all[i] !== sound[i]) wrong.push(i);
    if (wrong.length === 0) return false;
    if (wrong.length > MOST_WRONG) continue;
    const right = sound.filter((n, i) => n === all[i] && n > 1 && n < 255).length;
    if (right >= FEWEST_RIGHT && wrong.some((i) => isFarOff(all[i]!, sound[i]!))) return true;
  }
  return false;
}
