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
    [-0.167, 1.295, 1.622, 0.2, -3],
    [-Infinity, -0.8, -0.098, 2.432, -3],
    [-Infinity, -2, -1, -0.354, -3],
  ],
  hides: [103.7, 1.295, 0.933, 16.45, 0],
  hidesAround: 23.96,
  lightHidesColour: 58.6,
  colourHidesColour: 1.49,
  maskPower: 1.165,
  norm: 14.85,
  wholeShare: 0.0008,
  areaPower: 0.235,
  scale: 132,
  power: 0.928,
};
