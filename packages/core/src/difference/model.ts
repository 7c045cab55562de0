// The numbers of the visible difference, found once by calibration (docs/methods/visible-difference.md).

export interface DifferenceModel {
  /**
   * Natural log of what an error's energy counts, by channel (lightness, green–red, blue–yellow) and band, fine to coarse.
   * The finest band of the colours is not looked at.
   */
  weights: readonly [readonly number[], readonly number[], readonly number[]];
  /** How strongly lightness detail of a band hides errors of that band. */
  hides: readonly number[];
  /** The same from the bands beside it. */
  hidesAround: number;
  /** How strongly texture, lightness detail in bands 1 and 2, hides errors of lightness that are coarser than it. */
  textureHidesCoarse: number;
  lightHidesColour: number;
  colourHidesColour: number;
  /**
   * How much more errors of the colours count for each unit of OKLab lightness that a window lies below the middle, as
   * a power of e. For lightness the same was fitted, and came out as none.
   */
  darkColour: number;
  /** Power of contrast in masking. */
  maskPower: number;
  /** Norm over windows. */
  norm: number;
  /** Share of the whole picture's root mean square beside the norm. */
  wholeShare: number;
  /** 1: the norm is a mean over windows; 0: it is their sum. */
  areaPower: number;
  /** From the pooled error to the scale of the reference program: scale × error ^ power. */
  scale: number;
  power: number;
}

/** Fitted to the `butteraugli` program on the photographs of the calibration half. */
export const CALIBRATED: DifferenceModel = {
  weights: [
    [0.013, 1.536, 1.753, 2.587, 2.99, -3],
    [-Infinity, -1, -1, 2.896, 1.381, -3],
    [-Infinity, -1.999, -1, -0.703, 2.512, -3],
  ],
  hides: [93.29, 18.33, 2.342, 154, 3.134, 0],
  hidesAround: 34.41,
  textureHidesCoarse: 4.107,
  lightHidesColour: 172.2,
  colourHidesColour: 1.395,
  darkColour: 0.549,
  maskPower: 1.165,
  norm: 13.41,
  wholeShare: 0.001,
  areaPower: 0.3058,
  scale: 127.6,
  power: 0.9432,
};
