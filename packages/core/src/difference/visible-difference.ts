// Visible difference D of a variant from its crop scaled losslessly to the same pixels.
import { bandEnergies, BANDS, CELL } from './bands.ts';
import { CALIBRATED, type DifferenceModel } from './model.ts';
import { toOpponent, type OpponentPlanes, type Pixels } from './opponent.ts';

/** Contrast sensitivity at f cycles per degree (J. Mannos and D. Sakrison, 1974), in parts of its maximum. */
const sensitivity = (f: number): number => 2.6 * (0.0192 + 0.114 * f) * Math.exp(-((0.114 * f) ** 1.1));

/** Middle of the finest band at density 1: a CSS px is 1/96 inch, seen from 28 inches about 47 px a degree. */
const FINEST = 16;

/**
 * Natural log of what an error's energy counts less on a dense screen: each band lies at finer detail there than it
 * was calibrated for. Detail that a dense screen brings nearer to the eye's best counts as before: pictures must
 * not get worse by being looked at from farther away.
 */
const farther = (band: number, density: number): number => {
  const f = FINEST / 2 ** band;
  return 2 * Math.log(Math.min(1, sensitivity(f * density) / sensitivity(f)));
};

interface Grid {
  width: number;
  height: number;
}

/** Means of 2 × 2 cells around every inner corner: windows of 8 px, every 4 px, that lie inside the picture. */
function windows(cells: Float32Array, stride: number, inner: Grid): Float32Array {
  const result = new Float32Array(inner.width * inner.height);
  for (let y = 0; y < inner.height; y++) {
    let from = y * stride;
    let to = y * inner.width;
    for (let x = 0; x < inner.width; x++, from++, to++) {
      result[to] = (cells[from]! + cells[from + 1]! + cells[from + stride]! + cells[from + stride + 1]!) / 4;
    }
  }
  return result;
}

/** Band energies: lightness in all bands, the two colours from the second on (the finest shows no colour to the eye). */
function energiesOf(planes: OpponentPlanes): Float32Array[][] {
  const { width, height } = planes;
  const none = new Float32Array(0);
  return [
    bandEnergies(planes.lightness, width, height, 0),
    [none, ...bandEnergies(planes.greenRed, width >> 1, height >> 1, 1)],
    [none, ...bandEnergies(planes.blueYellow, width >> 1, height >> 1, 1)],
  ];
}

/** Every value to a power between 0 and 2, in place. */
function raise(values: Float32Array, power: number): void {
  for (let i = 0; i < values.length; i++)
    values[i] = values[i]! > 0 ? Math.exp(power * Math.log(values[i]!)) : 0;
}

/** A picture that variants are compared with: its planes, and how much each window hides. */
export class DifferenceReference {
  private readonly grounds: { planes: OpponentPlanes; weights: Float32Array[][] }[];
  private readonly inner: Grid;
  private readonly model: DifferenceModel;

  /**
   * @param pixels the crop, scaled losslessly to the variant's size.
   * @param density file px per CSS px at which it is looked at, 1 to 4.
   */
  constructor(
    readonly pixels: Pixels,
    readonly density = 1,
    model: DifferenceModel = CALIBRATED,
  ) {
    this.model = model;
    const cells = (side: number): number => Math.max(1, Math.floor(side / CELL) - 1);
    this.inner = { width: cells(pixels.width), height: cells(pixels.height) };
    const alpha = pixels.channels === 2 || pixels.channels === 4;
    // A see-through picture may stand on anything: the worse of a white and a black page counts.
    this.grounds = (alpha ? [255, 0] : [255]).map((ground) => {
      const planes = toOpponent(pixels, ground);
      return { planes, weights: this.weightsOf(planes) };
    });
  }

  /**
   * What can be told of a picture before anything is encoded: natural logs of the mean share of lightness errors
   * that stays visible in the three finer bands. Near 0 where nothing hides them, far below in busy texture.
   */
  get exposure(): [number, number, number] {
    const { weights } = this.grounds[0]!;
    const log = (band: number): number => {
      const own = weights[0]![band]!;
      let sum = 0;
      for (const weight of own) sum += weight;
      return Math.log(sum / own.length) - this.model.weights[0][band]!;
    };
    return [log(0), log(1), log(2)];
  }

  /**
   * D of a variant's decoded pixels; 0 is identical, on the scale of the `butteraugli` program (about 1: found by
   * a trained eye that flips between the two; 2 to 3: unnoticed on a page).
   * @throws RangeError when the sizes differ.
   */
  differenceOf(variant: Pixels): number {
    const { width, height } = this.pixels;
    if (variant.width !== width || variant.height !== height) {
      throw new RangeError(
        `Only pictures of one size can be compared: ${width} × ${height} and ${variant.width} × ${variant.height}.`,
      );
    }
    return Math.max(
      ...[255, 0].slice(0, this.grounds.length).map((ground, i) => this.onGround(variant, ground, i)),
    );
  }

  private onGround(variant: Pixels, ground: number, index: number): number {
    const { planes, weights } = this.grounds[index]!;
    const difference = toOpponent(variant, ground, planes);
    const stride = planes.width / CELL;
    const sum = new Float32Array(this.inner.width * this.inner.height);
    energiesOf(difference).forEach((bands, c) =>
      bands.forEach((cells, band) => {
        if (cells.length === 0) return;
        const energy = windows(cells, stride, this.inner);
        const weight = weights[c]![band]!;
        for (let i = 0; i < sum.length; i++) sum[i]! += weight[i]! * energy[i]!;
      }),
    );
    return this.pooled(sum);
  }

  /** A high norm, in which a small damaged region counts, beside the root mean square of the whole. */
  private pooled(energies: Float32Array): number {
    const { norm, wholeShare, areaPower, scale, power } = this.model;
    let most = 0;
    let total = 0;
    for (const energy of energies) {
      total += energy;
      if (energy > most) most = energy;
    }
    if (most === 0) return 0;
    let sum = 0;
    // What is below a twentieth of the worst adds nothing to a high norm.
    for (const energy of energies) if (energy > most / 20) sum += (energy / most) ** (norm / 2);
    const area = (energies.length / 10_000) ** areaPower;
    const peak = Math.sqrt(most) * (sum / area) ** (1 / norm);
    return scale * (peak + wholeShare * Math.sqrt(total / energies.length)) ** power;
  }

  /** Per channel and band, what an error's energy in a window counts: sensitivity ÷ (1 + what hides it)². */
  private weightsOf(planes: OpponentPlanes): Float32Array[][] {
    const { model } = this;
    const stride = planes.width / CELL;
    const activity = energiesOf(planes).map((bands) =>
      bands.map((cells) => (cells.length > 0 ? windows(cells, stride, this.inner) : cells)),
    );
    const [light, colour, blue] = activity as [Float32Array[], Float32Array[], Float32Array[]];
    // Both colours hide each other alike.
    colour.forEach((own, band) => {
      const other = blue[band]!;
      for (let i = 0; i < own.length; i++) own[i]! += other[i]!;
    });
    for (const energies of [...light, ...colour]) raise(energies, model.maskPower / 2);
    const size = this.inner.width * this.inner.height;
    const nothing = new Float32Array(size);
    return model.weights.map((own, channel) =>
      Array.from({ length: BANDS }, (_, band) => {
        const result = new Float32Array(channel > 0 && band === 0 ? 0 : size);
        const weight = Math.exp(own[band]! + farther(band, this.density));
        const [self, first, second] =
          channel === 0
            ? [model.hides[band]!, model.hidesAround, model.hidesAround]
            : [model.colourHidesColour, model.lightHidesColour, model.lightHidesColour];
        const own0 = channel === 0 ? light[band]! : colour[band]!;
        // Lightness is hidden by the bands beside it, colour by lightness in the two middle bands.
        const near = channel > 0 ? light[1]! : band === 1 || band === 2 ? light[band - 1]! : nothing;
        const far = channel > 0 ? light[2]! : band < 2 ? light[band + 1]! : nothing;
        for (let i = 0; i < result.length; i++) {
          const mask = 1 + self * own0[i]! + first * near[i]! + second * far[i]!;
          result[i] = weight / (mask * mask);
        }
        return result;
      }),
    );
  }
}

/** D of two pictures of one size; see `DifferenceReference`, which is cheaper for several variants of one crop. */
export const visibleDifference = (reference: Pixels, variant: Pixels, density = 1): number =>
  new DifferenceReference(reference, density).differenceOf(variant);
