// Searched quality beside fixed quality on the demo photos at their slots: bytes, visible difference, encodes, time.
import type { EncoderSettings } from '@dusky-otter/core/contract';
import { DifferenceReference } from '@dusky-otter/core/difference';
import { settingsFor, TARGETS, treatmentOf, type LossyFormat } from '@dusky-otter/core/weight';
import sharp from 'sharp';
import { batchesOf } from '../../../packages/server/dist/prepare/batches.js';
import { decode, encode } from '../../../packages/server/dist/codec/encode.js';
import { SizedPicture } from '../../../packages/server/dist/codec/search.js';
import { inputIn } from '../../../packages/server/dist/codec/gamut.js';
import type { RawPicture } from '../../../packages/server/dist/codec/raw.js';
import { decodeCrop, resized } from '../../../packages/server/dist/codec/source.js';
import { besideBefore } from '../beside-before.ts';
import { Referee } from '../calibration/referee.ts';
import { demoSet, FIRST_CONTEXT, type DemoSet } from '../demo.ts';
import { FIXED } from '../fixed.ts';
import { timeRatio } from '../quick-time.ts';
import { median, report, rounded, type Figures } from '../report.ts';

sharp.concurrency(1);
sharp.cache(false);
const TARGET = TARGETS[FIRST_CONTEXT.policy.target];
/** One size in so many is looked at: all of them take hours, nearly all of it in thorough AVIFs. */
const EVERY = Number(process.env.EVERY ?? 1);
const FORMATS = Object.keys(FIXED) as LossyFormat[];
const hundredths = (value: number): number => rounded(value, 2);

interface Sized {
  name: string;
  picture: RawPicture;
  density: number;
  sized: SizedPicture;
  /** Of the demo's set, not of the other demo photos. */
  inSet: boolean;
}

/** Every size and density that the plan wants of photographs, each once. */
async function sizesOf({ photos, setPlaces }: DemoSet): Promise<Sized[]> {
  const found: Sized[] = [];
  for (const photo of photos) {
    if (treatmentOf(photo.original).kind !== 'photograph') continue;
    for (const { crop, outputs } of batchesOf(photo, setPlaces, FIRST_CONTEXT)) {
      const source = await decodeCrop(photo.path, photo.original, crop);
      for (const { width, height, settings, format } of outputs) {
        if (format !== 'jpeg') continue;
        const picture = await resized(source, width, height);
        const name = `${photo.fileName} ${width} × ${height} at ${settings.density}×`;
        found.push({
          name,
          picture,
          density: settings.density ?? 1,
          sized: new SizedPicture(picture),
          inSet: photo.inSet,
        });
      }
    }
  }
  return found;
}

/** As the plan has them for a photograph. */
const searchSettings = (
  format: LossyFormat,
  { width, height }: RawPicture,
  density: number,
): EncoderSettings =>
  settingsFor(
    format,
    { kind: 'photograph', lossless: false },
    { target: TARGET, density, pixels: width * height },
  );

interface Fixed {
  bytes: number;
  differences: number[];
}

/** One pass at a fixed quality; ends early, with null, once a file exceeds `most`. */
async function fixedPass(
  sizes: readonly Sized[],
  format: LossyFormat,
  quality: number,
  fullChroma: boolean,
  most = Infinity,
): Promise<Fixed | null> {
  let bytes = 0;
  const differences: number[] = [];
  for (const { picture, density } of sizes) {
    const settings = searchSettings(format, picture, 1);
    const file = await encode(await inputIn(picture, undefined, settings.bitDepth), format, {
      ...settings,
      quality,
      fullChroma,
    });
    const difference = new DifferenceReference(picture, density).differenceOf(await decode(file));
    if (difference > most) return null;
    bytes += file.length;
    differences.push(difference);
  }
  return { bytes, differences };
}

/** Part of the files, the hardest, that decides which quality is needed. */
const HARDEST = 0.2;

/**
 * The lowest fixed quality with which no file exceeds `most`, by halving over the hardest files, then seen to hold
 * for all; null when even the highest fails.
 */
async function neededQuality(
  hardestFirst: readonly Sized[],
  format: LossyFormat,
  most: number,
  fullChroma: boolean,
): Promise<{ quality: number; bytes: number } | null> {
  const hardest = hardestFirst.slice(0, Math.ceil(hardestFirst.length * HARDEST));
  let low = FIXED[format] - 20;
  let high = 101;
  while (high - low > 1) {
    const quality = (low + high) >> 1;
    if (await fixedPass(hardest, format, quality, fullChroma, most)) high = quality;
    else low = quality;
  }
  for (let quality = high; quality <= 100; quality++) {
    const pass = await fixedPass(hardestFirst, format, quality, fullChroma, most);
    if (pass) return { quality, bytes: pass.bytes };
  }
  return null;
}

const demo = await demoSet();
// First of all: what is held in memory later on would slow down what makes more garbage.
const ratio = await timeRatio(demo);
console.log(ratio);
const sizes = (await sizesOf(demo)).filter((_, i) => i % EVERY === 0);
/** Bytes, difference and cost of both passes over the photos of the demo set, as each size is served. */
interface BothPasses {
  files: number;
  quick: number;
  thorough: number;
  /** Largest and middle difference of the thorough files. */
  worst: number;
  middle: number;
  encodes: number;
  seconds: { quick: number; thorough: number };
  /** The thorough file that took longest. */
  longest: { seconds: number; megapixels: number };
  /** Files larger than the quick pass made them, or with more to see where those were above the target. */
  worse: number;
}

async function bothPasses(of: readonly Sized[], format: LossyFormat): Promise<BothPasses> {
  const found: BothPasses = {
    ...{ files: of.length, quick: 0, thorough: 0, worst: 0, middle: 0, encodes: 0, worse: 0 },
    seconds: { quick: 0, thorough: 0 },
    longest: { seconds: 0, megapixels: 0 },
  };
  const differences: number[] = [];
  for (const { picture, density } of of) {
    const settings = searchSettings(format, picture, density);
    let from = performance.now();
    const quick = await new SizedPicture(picture).encode({ format, settings });
    found.seconds.quick += (performance.now() - from) / 1000;
    from = performance.now();
    const thorough = await new SizedPicture(picture).encode({
      format,
      settings: { ...settings, thorough: true },
    });
    const seconds = (performance.now() - from) / 1000;
    found.seconds.thorough += seconds;
    if (seconds > found.longest.seconds)
      found.longest = { seconds, megapixels: (picture.width * picture.height) / 1e6 };
    found.quick += quick.file.length;
    found.thorough += thorough.file.length;
    found.encodes += thorough.encodes;
    differences.push(thorough.difference!);
    const isWorse =
      quick.difference! <= TARGET
        ? thorough.difference! > TARGET || thorough.file.length > quick.file.length
        : thorough.difference! > quick.difference!;
    if (isWorse) found.worse += 1;
  }
  found.worst = Math.max(...differences);
  found.middle = median(differences);
  return found;
}

const ofSet = sizes.filter(({ inSet }) => inSet);
const solid = ofSet.filter(({ picture }) => picture.channels === 3);
const passes = new Map<LossyFormat, BothPasses>();
const rows: Figures[] = [];
const referee = await Referee.open();
for (const format of FORMATS) {
  const both = await bothPasses(ofSet, format);
  passes.set(format, both);
  console.log(`${format}: thorough ÷ quick ${hundredths(both.thorough / both.quick)}`);
  const searched: { name: string; bytes: number; difference: number; encodes: number; quality: number }[] =
    [];
  for (const { name, sized, picture, density } of sizes) {
    const made = await sized.encode({
      format,
      settings: searchSettings(format, picture, density),
    });
    searched.push({
      name,
      bytes: made.file.length,
      difference: made.difference!,
      encodes: made.encodes,
      quality: made.quality!,
    });
  }
  const bytes = searched.reduce((sum, s) => sum + s.bytes, 0);
  const differences = searched.map((s) => s.difference);
  const worst = Math.max(...differences);
  const fixed = (await fixedPass(sizes, format, FIXED[format], format !== 'jpeg'))!;
  const order = new Map(sizes.map((size, i) => [size, fixed.differences[i]!]));
  // The hardest first, so that a quality that is too low is found out soon.
  const hardest = [...sizes].sort((a, b) => order.get(b)! - order.get(a)!);
  const needed = (
    await Promise.all(
      (format === 'jpeg' ? [false, true] : [true]).map((full) => neededQuality(hardest, format, worst, full)),
    )
  )
    .filter((n) => n !== null)
    .sort((a, b) => a.bytes - b.bytes)[0];
  console.log(
    `${format}: ${Math.round(bytes / 1000)} kB, ${searched.reduce((sum, s) => sum + s.encodes, 0)} encodes`,
  );
  rows.push({
    format,
    files: sizes.length,
    'kB searched': Math.round(bytes / 1000),
    'worst D': hundredths(worst),
    'median D': hundredths(median(differences)),
    'above target': differences.filter((d) => d > TARGET).length,
    encodes: hundredths(searched.reduce((sum, s) => sum + s.encodes, 0) / searched.length),
    'most encodes': Math.max(...searched.map((s) => s.encodes)),
    qualities: `${Math.min(...searched.map((s) => s.quality))} to ${Math.max(...searched.map((s) => s.quality))}`,
    'fixed quality': FIXED[format],
    'kB fixed': Math.round(fixed.bytes / 1000),
    'worst D fixed': hundredths(Math.max(...fixed.differences)),
    'median D fixed': hundredths(median(fixed.differences)),
    'fixed above target': fixed.differences.filter((d) => d > TARGET).length,
    'quality needed for the same worst D': needed?.quality ?? null,
    'kB needed': needed ? Math.round(needed.bytes / 1000) : null,
    'searched ÷ needed': needed ? hundredths(bytes / needed.bytes) : null,
    'files of the set': both.files,
    'kB quick': Math.round(both.quick / 1000),
    'kB thorough': Math.round(both.thorough / 1000),
    'thorough ÷ quick': rounded(both.thorough / both.quick),
    'worst D thorough': hundredths(both.worst),
    'median D thorough': hundredths(both.middle),
    'encodes thorough': hundredths(both.encodes / both.files),
    'time thorough ÷ quick': rounded(both.seconds.thorough / both.seconds.quick, 1),
    'longest thorough file, s': rounded(both.longest.seconds, 1),
    'its megapixels': hundredths(both.longest.megapixels),
    'worse than quick': both.worse,
    ...(await besideBefore(TARGET, solid, format, referee)),
  });
}
await referee.close();

/** As served: the modern format of the policy, and the one that every browser reads. */
const served = [...passes].filter(([format]) => format === 'jpeg' || format === FIRST_CONTEXT.policy.modern);
const total = (of: 'quick' | 'thorough') => served.reduce((sum, [, both]) => sum + both[of], 0);
const part = EVERY === 1 ? '' : `, one size in ${EVERY}`;
await report('weight', `demo photos at their slots, D ≤ ${TARGET}${part}`, rows, {
  ...ratio,
  'thorough ÷ quick': rounded(total('thorough') / total('quick')),
});
