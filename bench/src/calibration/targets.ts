// What the reference program says of files that the application makes for a target of 2: photographs that the fit has
// not seen, at two widths as they are and at two as they are looked at on a dense screen. Wants Debian's butteraugli.
// node bench/dist/calibration/targets.js FOLDER… (ALL=1: every JPEG and PNG of the folders instead of the known ones)
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { settingsFor, TARGETS, type LossyFormat } from '@dusky-otter/core/weight';
import sharp from 'sharp';
import { SizedPicture } from '../../../packages/server/dist/codec/search.js';
import { ROOT, rounded } from '../report.ts';
import { cropAt, findPhotos, knownPhotos, ofEach, seenAt } from './photos.ts';
import { Referee } from './referee.ts';

const TARGET = TARGETS.clean;
const SIZES = [
  { width: 640, density: 1 },
  { width: 1200, density: 1 },
  { width: 1200, density: 2 },
  { width: 2000, density: 2 },
] as const;
const FORMATS: readonly LossyFormat[] = ['jpeg', 'webp', 'avif'];

interface Judged {
  photo: string;
  width: number;
  density: 1 | 2;
  format: LossyFormat;
  quality: number | null;
  /** As the application measured it. */
  own: number;
  /** Score of the reference program. */
  reference: number;
}

async function judged(photo: string, path: string, referee: Referee): Promise<Judged[]> {
  const all: Judged[] = [];
  for (const { width, density } of SIZES) {
    const crop = await cropAt(path, width);
    const sized = new SizedPicture({ ...crop, data: Buffer.from(crop.data) });
    const original = await referee.file(seenAt(crop, density));
    for (const format of FORMATS) {
      const photograph = { kind: 'photograph', lossless: false } as const;
      const settings = settingsFor(format, photograph, {
        target: TARGET,
        density,
        pixels: crop.width * crop.height,
      });
      const { file, quality, difference } = await sized.encode({ format, settings });
      const data = await sharp(file).removeAlpha().raw().toBuffer();
      const reference = await referee.score(original, seenAt({ ...crop, data }, density));
      all.push({ photo, width, density, format, quality, own: difference!, reference });
    }
  }
  return all;
}

/** The photographs that the fit has not seen, or all that lie in the folders. */
async function photosIn(folders: readonly string[]): Promise<Map<string, string>> {
  if (process.env.ALL) {
    const lists = await Promise.all(
      folders.map((folder) => readdir(folder, { recursive: true, withFileTypes: true })),
    );
    const files = lists.flat().filter((entry) => entry.isFile() && /\.(jpe?g|png)$/i.test(entry.name));
    return new Map(files.map(({ name, parentPath }) => [name, join(parentPath, name)]));
  }
  const found = await findPhotos([join(ROOT, 'demo/photos'), ...folders]);
  const seen = (await knownPhotos()).filter(({ half }) => half === 'calibration').map(({ id }) => id);
  return new Map([...found].filter(([id]) => !seen.includes(id)));
}

const referee = await Referee.open();
const all = await ofEach(await photosIn(process.argv.slice(2)), (photo, path) =>
  judged(photo, path, referee),
);
await referee.close();

const meets = ({ own }: Judged): boolean => own <= TARGET;
const above = (files: readonly Judged[], times: number): number =>
  files.filter(({ reference }) => reference > times * TARGET).length;
console.table(
  FORMATS.flatMap((format) =>
    ([1, 2] as const).map((density) => {
      const made = all.filter((one) => one.format === format && one.density === density);
      const files = made.filter(meets);
      return {
        format,
        density,
        files: files.length,
        'target not met': made.length - files.length,
        'worst ÷ target': rounded(Math.max(...files.map(({ reference }) => reference)) / TARGET, 2),
        'above 1.25': above(files, 1.25),
        'above 1.4': above(files, 1.4),
      };
    }),
  ),
);
const worst = all.filter(meets).sort((a, b) => b.reference - a.reference);
console.table(worst.slice(0, 12));
console.table(all.filter((one) => !meets(one)));
