// What each setting of the encoders costs: bytes and time at the same visible difference, on photographs as they are looked
// at on plain and on dense screens, and what the reference program says there. The recipes of both passes are points of it.
// Real photographs in CALIBRATION_PHOTOS=folder:folder; the made-up ones of the demo where there are none.
import { join } from 'node:path';
import type { Recipe } from '@dusky-otter/core/contract';
import { DifferenceReference } from '@dusky-otter/core/difference';
import {
  offsetOf,
  predictedOffset,
  QUICK,
  recipeKey,
  thoroughRecipes,
  type LossyFormat,
} from '@dusky-otter/core/weight';
import sharp from 'sharp';
import { searchedTo } from '../at-target.ts';
import { drawnInChromium } from '../calibration/browser-decoder.ts';
import { GRID, type Setting } from '../calibration/grid.ts';
import { drawFrontier } from '../calibration/plot.ts';
import { cropAt, findPhotos, knownPhotos, ofEach, seenAt, throughRecipe } from '../calibration/photos.ts';
import { Referee } from '../calibration/referee.ts';
import { geometricMean } from '../calibration/statistics.ts';
import { timeRatio } from '../quick-time.ts';
import { demoSet } from '../demo.ts';
import { median, report, ROOT, rounded, type Figures } from '../report.ts';

sharp.concurrency(1);
sharp.cache(false);

const TARGET = 2;
/** Widths in px, by density. */
const SIZES = { 1: 800, 2: 1200 } as const;
type Density = keyof typeof SIZES;
const DENSITIES = [1, 2] as const;
/** Of the photographs that the fit has seen so many, evenly chosen: slow settings take minutes on each dozen. */
const PHOTOS = Number(process.env.PHOTOS ?? 9);
/** Encodes are timed on so many of them, one at a time. */
const TIMED = 3;

interface Point {
  setting: Setting;
  photo: string;
  density: Density;
  /** Bytes at the target; null where no quality meets it. */
  bytes: number | null;
  /** The reference's score at the target. */
  reference: number;
  quality: number;
}

async function pointsOf(photo: string, path: string, referee: Referee): Promise<Point[]> {
  const points: Point[] = [];
  for (const density of DENSITIES) {
    const crop = await cropAt(path, SIZES[density]);
    const own = new DifferenceReference(crop, density);
    const features = { ...own.known, width: crop.width, height: crop.height, density };
    const original = await referee.file(seenAt(crop, density));
    const offsets = new Map<string, number>();
    for (const setting of GRID.filter(({ small }) => !small || density === 1)) {
      const offset = offsets.get(setting.curve) ?? predictedOffset(setting.curve, features);
      const { bytes, pixels, attempt } = await searchedTo(TARGET, own, setting, offset);
      offsets.set(setting.curve, offsetOf(setting.curve, attempt));
      const score = await referee.score(original, seenAt(pixels, density));
      const reference = (score * TARGET) / attempt.difference;
      points.push({ ...{ setting, photo, density, bytes, reference }, quality: attempt.quality });
    }
  }
  return points;
}

/** ms of an encode at the qualities that were found, one at a time. */
async function timeOf(setting: Setting, points: readonly Point[]): Promise<number> {
  let time = 0;
  let count = 0;
  for (const { photo, quality } of points
    .filter((p) => p.setting === setting && p.density === 1)
    .slice(0, TIMED)) {
    const crop = await cropAt(paths.get(photo)!, SIZES[1]);
    const from = performance.now();
    await throughRecipe(crop, setting.curve, quality, setting.recipe);
    time += performance.now() - from;
    count += 1;
  }
  return time / count;
}

const folders = (process.env.CALIBRATION_PHOTOS ?? '').split(':').filter(Boolean);
const found = await findPhotos([join(ROOT, 'demo/photos'), ...folders]);
const half = folders.length > 0 ? 'calibration' : 'demo';
const known = (await knownPhotos()).filter((photo) => photo.half === half && found.has(photo.id));
const step = Math.max(1, known.length / PHOTOS);
const chosen = known.filter((_, i) => Math.floor(i / step) !== Math.floor((i - 1) / step));
const paths = new Map(chosen.map(({ id }) => [id, found.get(id)!]));

const referee = await Referee.open();
const points = await ofEach(paths, (photo, path) => pointsOf(photo, path, referee));
await referee.close();

const sameRecipe = (a: Recipe, b: Recipe): boolean => recipeKey(a) === recipeKey(b);
const thoroughOf = (format: LossyFormat): readonly Recipe[] =>
  [100_000, 500_000, 2_000_000].flatMap((pixels) =>
    thoroughRecipes(format, pixels).map(({ recipe }) => recipe),
  );

/** Geometric mean, over pictures in which both meet the target, of bytes beside the first setting of the format. */
function bytesBeside(setting: Setting, of: readonly Point[]): number {
  const first = GRID.find(({ curve }) => curve === setting.curve)!;
  const ratios = of
    .filter((p) => p.setting === setting && p.bytes !== null)
    .flatMap((p) => {
      const other = of.find((q) => q.setting === first && q.photo === p.photo && q.density === p.density)!;
      return other.bytes === null ? [] : [p.bytes! / other.bytes];
    });
  return geometricMean(ratios);
}

const besideAt = (setting: Setting, density: Density): number | null =>
  setting.small && density === 2
    ? null
    : rounded(
        bytesBeside(
          setting,
          points.filter((p) => p.density === density),
        ),
      );

type Line = Figures & { format: string; settings: string; bytes: number; time: number; quick: boolean };
const lines: Line[] = [];
for (const setting of GRID) {
  const own = points.filter((p) => p.setting === setting);
  const at = (density: Density) => own.filter((p) => p.density === density).map(({ reference }) => reference);
  lines.push({
    format: setting.curve,
    settings: setting.name,
    // At 1×, where time is taken as well.
    bytes: besideAt(setting, 1)!,
    'bytes at 2×': besideAt(setting, 2),
    'reference at 1×': rounded(median(at(1)), 2),
    'reference at 2×': at(2).length > 0 ? rounded(median(at(2)), 2) : null,
    'worst reference': rounded(Math.max(...own.map(({ reference }) => reference)), 2),
    'target not met': own.filter(({ bytes }) => bytes === null).length,
    time: Math.round(await timeOf(setting, points)),
    quick: sameRecipe(setting.recipe, QUICK[setting.curve]),
    thorough: thoroughOf(setting.curve).some((recipe) => sameRecipe(recipe, setting.recipe)),
  });
}
/** On the frontier is what nothing else beats in bytes and time. */
const rows = lines.map((line): Line => ({
  ...line,
  'on the frontier': !lines.some(
    (other) =>
      other.format === line.format && other !== line && other.bytes <= line.bytes && other.time <= line.time,
  ),
}));
await drawFrontier(rows);
const settingOf = (format: LossyFormat, name: string): Setting =>
  GRID.find((setting) => setting.curve === format && setting.name === name)!;
const quickOf = (format: LossyFormat): Setting =>
  GRID.find(({ curve, recipe }) => curve === format && sameRecipe(recipe, QUICK[format]))!;
const rowOf = (setting: Setting): Line =>
  rows.find((row) => row.format === setting.curve && row.settings === setting.name)!;
/** Over both densities. */
const beside = (setting: Setting): number => rounded(bytesBeside(setting, points));
/** What the thorough pass makes of small files now, and made before. */
const highest = [10, 8].map((bits) => rowOf(settingOf('avif', `${bits} bit, effort 6`)).bytes);

/** The same photographs as AVIF with 8 and 10 bits, at the qualities that were found, in a browser. */
async function inBrowser(): Promise<Figures> {
  const files: Buffer[] = [];
  for (const setting of [settingOf('avif', '8 bit, effort 1'), quickOf('avif')]) {
    for (const { photo, quality } of points.filter((p) => p.setting === setting && p.density === 1)) {
      const crop = await cropAt(paths.get(photo)!, SIZES[1]);
      files.push((await throughRecipe(crop, 'avif', quality, setting.recipe)).file);
    }
  }
  const drawn = await drawnInChromium(files);
  const [eight, ten] = [drawn.slice(0, drawn.length / 2), drawn.slice(drawn.length / 2)];
  const total = (of: typeof drawn) => of.reduce((sum, { time }) => sum + time, 0);
  return {
    'decode in Chromium, 10 bit ÷ 8 bit': rounded(total(ten) / total(eight), 2),
    'ms of a decode at 10 bit': rounded(total(ten) / ten.length, 1),
    'codes apart in Chromium, 10 bit, most': Math.max(...ten.map(({ most }) => most)),
    'codes apart in Chromium, 10 bit, mean': rounded(
      ten.reduce((sum, one) => sum + one.mean, 0) / ten.length,
      2,
    ),
  };
}

const decoding = await inBrowser();
const ratio = await timeRatio(await demoSet());
await report(
  'frontier',
  `${paths.size} photographs (${half}) at D = ${TARGET}, ${SIZES[1]} px at 1× and ${SIZES[2]} px at 2×`,
  rows,
  {
    photographs: paths.size,
    'AVIF ÷ 8 bit': beside(quickOf('avif')),
    'JPEG ÷ table 0': beside(quickOf('jpeg')),
    'WebP ÷ plain': beside(quickOf('webp')),
    'thorough AVIF ÷ before': rounded(highest[0]! / highest[1]!),
    'worst reference': Math.max(
      ...(['avif', 'jpeg', 'webp'] as const).map((format) =>
        Number(rowOf(quickOf(format))['worst reference']),
      ),
    ),
    ...decoding,
    ...ratio,
  },
);
