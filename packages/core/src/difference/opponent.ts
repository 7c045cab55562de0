// 8-bit sRGB pixels to an opponent colour space on float planes: lightness, green–red, blue–yellow.
import { LINEAR } from './linear.ts';

/** Pixels as codecs hand them over: rows from the top, 1, 2, 3 or 4 interleaved channels of 8 bits, sRGB. */
export interface Pixels {
  data: Uint8Array | Uint8ClampedArray;
  width: number;
  height: number;
  /** 1 grey, 2 grey and alpha, 3 RGB, 4 RGB and alpha (not premultiplied). */
  channels: 1 | 2 | 3 | 4;
}

/** Lightness at full size; the two colour axes at half size, where they are seen. Beyond the edge the picture is mirrored. */
export interface OpponentPlanes {
  /** Of the lightness plane; multiples of 32 px. */
  width: number;
  height: number;
  lightness: Float32Array;
  greenRed: Float32Array;
  blueYellow: Float32Array;
}

/** Every side is filled up to a multiple of this, so that each scale halves exactly. */
const BLOCK = 32;

/**
 * Light that the eye adds to every dark place, as a share of white: below it the cube root of OKLab would
 * call differences large that nobody sees.
 */
const VEIL = 0.003;

/** Steps of the table of cube roots; the darkest step of an 8-bit code is five of them. */
const STEPS = 16_384;
const ROOT = Float64Array.from(
  { length: STEPS + 2 },
  (_, step) => Math.cbrt(step / STEPS + VEIL) - Math.cbrt(VEIL),
);

/** Binary places below a step: sums of whole numbers are faster than of fractions. */
const PLACES = 14;
const HALF = 1 << (PLACES - 1);
/** Cone responses (OKLab's M1) of each 8-bit code of a channel, in steps of the table. */
const conesOf = (share: number): Int32Array =>
  Int32Array.from({ length: 256 }, (_, code) => Math.round(LINEAR[code]! * share * STEPS * (1 << PLACES)));
const [LONG_R, LONG_G, LONG_B] = [0.4122214708, 0.5363325363, 0.0514459929].map(conesOf) as Cones;
const [MIDDLE_R, MIDDLE_G, MIDDLE_B] = [0.2119034982, 0.6806995451, 0.1073969566].map(conesOf) as Cones;
const [SHORT_R, SHORT_G, SHORT_B] = [0.0883024619, 0.2817188376, 0.6299787005].map(conesOf) as Cones;
type Cones = [Int32Array, Int32Array, Int32Array];

/**
 * The pixels as RGB: grey three times, a see-through one laid on `ground`.
 * @param ground 0 (black) to 255 (white), grey.
 */
function solidRgb({ data, width, height, channels }: Pixels, ground: number): Uint8Array {
  if (channels === 3) return new Uint8Array(data.buffer, data.byteOffset, data.length);
  const solid = new Uint8Array(3 * width * height);
  const green = channels === 4 ? 1 : 0;
  const blue = channels === 4 ? 2 : 0;
  const alpha = channels === 1 ? null : channels - 1;
  for (let at = 0, to = 0; to < solid.length; at += channels, to += 3) {
    const cover = alpha === null ? 255 : data[at + alpha]!;
    const under = ground * (255 - cover);
    solid[to] = (data[at]! * cover + under) / 255 + 0.5;
    solid[to + 1] = (data[at + green]! * cover + under) / 255 + 0.5;
    solid[to + 2] = (data[at + blue]! * cover + under) / 255 + 0.5;
  }
  return solid;
}

/** Planes of a picture's size, filled up to whole blocks; what is in them counts for nothing. */
export function planesFor({ width: w, height: h }: Pick<Pixels, 'width' | 'height'>): OpponentPlanes {
  const width = Math.ceil(w / BLOCK) * BLOCK;
  const height = Math.ceil(h / BLOCK) * BLOCK;
  const quarter = (width * height) >> 2;
  return {
    ...{ width, height, lightness: new Float32Array(width * height) },
    ...{ greenRed: new Float32Array(quarter), blueYellow: new Float32Array(quarter) },
  };
}

/**
 * To OKLab's opponent axes (B. Ottosson, "A perceptual color space for image processing", 2020: matrices M1
 * and M2), with a veil of light added before the cube root. A see-through pixel is laid on `ground`.
 * @param ground 0 (black) to 255 (white), grey.
 * @param minus planes of another picture of this size, to be subtracted.
 * @param into where the result is put, of this size: who compares again and again makes planes once.
 */
export function toOpponent(
  pixels: Pixels,
  ground = 255,
  minus?: OpponentPlanes,
  into: OpponentPlanes = planesFor(pixels),
): OpponentPlanes {
  const { width: w, height: h } = pixels;
  const data = solidRgb(pixels, ground);
  const { width, height, lightness, greenRed, blueYellow } = into;
  const half = width >> 1;
  const before = minus?.lightness;
  greenRed.fill(0);
  blueYellow.fill(0);
  for (let y = 0, at = 0; y < h; y++) {
    const out = y * width;
    const outHalf = (y >> 1) * half;
    for (let x = 0; x < w; x++, at += 3) {
      const red8 = data[at]!;
      const green8 = data[at + 1]!;
      const blue8 = data[at + 2]!;
      const long = ROOT[(LONG_R[red8]! + LONG_G[green8]! + LONG_B[blue8]! + HALF) >> PLACES]!;
      const middle = ROOT[(MIDDLE_R[red8]! + MIDDLE_G[green8]! + MIDDLE_B[blue8]! + HALF) >> PLACES]!;
      const short = ROOT[(SHORT_R[red8]! + SHORT_G[green8]! + SHORT_B[blue8]! + HALF) >> PLACES]!;
      const light = Math.fround(0.2104542553 * long + 0.793617785 * middle - 0.0040720468 * short);
      lightness[out + x] = before ? light - before[out + x]! : light;
      // A quarter of each colour: four pixels share a place at half size.
      const place = outHalf + (x >> 1);
      greenRed[place]! += 0.494499623775 * long - 0.60714805125 * middle + 0.112648427475 * short;
      blueYellow[place]! += 0.006476009275 * long + 0.19569294155 * middle - 0.2021689415 * short;
    }
  }
  // A last column or row that stands alone at half size counts twice.
  if (w & 1) scaleColumn([greenRed, blueYellow], w >> 1, half, (h + 1) >> 1);
  if (h & 1) scaleRow([greenRed, blueYellow], h >> 1, half);
  mirrorEdge(lightness, w, h, width, height);
  mirrorEdge(greenRed, (w + 1) >> 1, (h + 1) >> 1, half, height >> 1);
  mirrorEdge(blueYellow, (w + 1) >> 1, (h + 1) >> 1, half, height >> 1);
  if (minus) {
    subtract(greenRed, minus.greenRed);
    subtract(blueYellow, minus.blueYellow);
  }
  return into;
}

function scaleColumn(planes: Float32Array[], x: number, stride: number, rows: number): void {
  for (const plane of planes) for (let y = 0; y < rows; y++) plane[y * stride + x]! *= 2;
}

function scaleRow(planes: Float32Array[], y: number, stride: number): void {
  for (const plane of planes) for (let x = 0; x < stride; x++) plane[y * stride + x]! *= 2;
}

/** Where the mirror image of a place beyond a side's end lies, back and forth for short sides. */
const mirrored = (at: number, side: number): number => {
  const place = at % (2 * side);
  return place < side ? place : 2 * side - 1 - place;
};

/**
 * Fills a plane beyond the picture's w × h with its mirror image. Repeating the last pixel would make a blotch as
 * large as the filling of what is wrong with that one.
 */
function mirrorEdge(plane: Float32Array, w: number, h: number, width: number, height: number): void {
  for (let x = w; x < width; x++) {
    const from = mirrored(x, w);
    for (let y = 0; y < h; y++) plane[y * width + x] = plane[y * width + from]!;
  }
  for (let y = h; y < height; y++) {
    const from = mirrored(y, h) * width;
    plane.copyWithin(y * width, from, from + width);
  }
}

function subtract(plane: Float32Array, other: Float32Array): void {
  for (let i = 0; i < plane.length; i++) plane[i]! -= other[i]!;
}
