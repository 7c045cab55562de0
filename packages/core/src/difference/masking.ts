// How much of an error counts where: what is in the picture hides errors in it.
import type { DifferenceModel } from './model.ts';
import type { WindowEnergies } from './windows.ts';

/** Every value to a power between 0 and 2. */
const raised = (values: Float32Array, power: number): Float32Array =>
  values.map((value) => (value > 0 ? Math.exp(power * Math.log(value)) : 0));

/**
 * Per channel, band and window what an error's energy counts: weight of the band ÷ (1 + what hides it)². Lightness
 * is hidden by its own band and those beside it, colour by colour of its own band and by lightness in the two
 * middle bands. Contrast masking after J. Foley, "Human luminance pattern-vision mechanisms", 1994: a divisive
 * pool of activities raised to a power.
 * @param activity energies of the picture itself.
 */
export function errorWeights(activity: WindowEnergies, model: DifferenceModel): WindowEnergies {
  const [lightness, greenRed, blueYellow] = activity as [Float32Array[], Float32Array[], Float32Array[]];
  const power = model.maskPower / 2;
  const light = lightness.map((own) => raised(own, power));
  // Both colours hide each other alike.
  const colour = greenRed.map((own, band) =>
    raised(
      own.map((value, i) => value + blueYellow[band]![i]!),
      power,
    ),
  );
  const nothing = new Float32Array(light[0]!.length);
  return model.weights.map((bands, channel) =>
    bands.map((logWeight, band) => {
      const weight = Math.exp(logWeight);
      const isLight = channel === 0;
      const own = isLight ? light[band]! : colour[band]!;
      const [hides, around] = isLight
        ? [model.hides[band]!, model.hidesAround]
        : [model.colourHidesColour, model.lightHidesColour];
      const finer = !isLight ? light[1]! : band === 1 || band === 2 ? light[band - 1]! : nothing;
      const coarser = !isLight ? light[2]! : band < 2 ? light[band + 1]! : nothing;
      const result = new Float32Array(own.length);
      for (let i = 0; i < result.length; i++) {
        const mask = 1 + hides * own[i]! + around * (finer[i]! + coarser[i]!);
        result[i] = weight / (mask * mask);
      }
      return result;
    }),
  );
}
