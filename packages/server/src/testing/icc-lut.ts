// For tests: what an ink profile says a colour looks like, read and computed here, and profiles made from a formula.

/** CIE L*a*b* under D50, relative to the paper. */
export type Lab = readonly [number, number, number];
/** What stands for a colour of four inks, each 0 to 1. */
export type InkModel = (inks: readonly number[]) => Lab;

const INKS = 4;

type Xyz = [number, number, number];
/** D50, the white of profiles. */
const WHITE: Xyz = [0.9642, 1, 0.8249];

/** The table that an ICC profile gives for the perceptual intent (ICC.1:2010, 9.2.1). */
function tableOf(profile: Buffer): Buffer {
  for (let n = 0; n < profile.readUInt32BE(128); n++) {
    const entry = 132 + 12 * n;
    if (profile.toString('latin1', entry, entry + 4) !== 'A2B0') continue;
    const from = profile.readUInt32BE(entry + 4);
    return profile.subarray(from, from + profile.readUInt32BE(entry + 8));
  }
  throw new Error('The profile has no table.');
}

/** Along a curve of `entries` values from `at`, 0 to 1 in and out. */
function along(table: Buffer, at: number, entries: number, value: number): number {
  const place = Math.min(1, Math.max(0, value)) * (entries - 1);
  const low = Math.min(entries - 2, Math.floor(place));
  const [a, b] = [table.readUInt16BE(at + 2 * low), table.readUInt16BE(at + 2 * low + 2)];
  return (a + (b - a) * (place - low)) / 0xffff;
}

/**
 * The colours of a profile for inks: lut16Type (ICC.1:2010, 10.10) with linear steps between the points of the grid,
 * L*a*b* in its older coding of 16 bits (10.10, table 42).
 */
export function inkModelOf(profile: Buffer): InkModel {
  const table = tableOf(profile);
  if (table.toString('latin1', 0, 4) !== 'mft2' || table[8] !== INKS || table[9] !== 3)
    throw new Error('The profile has another kind of table.');
  const grid = table[10]!;
  const [before, after] = [table.readUInt16BE(48), table.readUInt16BE(50)];
  const points = 52 + 2 * INKS * before;
  const curves = points + 2 * 3 * grid ** INKS;
  return (inks) => {
    const places = inks.map((ink, n) => along(table, 52 + 2 * n * before, before, ink) * (grid - 1));
    const mixed = [0, 0, 0];
    for (let corner = 0; corner < 1 << INKS; corner++) {
      let weight = 1;
      let index = 0;
      places.forEach((place, n) => {
        const low = Math.min(grid - 2, Math.floor(place));
        const up = (corner >> n) & 1;
        weight *= up ? place - low : 1 - (place - low);
        index = index * grid + low + up;
      });
      if (weight === 0) continue;
      for (let n = 0; n < 3; n++) mixed[n]! += weight * table.readUInt16BE(points + 2 * (3 * index + n));
    }
    const [l, a, b] = mixed.map(
      (value, n) => along(table, curves + 2 * n * after, after, value / 0xffff) * 0xffff,
    ) as [number, number, number];
    return [(l / 0xff00) * 100, a / 256 - 128, b / 256 - 128];
  };
}

/** A profile for four inks whose grid of 9 holds a formula's colours. */
export function inkProfile(model: InkModel): Buffer {
  const GRID = 9;
  const values: number[] = [];
  for (let index = 0; index < GRID ** INKS; index++) {
    const inks = [3, 2, 1, 0].map((n) => (Math.floor(index / GRID ** n) % GRID) / (GRID - 1));
    const [l, a, b] = model(inks);
    values.push((l / 100) * 0xff00, (a + 128) * 256, (b + 128) * 256);
  }
  const straight = (curves: number): number[] =>
    Array.from({ length: 2 * curves }, (_, n) => (n % 2) * 0xffff);
  const words = [2, 2, ...straight(INKS), ...values, ...straight(3)];
  const lut = Buffer.alloc(48 + 2 * words.length);
  lut.write('mft2', 'latin1');
  lut.set([INKS, 3, GRID], 8);
  for (const n of [0, 4, 8]) lut.writeInt32BE(0x10000, 12 + 4 * n);
  words.forEach((word, n) => lut.writeUInt16BE(Math.round(word), 48 + 2 * n));
  const white = Buffer.alloc(20);
  white.write('XYZ ', 'latin1');
  WHITE.forEach((value, n) => white.writeInt32BE(Math.round(value * 0x10000), 8 + 4 * n));
  return profileOf({ wtpt: white, A2B0: lut });
}

/** The head and directory of an output profile, version 2 (ICC.1:2001-04, 6.1). */
function profileOf(tags: Record<string, Buffer>): Buffer {
  const names = Object.keys(tags);
  const head = Buffer.alloc(132 + 12 * names.length);
  head.writeUInt32BE(0x02400000, 8);
  head.write('prtrCMYKLab ', 12, 'latin1');
  head.write('acsp', 36, 'latin1');
  WHITE.forEach((value, n) => head.writeInt32BE(Math.round(value * 0x10000), 68 + 4 * n));
  head.writeUInt32BE(names.length, 128);
  let end = head.length;
  names.forEach((name, n) => {
    head.write(name, 132 + 12 * n, 'latin1');
    head.writeUInt32BE(end, 136 + 12 * n);
    head.writeUInt32BE(tags[name]!.length, 140 + 12 * n);
    end += tags[name]!.length;
  });
  head.writeUInt32BE(end, 0);
  return Buffer.concat([head, ...Object.values(tags)]);
}

function xyzOf([l, a, b]: Lab): Xyz {
  const y = (l + 16) / 116;
  const inverse = (t: number) => (t > 6 / 29 ? t ** 3 : 3 * (6 / 29) ** 2 * (t - 4 / 29));
  return [WHITE[0] * inverse(y + a / 500), inverse(y), WHITE[2] * inverse(y - b / 200)];
}

/**
 * Colours of inks as sRGB, 8 bits a channel, what it can't show cut off: the paper as white and all inks over each other
 * as black ("Adobe Systems' Implementation of Black Point Compensation", 2006: a line in X, Y and Z, here to the black's own
 * colour, so that it comes out as 0, 0, 0), then sRGB under D50 (Bradford adaptation; IEC 61966-2-1).
 */
export function inksAsRgb(model: InkModel, inks: readonly number[]): number[] {
  const black = xyzOf(model([1, 1, 1, 1]));
  const [X, Y, Z] = xyzOf(model(inks)).map(
    (value, n) => ((value - black[n]!) * WHITE[n]!) / (WHITE[n]! - black[n]!),
  ) as Xyz;
  return [
    3.1338561 * X - 1.6168667 * Y - 0.4906146 * Z,
    -0.9787684 * X + 1.9161415 * Y + 0.033454 * Z,
    0.0719453 * X - 0.2289914 * Y + 1.4052427 * Z,
  ].map((linear) => {
    const c = Math.min(1, Math.max(0, linear));
    return 255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);
  });
}
