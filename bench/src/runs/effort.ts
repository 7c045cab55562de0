// AVIF effort by measurement: bytes and time at equal visible difference, on text-column crops of the demo.
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { cover } from '@dusky-otter/core/geometry';
import { DEFAULT_POLICY, TARGETS } from '@dusky-otter/core/weight';
import sharp from 'sharp';
import { SizedPicture } from '../../../packages/server/dist/codec/search.js';
import { report, ROOT, type Figures } from '../report.ts';

sharp.concurrency(1);
sharp.cache(false);
const folder = join(ROOT, 'demo/photos');
const names = (await readdir(folder)).filter((_, i) => i % 3 === 0);
const WIDTH = 900;
const HEIGHT = WIDTH / 1.5;
const TARGET = TARGETS[DEFAULT_POLICY.target];
const pictures = await Promise.all(
  names.map(async (name) => {
    const { autoOrient } = await sharp(join(folder, name)).metadata();
    const { x, y, width, height } = cover(autoOrient, 1.5, { x: 0.5, y: 0.5 });
    const { data, info } = await sharp(join(folder, name))
      .autoOrient()
      .extract({ left: x, top: y, width, height })
      .resize(WIDTH, HEIGHT, { fit: 'fill' })
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height, channels: info.channels };
  }),
);

const rows: Figures[] = [];
for (const effort of [0, 1, 2, 3, 4]) {
  let bytes = 0;
  let encodes = 0;
  let time = 0;
  for (const picture of pictures) {
    const output = { key: '', path: '', width: WIDTH, height: HEIGHT, format: 'avif' as const };
    const made = await new SizedPicture(picture).encode({
      ...output,
      settings: { target: TARGET, density: 1, effort },
    });
    bytes += made.file.length;
    encodes += made.encodes;
    const from = performance.now();
    await sharp(picture.data, { raw: picture }).avif({ quality: made.quality!, effort }).toBuffer();
    time += performance.now() - from;
  }
  rows.push({
    effort,
    'kB a picture': Math.round(bytes / pictures.length / 100) / 10,
    'ms an encode': Math.round(time / pictures.length),
    encodes: Math.round((encodes / pictures.length) * 100) / 100,
  });
}
const [first] = rows;
const ratio = (row: Figures, name: string, places: number): number =>
  Number((Number(row[name]) / Number(first![name])).toFixed(places));
for (const row of rows) {
  row['bytes to effort 0'] = ratio(row, 'kB a picture', 3);
  row['time to effort 0'] = ratio(row, 'ms an encode', 2);
}
await report('effort', `AVIF at visible difference ≤ ${TARGET}, ${WIDTH} × ${HEIGHT} px, one thread`, rows, {
  pictures: pictures.length,
});
