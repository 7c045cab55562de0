// Fits the visible difference to the reference scores of the calibration half, and prints the model.
// node bench/dist/calibration/fit.js FOLDER…
import {
  CALIBRATED,
  errorWeights,
  gridOf,
  pooled,
  toOpponent,
  visibleEnergies,
  windowEnergies,
  type DifferenceModel,
  type WindowEnergies,
} from '@dusky-otter/core';
import { cropAt, findPhotos, knownPairs, knownPhotos, throughCodec, WIDTHS, type Half } from './photos.ts';
import { logError, spearman } from './statistics.ts';

/** One pair, cut down to the windows that count. */
interface Sample {
  activity: WindowEnergies;
  errors: WindowEnergies;
  windows: number;
  reference: number;
}

/** Windows below this share of the worst are left out: a high norm does not hear them under any model nearby. */
const HEARD = 1 / 30;

function cutDown(activity: WindowEnergies, errors: WindowEnergies, reference: number): Sample {
  const seen = visibleEnergies(errors, errorWeights(activity, CALIBRATED));
  const most = seen.reduce((a, b) => Math.max(a, b), 0);
  const kept = [...seen.keys()].filter((i) => seen[i]! > most * HEARD);
  const cut = (energies: WindowEnergies): WindowEnergies =>
    energies.map((bands) =>
      bands.map((own) => (own.length > 0 ? Float32Array.from(kept, (i) => own[i]!) : own)),
    );
  return { activity: cut(activity), errors: cut(errors), windows: seen.length, reference };
}

async function samplesOf(half: Half): Promise<Sample[]> {
  const paths = await findPhotos(process.argv.slice(2));
  const pairs = await knownPairs();
  const samples: Sample[] = [];
  for (const { id } of (await knownPhotos()).filter((photo) => photo.half === half)) {
    const path = paths.get(id);
    if (!path) throw new Error(`Photo ${id} is in none of the folders.`);
    for (const width of WIDTHS) {
      const crop = await cropAt(path, width);
      const grid = gridOf(crop.width, crop.height);
      const planes = toOpponent(crop);
      const activity = windowEnergies(planes, grid);
      for (const pair of pairs.filter((p) => p.photo === id && p.width === width)) {
        const { pixels } = await throughCodec(crop, pair.format, pair.quality);
        const errors = windowEnergies(toOpponent(pixels, 255, planes), grid);
        samples.push(cutDown(activity, errors, pair.reference));
      }
    }
  }
  return samples;
}

function scoresOf(
  samples: readonly Sample[],
  model: DifferenceModel,
): { own: number[]; reference: number[] } {
  const own: number[] = [];
  const reference: number[] = [];
  for (const sample of samples) {
    const seen = visibleEnergies(sample.errors, errorWeights(sample.activity, model));
    own.push(pooled(seen, model, sample.windows));
    reference.push(sample.reference);
  }
  return { own, reference };
}

/** What is made small: relative error on the reference's scale, and pairs in the wrong order. */
function cost(samples: readonly Sample[], model: DifferenceModel): number {
  const { own, reference } = scoresOf(samples, model);
  return logError(own, reference) + (1 - spearman(own, reference));
}

/** One number of the model that may move, with how it is read and written. Steps are natural, or of logarithms. */
interface Dial {
  get: (model: DifferenceModel) => number;
  set: (model: DifferenceModel, value: number) => DifferenceModel;
}

/**
 * Floors keep what codecs hardly ever show from being thrown away. What is left below the bands is not fitted at all:
 * a whole field that changes by four codes counts about 1.
 */
const FLOORS = [-6, -1, -1, -1];

function dials(): Dial[] {
  const weights = [0, 1, 2].flatMap((channel) =>
    [0, 1, 2, 3]
      .filter((band) => channel === 0 || band > 0)
      .map((band): Dial => {
        const floor = channel === 2 ? FLOORS[band]! - (band === 1 ? 1 : 0) : FLOORS[band]!;
        return {
          get: (m) => m.weights[channel]![band]!,
          set: (m, value) => {
            const rows = m.weights.map((row) => [...row]) as [number[], number[], number[]];
            rows[channel]![band] = Math.max(floor, value);
            return { ...m, weights: rows };
          },
        };
      }),
  );
  const hides = [0, 1, 2, 3].map((band): Dial => ({
    get: (m) => Math.log(Math.max(0.01, m.hides[band]!)),
    set: (m, value) => ({ ...m, hides: m.hides.map((own, i) => (i === band ? Math.exp(value) : own)) }),
  }));
  const single = (
    [
      'hidesAround',
      'lightHidesColour',
      'colourHidesColour',
      'maskPower',
      'norm',
      'wholeShare',
      'areaPower',
      'scale',
      'power',
    ] as const
  ).map((key): Dial => ({
    get: (m) => Math.log(Math.max(1e-3, m[key])),
    set: (m, value) => ({ ...m, [key]: Math.exp(value) }),
  }));
  return [...weights, ...hides, ...single];
}

/** Coordinate descent: each dial is turned both ways, further after a success, less far after a failure. */
function fitted(samples: readonly Sample[], start: DifferenceModel, rounds: number): DifferenceModel {
  const all = dials();
  const steps = all.map(() => 0.2);
  let model = start;
  let best = cost(samples, model);
  for (let round = 0; round < rounds; round++) {
    all.forEach((dial, i) => {
      const value = dial.get(model);
      for (const step of [steps[i]!, -steps[i]!]) {
        const tried = dial.set(model, value + step);
        const found = cost(samples, tried);
        if (found >= best - 1e-6) continue;
        [model, best] = [tried, found];
        steps[i] = step * 1.5;
        return;
      }
      steps[i]! *= 0.4;
    });
    console.error(`round ${round + 1}: ${best.toFixed(4)}`, JSON.stringify(model));
    if (Math.max(...steps.map(Math.abs)) < 0.005) break;
  }
  return model;
}

const samples = await samplesOf('calibration');
const before = cost(samples, CALIBRATED);
const model = fitted(samples, CALIBRATED, Number(process.env.ROUNDS ?? 12));
const { own, reference } = scoresOf(samples, model);
console.log(JSON.stringify(model, null, 2));
console.log({
  pairs: own.length,
  'cost before': before,
  'cost after': cost(samples, model),
  spearman: spearman(own, reference),
  'rmse of ln D': logError(own, reference),
});
