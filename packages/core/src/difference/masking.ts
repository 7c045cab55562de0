// How much of an error counts where: what is in the picture hides errors in it.
import type { DifferenceModel } from './model.ts';
import type { WindowEnergies } from './windows.ts';

/**
 * Sums of one or two lists, each to a power between 0 and 2. Plain loops: this runs for every picture. Windows beside
 * each other lie in one cell of a coarse band: what stands there again is not raised again.
 */
function raised(power: number, values: Float32Array, more?: Float32Array): Float32Array {
  const result = new Float32Array(values.length);
  let last = 0;
  let lastRaised = 0;
  for (let i = 0; i < result.length; i++) {
    const value = values[i]! + (more ? more[i]! : 0);
    if (value !== last) {
      last = value;
      lastRaised = Math.exp(power * Math.log(value));
    }
    result[i] = lastRaised;
  }
  return result;
}

/**
 * Per channel, band and window what an error's energy counts: weight of the band ÷ (1 + what hides it)². Lightness
 * is hidden by its own band and, of the three finer bands, those beside it; coarse blotches and colour also by what
 * texture has in bands 1 and 2, colour by colour of its own band as well. Contrast masking after J. Foley, "Human luminance pattern-vision mechanisms", 1994: a divisive
 * pool of activities raised to a power.
 * @param activity energies of the picture itself.
 */
export function errorWeights(activity: WindowEnergies, model: DifferenceModel): WindowEnergies {
  const [lightness, greenRed, blueYellow] = activity as [Float32Array[], Float32Array[], Float32Array[]];
  const power = model.maskPower / 2;
  const nothing = new Float32Array(lightness[0]!.length);
  // What hides nothing need not be raised; the three finer bands hide what is beside them.
  const light = lightness.map((own, band) =>
    band < 3 || model.hides[band]! > 0 ? raised(power, own) : nothing,
  );
  // Both colours hide each other alike: what stays of an error is the same for both.
  const colour = greenRed.map((own, band) => raised(power, own, blueYellow[band]));
  const { colourHidesColour, lightHidesColour, hidesAround } = model;
  const ofColour = colour.map((own) =>
    unhidden(own, colourHidesColour, light[1]!, light[2]!, lightHidesColour),
  );
  const ofLight = light.map((own, band) => {
    if (band > 2) return unhidden(own, model.hides[band]!, light[1]!, light[2]!, model.textureHidesCoarse);
    const finer = band > 0 ? light[band - 1]! : nothing;
    const coarser = band < 2 ? light[band + 1]! : nothing;
    return unhidden(own, model.hides[band]!, finer, coarser, hidesAround);
  });
  const adapted = adaptation(lightness.at(-1)!, model.darkColour);
  return model.weights.map((bands, channel) =>
    bands.map((logWeight, band) => {
      const weight = Math.exp(logWeight);
      const share = (channel === 0 ? ofLight : ofColour)[band]!;
      const result = new Float32Array(share.length);
      const scale = channel === 0 ? null : adapted;
      for (let i = 0; i < result.length; i++) result[i] = weight * share[i]! * (scale ? scale[i]! : 1);
      return result;
    }),
  );
}

/** The middle of what pages show, in OKLab's lightness. */
const MIDDLE = 0.6;

/** By window how much more an error of the colours counts on dark ground: there mottling is seen that light hides. */
function adaptation(ground: Float32Array, dark: number): Float32Array {
  const result = new Float32Array(ground.length);
  let last = -1;
  let share = 0;
  for (let i = 0; i < result.length; i++) {
    if (ground[i] !== last) {
      last = ground[i]!;
      share = Math.exp(dark * (MIDDLE - Math.sqrt(last)));
    }
    result[i] = share;
  }
  return result;
}

/** Share of an error's energy that stays visible beside what is in the picture: 1 ÷ (1 + what hides it)². */
function unhidden(
  own: Float32Array,
  hides: number,
  finer: Float32Array,
  coarser: Float32Array,
  around: number,
): Float32Array {
  const result = new Float32Array(own.length);
  for (let i = 0; i < result.length; i++) {
    const mask = 1 + hides * own[i]! + around * (finer[i]! + coarser[i]!);
    result[i] = 1 / (mask * mask);
  }
  return result;
}
