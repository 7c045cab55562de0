// Makes bench/calibration/pairs.csv: every known photograph found in the given folders, at two widths, through every
// step of the three ladders, scored by the reference program. Wants Debian's package butteraugli; takes an hour.
// And regions.csv: all of them again, whole and where they are plainest, as they are and halved. And recipes.csv: the real
// ones whole, as they are and halved, through the recipes of today's quick pass; each line says
// which, since they change.
// node bench/dist/calibration/pairs.js FOLDER… (ONLY=regions, pairs or recipes for one of them)
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import Papa from 'papaparse';
import { QUICK, type Curve, type LossyFormat } from '@dusky-otter/core/weight';
import { ROOT } from '../report.ts';
import {
  cropAt,
  findPhotos,
  FOLDER,
  knownPhotos,
  LADDERS,
  ofEach,
  RECIPE_LADDERS,
  REGION_LADDERS,
  regionAt,
  seenAt,
  throughCodec,
  throughCurve,
  throughRecipe,
  WIDTHS,
  type Pair,
  type RecipePair,
  type RegionPair,
} from './photos.ts';
import { Referee } from './referee.ts';

const referee = await Referee.open();

async function pairsOf(photo: string, path: string): Promise<Pair[]> {
  const pairs: Pair[] = [];
  for (const width of WIDTHS) {
    const crop = await cropAt(path, width);
    const original = await referee.file(crop);
    for (const [format, qualities] of Object.entries(LADDERS) as [LossyFormat, number[]][]) {
      for (const quality of qualities) {
        const { file, pixels } = await throughCodec(crop, format, quality);
        const reference = await referee.score(original, pixels);
        pairs.push({ photo, width, format, quality, bytes: file.length, reference });
      }
    }
  }
  return pairs;
}

async function regionPairsOf(photo: string, path: string): Promise<RegionPair[]> {
  const pairs: RegionPair[] = [];
  for (const region of ['whole', 'plainest'] as const) {
    for (const density of [1, 2] as const) {
      const crop = await regionAt(path, region, density);
      const original = await referee.file(seenAt(crop, density));
      for (const [curve, qualities] of Object.entries(REGION_LADDERS) as [Curve, number[]][]) {
        for (const quality of qualities) {
          const { file, pixels } = await throughCurve(crop, curve, quality);
          const reference = await referee.score(original, seenAt(pixels, density));
          pairs.push({ photo, region, density, curve, quality, bytes: file.length, reference });
        }
      }
    }
  }
  return pairs;
}

async function recipePairsOf(photo: string, path: string): Promise<RecipePair[]> {
  const pairs: RecipePair[] = [];
  for (const density of [1, 2] as const) {
    const crop = await regionAt(path, 'whole', density);
    const original = await referee.file(seenAt(crop, density));
    for (const [curve, qualities] of Object.entries(RECIPE_LADDERS) as [Curve, number[]][]) {
      for (const quality of qualities) {
        const { file, pixels } = await throughRecipe(crop, curve, quality);
        const reference = await referee.score(original, seenAt(pixels, density));
        const recipe = JSON.stringify(QUICK[curve]);
        pairs.push({ photo, density, curve, quality, recipe, bytes: file.length, reference });
      }
    }
  }
  return pairs;
}

/** All pairs of some photographs, as many photographs at a time as there are processors; written as a table. */
async function write<T extends { photo: string }>(
  name: string,
  photos: ReadonlyMap<string, string>,
  of: (photo: string, path: string) => Promise<T[]>,
): Promise<void> {
  const pairs = await ofEach(photos, of);
  pairs.sort((a, b) => (a.photo < b.photo ? -1 : a.photo > b.photo ? 1 : 0));
  await writeFile(join(FOLDER, name), `${Papa.unparse(pairs, { newline: '\n' })}\n`);
}

const found = await findPhotos([join(ROOT, 'demo/photos'), ...process.argv.slice(2)]);
const { ONLY } = process.env;
const wants = (name: string): boolean => ONLY === undefined || ONLY === name;
if (wants('pairs')) await write('pairs.csv', found, pairsOf);
if (wants('regions')) await write('regions.csv', found, regionPairsOf);
const madeUp = new Set((await knownPhotos()).filter(({ half }) => half === 'demo').map(({ id }) => id));
const real = new Map([...found].filter(([id]) => !madeUp.has(id)));
if (wants('recipes')) await write('recipes.csv', real, recipePairsOf);
await referee.close();
