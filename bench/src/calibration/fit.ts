// Fits the visible difference to the reference scores of the calibration half, and prints the model.
// node bench/dist/calibration/fit.js FOLDER… (ONLY=scale,hides.4 for some numbers alone)
import {
  CALIBRATED,
  errorWeights,
  gridOf,
  pooled,
  toOpponent,
  visibleEnergies,
  windowEnergies,
  type DifferenceModel,
  type Pixels,
  type Recipe,
  type WindowEnergies,
} from '@dusky-otter/core';
import {
  cropAt,
  findPhotos,
  knownPairs,
  formatOf,
  knownPhotos,
  knownRecipePairs,
  knownRegionPairs,
  regionAt,
  seenAt,
  throughCodec,
  throughCurve,
  throughRecipe,
  WIDTHS,
  type Half,
} from './photos.ts';
import { logError, spearman } from './statistics.ts';

/** One pair, cut down to the windows that count. */
interface Sample {
  activity: WindowEnergies;
  errors: WindowEnergies;
  windows: number;
  reference: number;
  /** Format and density: D shall be as fair to one as to the other. */
  group: string;
}

/** Windows below this share of the worst are left out: a high norm does not hear them under any model nearby. */
const HEARD = 1 / 12;
/** And no more than these, the worst ones. */
const MOST_HEARD = 1500;

function cutDown(
  activity: WindowEnergies,
  errors: WindowEnergies,
  { reference, group }: Pick<Sample, 'reference' | 'group'>,
): Sample {
  const seen = visibleEnergies(errors, errorWeights(activity, CALIBRATED));
  const most = seen.reduce((a, b) => Math.max(a, b), 0);
  const kept = [...seen.keys()]
    .filter((i) => seen[i]! > most * HEARD)
    .sort((a, b) => seen[b]! - seen[a]!)
    .slice(0, MOST_HEARD);
  const cut = (energies: WindowEnergies): WindowEnergies =>
    energies.map((bands) =>
      bands.map((own) => (own.length > 0 ? Float32Array.from(kept, (i) => own[i]!) : own)),
    );
  return { activity: cut(activity), errors: cut(errors), windows: seen.length, reference, group };
}

/** Samples of one picture, from what its variants look like and how the reference scores them. */
async function samplesOfOne(
  seen: Pixels,
  variants: readonly { pixels: () => Promise<Pixels>; reference: number; group: string }[],
): Promise<Sample[]> {
  const grid = gridOf(seen.width, seen.height);
  const planes = toOpponent(seen);
  const activity = windowEnergies(planes, grid);
  const samples: Sample[] = [];
  for (const { pixels, ...known } of variants) {
    const errors = windowEnergies(toOpponent(await pixels(), 255, planes), grid);
    samples.push(cutDown(activity, errors, known));
  }
  return samples;
}

async function samplesOf(half: Half): Promise<Sample[]> {
  const paths = await findPhotos(process.argv.slice(2));
  const pairs = await knownPairs();
  const regionPairs = await knownRegionPairs();
  const recipePairs = await knownRecipePairs();
  const samples: Sample[] = [];
  for (const { id } of (await knownPhotos()).filter((photo) => photo.half === half)) {
    const path = paths.get(id);
    if (!path) throw new Error(`Photo ${id} is in none of the folders.`);
    for (const width of WIDTHS) {
      const crop = await cropAt(path, width);
      const variants = pairs
        .filter((p) => p.photo === id && p.width === width)
        .map(({ format, quality, reference }) => ({
          pixels: async () => (await throughCodec(crop, format, quality)).pixels,
          reference,
          group: '',
        }));
      samples.push(...(await samplesOfOne(crop, variants)));
    }
    for (const region of ['whole', 'plainest'] as const) {
      for (const density of [1, 2] as const) {
        const crop = await regionAt(path, region, density);
        const variants = regionPairs
          .filter((p) => p.photo === id && p.region === region && p.density === density)
          .map(({ curve, quality, reference }) => ({
            pixels: async () => seenAt((await throughCurve(crop, curve, quality)).pixels, density),
            reference,
            group: '',
          }));
        samples.push(...(await samplesOfOne(seenAt(crop, density), variants)));
      }
    }
    for (const density of [1, 2] as const) {
      const crop = await regionAt(path, 'whole', density);
      const variants = recipePairs
        .filter((p) => p.photo === id && p.density === density)
        .map(({ curve, quality, recipe, reference }) => ({
          pixels: async () =>
            seenAt((await throughRecipe(crop, curve, quality, JSON.parse(recipe) as Recipe)).pixels, density),
          reference,
          group: `${formatOf(curve)} ${density}`,
        }));
      samples.push(...(await samplesOfOne(seenAt(crop, density), variants)));
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

/** Too mild by less than this, in ln D, is no harm. */
const FORGIVEN = Math.log(1.15);
/** Scores between which targets lie. */
const AIMED_AT = [0.8, 4] as const;

/** Root mean square of how much milder than the reference a model is beyond what is forgiven, where targets lie. */
function mildness(own: readonly number[], reference: readonly number[]): number {
  const aimed = own.flatMap((value, i) =>
    value >= AIMED_AT[0] && value <= AIMED_AT[1]
      ? [Math.max(0, Math.log(reference[i]! / value) - FORGIVEN)]
      : [],
  );
  return Math.sqrt(aimed.reduce((sum, excess) => sum + excess * excess, 0) / aimed.length);
}

/** By format and density the mean of ln(reference ÷ own) where targets lie. */
function biases(samples: readonly Sample[], own: readonly number[]): Map<string, number> {
  const sums = new Map<string, { sum: number; count: number }>();
  samples.forEach(({ group, reference }, i) => {
    if (group === '' || own[i]! < FAIR_AT[0] || own[i]! > FAIR_AT[1]) return;
    const so = sums.get(group) ?? { sum: 0, count: 0 };
    sums.set(group, { sum: so.sum + Math.log(reference / own[i]!), count: so.count + 1 });
  });
  return new Map([...sums].map(([group, { sum, count }]) => [group, sum / count]));
}
/** Differences around the default target. */
const FAIR_AT = [1.5, 2.7] as const;

/** Root mean square over formats and densities of how much more harshly or mildly one is judged. */
const unfairness = (samples: readonly Sample[], own: readonly number[]): number => {
  const all = [...biases(samples, own).values()];
  return Math.sqrt(all.reduce((sum, bias) => sum + bias * bias, 0) / Math.max(1, all.length));
};

/**
 * What is made small: relative error on the reference's scale, pairs in the wrong order, files that would be
 * called good although the reference sees more (an editor is hurt by those, and by a byte too many hardly at all), and
 * formats and densities that are judged more harshly than others.
 */
function cost(samples: readonly Sample[], model: DifferenceModel): number {
  const { own, reference } = scoresOf(samples, model);
  return (
    logError(own, reference) +
    (1 - spearman(own, reference)) +
    mildness(own, reference) +
    unfairness(samples, own)
  );
}

/** One number of the model that may move, with how it is read and written. Steps are natural, or of logarithms. */
interface Dial {
  name: string;
  get: (model: DifferenceModel) => number;
  set: (model: DifferenceModel, value: number) => DifferenceModel;
}

/**
 * Floors keep what codecs hardly ever show from being thrown away. What is left below the bands is not fitted at all:
 * a whole field that changes by four codes counts about 1.
 */
const FLOORS = [-6, -1, -1, -1, -6];

function dials(): Dial[] {
  const weights = [0, 1, 2].flatMap((channel) =>
    [0, 1, 2, 3, 4]
      .filter((band) => channel === 0 || band > 0)
      .map((band): Dial => {
        const floor = channel === 2 ? FLOORS[band]! - (band === 1 ? 1 : 0) : FLOORS[band]!;
        return {
          name: `weights.${channel}.${band}`,
          get: (m) => m.weights[channel]![band]!,
          set: (m, value) => {
            const rows = m.weights.map((row) => [...row]) as [number[], number[], number[]];
            rows[channel]![band] = Math.max(floor, value);
            return { ...m, weights: rows };
          },
        };
      }),
  );
  const hides = [0, 1, 2, 3, 4].map((band): Dial => ({
    name: `hides.${band}`,
    get: (m) => Math.log(Math.max(0.01, m.hides[band]!)),
    set: (m, value) => ({ ...m, hides: m.hides.map((own, i) => (i === band ? Math.exp(value) : own)) }),
  }));
  const darkColour: Dial = {
    name: 'darkColour',
    get: (m) => m.darkColour,
    set: (m, value) => ({ ...m, darkColour: value }),
  };
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
    name: key,
    get: (m) => Math.log(Math.max(1e-3, m[key])),
    set: (m, value) => ({ ...m, [key]: Math.exp(value) }),
  }));
  return [...weights, ...hides, darkColour, ...single];
}

/** Coordinate descent: each dial is turned both ways, further after a success, less far after a failure. */
function fitted(samples: readonly Sample[], start: DifferenceModel, rounds: number): DifferenceModel {
  const only = process.env.ONLY?.split(',');
  const all = dials().filter(({ name }) => only?.includes(name) ?? true);
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
console.log('ln(reference ÷ own) before', biases(samples, scoresOf(samples, CALIBRATED).own));
console.log('after', biases(samples, own));
