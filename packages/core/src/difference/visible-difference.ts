// Visible difference D of a variant from its crop scaled losslessly to the same pixels.
import { CELL } from './bands.ts';
import { errorWeights } from './masking.ts';
import { CALIBRATED, type DifferenceModel } from './model.ts';
import { planesFor, toOpponent, type OpponentPlanes, type Pixels } from './opponent.ts';
import { pooled, visibleEnergies } from './pooling.ts';
import { halved } from './reduce.ts';
import type { DifferenceMap } from './spots.ts';
import { gridOf, windowEnergies, type Grid, type WindowEnergies } from './windows.ts';

/** What can be told of a picture before anything is encoded. */
export interface KnownOfPicture {
  /**
   * Natural logs of the mean share of lightness errors that stays visible in the three finer bands: near 0 where
   * nothing hides them, far below in busy texture.
   */
  exposure: readonly [number, number, number];
  /** Natural log of the mean energy of its green–red detail some 8 px long: what halving the colour would lose. */
  colour: number;
}

const mean = (values: Float32Array): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Where colour detail is looked for, that most tells how a picture takes to being encoded. */
const TELLING_BAND = 2;
/** Energy below which colour detail is nothing to anybody. */
const NO_COLOUR = 1e-6;

/** A picture at one viewing distance, on each of the grounds that it may stand on. */
class SeenReference {
  private readonly grounds: { grey: number; planes: OpponentPlanes; weights: WindowEnergies }[];
  readonly known: KnownOfPicture;
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
    let colour = 0;
    this.grounds = (alpha ? [255, 0] : [255]).map((grey, n) => {
      const planes = toOpponent(pixels, grey);
      const activity = windowEnergies(planes, this.inner);
      if (n === 0) colour = Math.log(mean(activity[1]![TELLING_BAND]!) + NO_COLOUR);
      return { grey, planes, weights: errorWeights(activity, model) };
    });
    const [lightness] = this.grounds[0]!.weights as [Float32Array[]];
    const exposed = (band: number): number => Math.log(mean(lightness[band]!)) - model.weights[0][band]!;
    this.known = { exposure: [exposed(0), exposed(1), exposed(2)], colour };
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

  /** At the nearer of the distances that it is looked at from. */
  get known(): KnownOfPicture {
    return this.seen[0]!.known;
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
