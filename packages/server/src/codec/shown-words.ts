// Looks for words in a picture: read at several angles, for signs hang askew.
import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OriginalFacts, ShownLine, Size } from '@dusky-otter/core/contract';
import {
  hopeful,
  isPlain,
  shownLines,
  slopeOf,
  turnedBack,
  type Reading,
  type ReadWord,
} from '@dusky-otter/core/words';
import { createWorker, OEM, PSM, type Worker } from 'tesseract.js';
import { fromRaw, type RawPicture } from './raw.ts';
import { checkOriginal, decodeCrop } from './source.ts';

/** Degrees clockwise. A line is read as long as it lies within about five degrees. */
const ANGLES = [0, -9, 9, -18, 18];
/** Where a word is found, a line may lie straighter a little beside. */
const BESIDE = [-4, 4];
/** A line within this of level is read as well as it can be. Degrees. */
const LEVEL = 0.5;
/** A line with such a word lies where letters are. */
const LEGIBLE = { letters: 3, confidence: 50 };
/** Long side in px at which a picture is read: letters of a hundredth of it are large enough. */
const LONG_SIDE = 1100;
const LANGUAGES = ['eng', 'deu'];

const packages = createRequire(import.meta.url);

/** Where the package of a language keeps its data. */
const dataOf = (code: string): string =>
  join(packages.resolve(`@tesseract.js-data/${code}/package.json`), '..', '4.0.0_best_int', nameOf(code));
const nameOf = (code: string): string => `${code}.traineddata.gz`;

/** Opens the reader of characters; it takes about a second and 150 MB. */
export async function openReader(): Promise<Worker> {
  // It takes its data from one folder, and each language has a package of its own: nothing is fetched.
  const folder = await mkdtemp(join(tmpdir(), 'otter-reader-'));
  try {
    for (const code of LANGUAGES) await copyFile(dataOf(code), join(folder, nameOf(code)));
    const worker = await createWorker(LANGUAGES, OEM.LSTM_ONLY, {
      langPath: folder,
      cacheMethod: 'none',
      gzip: true,
    });
    // Words anywhere, in no order: a photo is no page.
    await worker.setParameters({ tessedit_pageseg_mode: PSM.SPARSE_TEXT });
    return worker;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The picture as it is read: grey, on white where it is transparent, and no larger than needed. */
async function greyOf(path: string, facts: OriginalFacts): Promise<RawPicture> {
  await checkOriginal(path, facts);
  const whole = await decodeCrop(
    path,
    facts,
    { x: 0, y: 0, width: facts.width, height: facts.height },
    { background: facts.transparent ? '#ffffff' : null },
  );
  const { data, info } = await fromRaw(whole)
    .resize(LONG_SIDE, LONG_SIDE, { fit: 'inside', withoutEnlargement: true })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}

/** What a picture with a border of many kinds is turned in. */
const GREY = 128;
/** A border is even where so much of it lies within so many of 255 levels of its middle. */
const EVEN = { share: 0.8, levels: 12 };

interface Ground {
  r: number;
  g: number;
  b: number;
}

/**
 * What a turned picture stands on: an even border goes on, for the edge of another ground would be taken for the one thing
 * that there is to read; where the border has many lightnesses, middle grey.
 */
function groundOf({ data, width, height, channels }: RawPicture): Ground {
  const border: number[] = [];
  for (let x = 0; x < width; x++)
    border.push(data[x * channels]!, data[((height - 1) * width + x) * channels]!);
  for (let y = 0; y < height; y++)
    border.push(data[y * width * channels]!, data[(y * width + width - 1) * channels]!);
  const middle = border.sort((a, b) => a - b)[border.length >> 1]!;
  const alike = border.filter((value) => Math.abs(value - middle) <= EVEN.levels).length;
  const ground = alike >= EVEN.share * border.length ? middle : GREY;
  return { r: ground, g: ground, b: ground };
}

/** One reading, its boxes in the picture as it lies. */
async function readAt(
  reader: Worker,
  picture: RawPicture,
  background: Ground,
  angle: number,
): Promise<Reading> {
  const { data: file, info } = await fromRaw(picture)
    .rotate(angle, { background })
    .png({ compressionLevel: 1 })
    .toBuffer({ resolveWithObject: true });
  const turned: Size = { width: info.width, height: info.height };
  const { data } = await reader.recognize(file, {}, { blocks: true, text: false });
  const lines = (data.blocks ?? []).flatMap(({ paragraphs }) => paragraphs.flatMap((p) => p.lines));
  const words = lines.flatMap((line, number) =>
    line.words.map(({ text, confidence, bbox }): ReadWord => {
      const box = {
        left: bbox.x0 / turned.width,
        top: bbox.y0 / turned.height,
        right: bbox.x1 / turned.width,
        bottom: bbox.y1 / turned.height,
      };
      return { text, confidence, line: number, box: turnedBack(box, turned, picture, angle) };
    }),
  );
  const legible = lines.filter(({ words: parts }) =>
    parts.some(({ text, confidence }) => confidence >= LEGIBLE.confidence && text.length >= LEGIBLE.letters),
  );
  const slope = slopeOf(
    legible.map(({ baseline: { x0, y0, x1, y1 } }) => ({ from: { x: x0, y: y0 }, to: { x: x1, y: y1 } })),
  );
  return { angle, words, slope };
}

/**
 * The lines of words that an original shows, of an animation its first frame.
 * @throws Error where the file is not what it was, or can't be decoded
 */
export async function wordsShownIn(reader: Worker, path: string, facts: OriginalFacts): Promise<ShownLine[]> {
  const picture = await greyOf(path, facts);
  const ground = groundOf(picture);
  const readings: Reading[] = [];
  for (const angle of ANGLES) {
    const reading = await readAt(reader, picture, ground, angle);
    readings.push(reading);
    if (isPlain(reading)) break;
  }
  const best = hopeful(readings);
  if (best && !isPlain(best)) {
    // What was read says how far it still lies from level.
    const askew = best.slope !== null && Math.abs(best.slope) >= LEVEL ? [-best.slope] : [];
    for (const by of [...askew, ...BESIDE])
      readings.push(await readAt(reader, picture, ground, best.angle + by));
  }
  return shownLines(readings);
}
