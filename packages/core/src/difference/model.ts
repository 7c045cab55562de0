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
    [-0.097, 1.492, 1.798, 2.723, 2.832, -3],
    [-Infinity, -1, -1, 2.87, 1.36, -3],
    [-Infinity, -2, -1, -0.698, 2.395, -3],
  ],
  hides: [97.8, 17.6, 2.34, 138.6, 3.11, 0],
  hidesAround: 33.54,
  lightHidesColour: 161.4,
  colourHidesColour: 1.393,
  darkColour: 0.514,
  maskPower: 1.1724,
  norm: 13.93,
  wholeShare: 0.001,
  areaPower: 0.294,
  scale: 127.7,
  power: 0.9376,
};
