// Fits the visible difference to the reference scores of the calibration half, and prints the model.
// node bench/dist/calibration/fit.js FOLDER… (ONLY=scale,hides.4 for some numbers alone; SAMPLES=folder keeps what was
// found out of the photographs for the next fit, and PART=0/2 only makes every second of them; HALF=reporting ROUNDS=0 judges)
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import type { Recipe } from '@dusky-otter/core/contract';
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
  type WindowEnergies,
} from '@dusky-otter/core/difference';
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
import { dampedLeastSquares } from './marquardt.ts';
import { median } from '../report.ts';
import { logError, spearman } from './statistics.ts';

/** What some windows of a pair have. */
interface Windows {
  activity: WindowEnergies;
  errors: WindowEnergies;
}

/** One pair, cut down to the windows that count. */
interface Sample {
  worst: Windows;
  /** Every seventh of those after them. */
  seventh: Windows;
  windows: number;
  reference: number;
  /** Format, density, and whether it is made as now: D shall be as fair to one as to the other. */
  group: string;
}

/** Windows below this share of the worst are left out: a high norm does not hear them under any model nearby. */
const HEARD = 1 / 12;
/** No more than these, and of those after the worst only some, which stand for the others. */
const MOST_HEARD = 1500;
const WORST = 140;
const EVERY = 7;

function cutDown(
  activity: WindowEnergies,
  errors: WindowEnergies,
  { reference, group }: Pick<Sample, 'reference' | 'group'>,
): Sample {
  const seen = visibleEnergies(errors, errorWeights(activity, CALIBRATED));
  const most = seen.reduce((a, b) => Math.max(a, b), 0);
  const heard = [...seen.keys()]
    .filter((i) => seen[i]! > most * HEARD)
    .sort((a, b) => seen[b]! - seen[a]!)
    .slice(0, MOST_HEARD);
  const cut = (energies: WindowEnergies, kept: readonly number[]): WindowEnergies =>
    energies.map((bands) =>
      bands.map((own) => (own.length > 0 ? Float32Array.from(kept, (i) => own[i]!) : own)),
    );
  const of = (kept: readonly number[]): Windows => ({
    activity: cut(activity, kept),
    errors: cut(errors, kept),
  });
  return {
    worst: of(heard.slice(0, WORST)),
    seventh: of(heard.slice(WORST).filter((_, i) => i % EVERY === EVERY >> 1)),
    ...{ windows: seen.length, reference, group },
  };
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

const pairs = await knownPairs();
const regionPairs = await knownRegionPairs();
const recipePairs = await knownRecipePairs();

async function samplesOfPhoto(id: string, path: string): Promise<Sample[]> {
  const samples: Sample[] = [];
  for (const width of WIDTHS) {
    const crop = await cropAt(path, width);
    const variants = pairs
      .filter((p) => p.photo === id && p.width === width)
      .map(({ format, quality, reference }) => ({
        pixels: async () => (await throughCodec(crop, format, quality)).pixels,
        reference,
        group: `${format} 1`,
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
          group: `${formatOf(curve)} ${density}`,
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
        group: `${formatOf(curve)} ${density}, as made now`,
      }));
    samples.push(...(await samplesOfOne(seenAt(crop, density), variants)));
  }
  return samples;
}

/** As it was kept from an earlier run, where a folder is given for that. */
async function kept(name: string, make: () => Promise<Sample[]>): Promise<Sample[]> {
  const folder = process.env.SAMPLES;
  if (folder === undefined) return make();
  const path = join(folder, name);
  if (existsSync(path)) return deserialize(await readFile(path)) as Sample[];
  const made = await make();
  await mkdir(folder, { recursive: true });
  await writeFile(path, serialize(made));
  return made;
}

async function samplesOf(half: Half): Promise<Sample[]> {
  const paths = await findPhotos(process.argv.slice(2));
  const [part, parts] = (process.env.PART ?? '0/1').split('/').map(Number) as [number, number];
  const samples: Sample[] = [];
  const known = (await knownPhotos()).filter((photo) => photo.half === half);
  for (const { id } of known.filter((_, i) => i % parts === part)) {
    const path = paths.get(id);
    if (!path) throw new Error(`Photo ${id} is in none of the folders.`);
    for (const sample of await kept(id, () => samplesOfPhoto(id, path))) samples.push(sample);
  }
  return samples;
}

/** D of a pair from the windows that are left of it; what the whole picture adds to the worst places is left out. */
function differenceOf({ worst, seventh, windows }: Sample, model: DifferenceModel): number {
  const plain = { ...model, scale: 1, power: 1, wholeShare: 0 };
  const normOf = ({ activity, errors }: Windows): number =>
    pooled(visibleEnergies(errors, errorWeights(activity, model)), plain, windows);
  const all = normOf(worst) ** model.norm + EVERY * normOf(seventh) ** model.norm;
  return model.scale * all ** (model.power / model.norm);
}

/** Too mild by less than this, in ln D, is no harm; beyond it counts for more: files get worse than was asked for. */
const FORGIVEN = 0.15;
const TOO_MILD = 1.4;
/** Scores between which targets lie, and what others count. */
const AIMED_AT = [0.8, 4.5] as const;
const ASIDE = 0.35;
/** Scores around the default target. */
const FAIR_AT = [1.3, 3] as const;
/** What a format's or a density's share of being judged more harshly or mildly counts. */
const FAIR = 4;

const within = (value: number, [least, most]: readonly [number, number]): boolean =>
  value > least && value < most;

/** ln(reference ÷ D) of every pair, weighed; and of each format and density the sum where targets lie. */
function residualsOf(samples: readonly Sample[], model: DifferenceModel): number[] {
  const groups = new Map<string, { sum: number; count: number }>();
  const own = samples.map((sample) => {
    const { reference, group } = sample;
    const miss = Math.log(reference / Math.max(0.01, differenceOf(sample, model)));
    const weighed = (within(reference, AIMED_AT) ? 1 : ASIDE) * miss * (miss > FORGIVEN ? TOO_MILD : 1);
    const { sum, count } = groups.get(group) ?? { sum: 0, count: 0 };
    if (within(reference, FAIR_AT)) groups.set(group, { sum: sum + weighed, count: count + 1 });
    return weighed;
  });
  return [...own, ...[...groups.values()].map(({ sum, count }) => (FAIR * sum) / Math.sqrt(count))];
}

/** By format and density where D is near the default target: what the reference says at D = 2, at the median and at most. */
function fairness(samples: readonly Sample[], model: DifferenceModel): Record<string, string> {
  const groups = new Map<string, number[]>();
  for (const sample of samples) {
    const own = differenceOf(sample, model);
    if (!within(own, [1.5, 2.7])) continue;
    groups.set(sample.group, [...(groups.get(sample.group) ?? []), (2 * sample.reference) / own]);
  }
  return Object.fromEntries(
    [...groups]
      .sort()
      .map(([group, scores]) => [group, `${median(scores).toFixed(2)}, ${Math.max(...scores).toFixed(2)}`]),
  );
}

/** One number of the model that may move, with how it is read and written: as it is, or as its logarithm. */
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
      'textureHidesCoarse',
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

/** How strongly a number that the pairs hardly tell is held where it was. */
const HOLD = 3;

function fitted(samples: readonly Sample[], start: DifferenceModel, rounds: number): DifferenceModel {
  const only = process.env.ONLY?.split(',');
  const all = dials().filter(({ name }) => only?.includes(name) ?? true);
  const at = (values: readonly number[]): DifferenceModel =>
    all.reduce((model, dial, i) => dial.set(model, values[i]!), start);
  const values = dampedLeastSquares(
    all.map((dial) => dial.get(start)),
    (tried) => residualsOf(samples, at(tried)),
    { rounds, hold: HOLD, say: (round, cost) => console.error(`round ${round}: ${cost.toFixed(2)}`) },
  );
  return at(values);
}

function judge(name: string, samples: readonly Sample[], model: DifferenceModel): void {
  const own = samples.map((sample) => differenceOf(sample, model));
  const reference = samples.map((sample) => sample.reference);
  const of = (format: string) => {
    const places = [...samples.keys()].filter((i) => samples[i]!.group.startsWith(format));
    return spearman(
      places.map((i) => own[i]!),
      places.map((i) => reference[i]!),
    ).toFixed(4);
  };
  console.log(name, {
    pairs: own.length,
    'rms error of ln D': logError(own, reference),
    spearman: { jpeg: of('jpeg'), webp: of('webp'), avif: of('avif') },
    'reference at D = 2: median, most': fairness(samples, model),
  });
}

const samples = await samplesOf((process.env.HALF as Half | undefined) ?? 'calibration');
if (process.env.PART !== undefined) process.exit();
judge('before', samples, CALIBRATED);
const rounds = Number(process.env.ROUNDS ?? 8);
if (rounds > 0) {
  const model = fitted(samples, CALIBRATED, rounds);
  console.log(JSON.stringify(model, null, 2));
  judge('after', samples, model);
}
