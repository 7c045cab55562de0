// Visible difference D of a variant from its crop scaled losslessly to the same pixels.
import { CELL } from './bands.ts';
import { errorWeights } from './masking.ts';
import { CALIBRATED, type DifferenceModel } from './model.ts';
import { planesFor, toOpponent, type OpponentPlanes, type Pixels } from './opponent.ts';
import { pooled, visibleEnergies } from './pooling.ts';
import { halved } from './reduce.ts';
import type { DifferenceMap } from './spots.ts';
import { gridOf, windowEnergies, type Grid, type WindowEnergies } from './windows.ts';

/** A picture at one viewing distance, on each of the grounds that it may stand on. */
class SeenReference {
  private readonly grounds: { grey: number; planes: OpponentPlanes; weights: WindowEnergies }[];
  private readonly inner: Grid;
  /** Of the variant that is compared: made with the first. */
  private planes: OpponentPlanes | undefined;

  constructor(
    pixels: Pixels,
    private readonly model: DifferenceModel,
  ) {
    this.inner = gridOf(pixels.width, pixels.height);
    const alpha = pixels.channels === 2 || pixels.channels === 4;
    // A see-through picture may stand on anything: the worse of a white and a black page counts.
    this.grounds = (alpha ? [255, 0] : [255]).map((grey) => {
      const planes = toOpponent(pixels, grey);
      return { grey, planes, weights: errorWeights(windowEnergies(planes, this.inner), model) };
    });
  }

  get exposure(): [number, number, number] {
    const weights = this.grounds[0]!.weights[0]!;
    const log = (band: number): number => {
      const own = weights[band]!;
      return (
        Math.log(own.reduce((sum, weight) => sum + weight, 0) / own.length) - this.model.weights[0][band]!
      );
    };
    return [log(0), log(1), log(2)];
  }

  differenceOf(variant: Pixels): number {
    return this.worstOf(variant).difference;
  }

  /** What is seen on the ground where most is. */
  worstOf(variant: Pixels): { difference: number; energies: Float32Array; inner: Grid } {
    this.planes ??= planesFor(variant);
    const into = this.planes;
    const [first, ...others] = this.grounds.map(({ grey, planes, weights }) => {
      const errors = windowEnergies(toOpponent(variant, grey, planes, into), this.inner);
      const energies = visibleEnergies(errors, weights);
      return { difference: pooled(energies, this.model), energies, inner: this.inner };
    });
    return others.reduce((worst, one) => (one.difference > worst.difference ? one : worst), first!);
  }
}

/** Halvings after which nothing would be left to look at. */
const LEAST_SIDE = 8;

/**
 * A picture that variants are compared with. A dense file is looked at from farther, measured in its own pixels: at
 * density 2 the eye averages about 2 × 2 of them, so the halves are compared; between two halvings D is taken
 * between theirs, in proportion to log₂ of the density.
 */
export class DifferenceReference {
  /** Nearer first; a second one where the density lies between two halvings. */
  private readonly seen: SeenReference[] = [];
  private readonly halvings: number;
  private readonly between: number;

  /**
   * @param pixels the crop, scaled losslessly to the variant's size.
   * @param density file px per CSS px at which it is looked at, from 1.
   */
  constructor(
    readonly pixels: Pixels,
    readonly density = 1,
    model: DifferenceModel = CALIBRATED,
  ) {
    const most = Math.max(0, Math.floor(Math.log2(Math.min(pixels.width, pixels.height) / LEAST_SIDE)));
    const level = Math.min(most, Math.log2(Math.max(1, density)));
    this.halvings = Math.floor(level);
    this.between = level - this.halvings;
    const near = this.reduced(pixels);
    this.seen.push(new SeenReference(near, model));
    if (this.between > 0) this.seen.push(new SeenReference(halved(near), model));
  }

  /**
   * What can be told of a picture before anything is encoded: natural logs of the mean share of lightness errors
   * that stays visible in the three finer bands. Near 0 where nothing hides them, far below in busy texture.
   */
  get exposure(): [number, number, number] {
    return this.seen[0]!.exposure;
  }

  /**
   * D of a variant's decoded pixels; 0 is identical, on the scale of the `butteraugli` program (about 1: found by
   * a trained eye that flips between the two; 2 to 3: unnoticed on a page).
   * @throws RangeError when the sizes differ.
   */
  differenceOf(variant: Pixels): number {
    return this.look(variant).difference;
  }

  /**
   * D of a variant with the map of where it is seen, in windows of 8 px as it is looked at: of a dense file larger ones.
   * @throws RangeError when the sizes differ.
   */
  look(variant: Pixels): { difference: number; map: DifferenceMap } {
    const { width, height } = this.pixels;
    if (variant.width !== width || variant.height !== height) {
      throw new RangeError(
        `Only pictures of one size can be compared: ${width} × ${height} and ${variant.width} × ${variant.height}.`,
      );
    }
    const [near, far] = this.seen;
    const pixels = this.reduced(variant);
    const { difference, energies, inner } = near!.worstOf(pixels);
    const map = { ...inner, step: CELL * 2 ** this.halvings, energies };
    if (!far) return { difference, map };
    return {
      difference: (1 - this.between) * difference + this.between * far.differenceOf(halved(pixels)),
      map,
    };
  }

  private reduced(pixels: Pixels): Pixels {
    let result = pixels;
    for (let i = 0; i < this.halvings; i++) result = halved(result);
    return result;
  }
}

/** D of two pictures of one size; see `DifferenceReference`, which is cheaper for several variants of one crop. */
export const visibleDifference = (reference: Pixels, variant: Pixels, density = 1): number =>
  new DifferenceReference(reference, density).differenceOf(variant);
