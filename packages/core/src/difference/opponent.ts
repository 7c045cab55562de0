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

/** Lightness at full size; the two colour axes at half size, where they are seen. The edge is repeated. */
export interface OpponentPlanes {
  /** Of the lightness plane; multiples of 16 px. */
  width: number;
  height: number;
  lightness: Float32Array;
  greenRed: Float32Array;
  blueYellow: Float32Array;
}

/** Every side is filled up to a multiple of this, so that each scale halves exactly. */
const BLOCK = 16;

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
 * To OKLab's opponent axes (B. Ottosson, "A perceptual color space for image processing", 2020: matrices M1
 * and M2), with a veil of light added before the cube root. A see-through pixel is laid on `ground`.
 * @param ground 0 (black) to 255 (white), grey.
 * @param minus planes of another picture of this size, to be subtracted.
 */
export function toOpponent(pixels: Pixels, ground = 255, minus?: OpponentPlanes): OpponentPlanes {
  const { width: w, height: h, channels } = pixels;
  // One kind of array, so that the loop is compiled for it alone.
  const data = new Uint8Array(pixels.data.buffer, pixels.data.byteOffset, pixels.data.length);
  const width = Math.ceil(w / BLOCK) * BLOCK;
  const height = Math.ceil(h / BLOCK) * BLOCK;
  const half = width >> 1;
  const lightness = new Float32Array(width * height);
  const greenRed = new Float32Array((width * height) >> 2);
  const blueYellow = new Float32Array((width * height) >> 2);
  const green = channels >= 3 ? 1 : 0;
  const blue = channels >= 3 ? 2 : 0;
  const alpha = channels === 2 || channels === 4 ? channels - 1 : 0;
  for (let y = 0; y < h; y++) {
    let at = y * w * channels;
    const out = y * width;
    const outHalf = (y >> 1) * half;
    for (let x = 0; x < w; x++, at += channels) {
      let red8 = data[at]!;
      let green8 = data[at + green]!;
      let blue8 = data[at + blue]!;
      if (alpha > 0) {
        const cover = data[at + alpha]!;
        const under = ground * (255 - cover);
        red8 = ((red8 * cover + under) / 255 + 0.5) | 0;
        green8 = ((green8 * cover + under) / 255 + 0.5) | 0;
        blue8 = ((blue8 * cover + under) / 255 + 0.5) | 0;
      }
      const long = ROOT[(LONG_R[red8]! + LONG_G[green8]! + LONG_B[blue8]! + HALF) >> PLACES]!;
      const middle = ROOT[(MIDDLE_R[red8]! + MIDDLE_G[green8]! + MIDDLE_B[blue8]! + HALF) >> PLACES]!;
      const short = ROOT[(SHORT_R[red8]! + SHORT_G[green8]! + SHORT_B[blue8]! + HALF) >> PLACES]!;
      lightness[out + x] = 0.2104542553 * long + 0.793617785 * middle - 0.0040720468 * short;
      // A quarter of each colour: four pixels share a place at half size.
      const place = outHalf + (x >> 1);
      greenRed[place]! += 0.494499623775 * long - 0.60714805125 * middle + 0.112648427475 * short;
      blueYellow[place]! += 0.006476009275 * long + 0.19569294155 * middle - 0.2021689415 * short;
    }
  }
  // A last column or row that stands alone at half size counts twice.
  if (w & 1) scaleColumn([greenRed, blueYellow], w >> 1, half, (h + 1) >> 1);
  if (h & 1) scaleRow([greenRed, blueYellow], h >> 1, half);
  repeatEdge(lightness, w, h, width, height);
  repeatEdge(greenRed, (w + 1) >> 1, (h + 1) >> 1, half, height >> 1);
  repeatEdge(blueYellow, (w + 1) >> 1, (h + 1) >> 1, half, height >> 1);
  const planes = { width, height, lightness, greenRed, blueYellow };
  if (minus) {
    subtract(lightness, minus.lightness);
    subtract(greenRed, minus.greenRed);
    subtract(blueYellow, minus.blueYellow);
  }
  return planes;
}

function scaleColumn(planes: Float32Array[], x: number, stride: number, rows: number): void {
  for (const plane of planes) for (let y = 0; y < rows; y++) plane[y * stride + x]! *= 2;
}

function scaleRow(planes: Float32Array[], y: number, stride: number): void {
  for (const plane of planes) for (let x = 0; x < stride; x++) plane[y * stride + x]! *= 2;
}

/** Fills a plane beyond the picture's w × h with its last column and row. */
function repeatEdge(plane: Float32Array, w: number, h: number, width: number, height: number): void {
  if (w < width) {
    for (let y = 0; y < h; y++) plane.fill(plane[y * width + w - 1]!, y * width + w, (y + 1) * width);
  }
  for (let y = h; y < height; y++) plane.copyWithin(y * width, (h - 1) * width, h * width);
}

function subtract(plane: Float32Array, other: Float32Array): void {
  for (let i = 0; i < plane.length; i++) plane[i]! -= other[i]!;
}
