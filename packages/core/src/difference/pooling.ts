// From errors in every window to one number.
import type { DifferenceModel } from './model.ts';
import type { WindowEnergies } from './windows.ts';

/** Sum over channels and bands of error energy × what it counts, by window. */
export function visibleEnergies(errors: WindowEnergies, weights: WindowEnergies): Float32Array {
  const sum = new Float32Array(weights[0]![0]!.length);
  errors.forEach((bands, channel) =>
    bands.forEach((energy, band) => {
      const weight = weights[channel]![band]!;
      for (let i = 0; i < energy.length; i++) sum[i]! += weight[i]! * energy[i]!;
    }),
  );
  return sum;
}

/** Below this share of the worst window's energy a window adds nothing to a high norm. */
const WORTH = 1 / 12;

/**
 * A high norm, in which a small damaged region counts, beside the root mean square of the whole.
 * @param windows of the picture, where `energies` holds only those that count.
 */
export function pooled(energies: Float32Array, model: DifferenceModel, windows = energies.length): number {
  const { norm, wholeShare, areaPower, scale, power } = model;
  let most = 0;
  let total = 0;
  for (const energy of energies) {
    total += energy;
    if (energy > most) most = energy;
  }
  if (most === 0) return 0;
  let sum = 0;
  // A power by its logarithm takes half the time of `**`, and this runs for every window of every look.
  for (const energy of energies)
    if (energy > most * WORTH) sum += Math.exp((norm / 2) * Math.log(energy / most));
  const area = (windows / 10_000) ** areaPower;
  const peak = Math.sqrt(most) * (sum / area) ** (1 / norm);
  return scale * (peak + wholeShare * Math.sqrt(total / windows)) ** power;
}
