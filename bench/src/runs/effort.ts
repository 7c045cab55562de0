// AVIF effort by measurement: bytes and time of the demo's text-column crops at each effort.
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { cover } from '@dusky-otter/core';
import sharp from 'sharp';
import { report, ROOT, type Figures } from '../report.ts';

sharp.concurrency(1);
sharp.cache(false);
const folder = join(ROOT, 'demo/photos');
const names = (await readdir(folder)).filter((_, i) => i % 3 === 0);
const WIDTH = 1440;
const pictures = await Promise.all(
  names.map(async (name) => {
    const { autoOrient } = await sharp(join(folder, name)).metadata();
    const { x, y, width, height } = cover(autoOrient, 1.5, { x: 0.5, y: 0.5 });
    return sharp(join(folder, name))
      .autoOrient()
      .extract({ left: x, top: y, width, height })
      .resize(WIDTH, WIDTH / 1.5, { fit: 'fill' })
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
  }),
);
const rows: Figures[] = [];
for (const effort of [0, 1, 2, 3, 4]) {
  const from = performance.now();
  let bytes = 0;
  for (const { data, info } of pictures)
    bytes += (await sharp(data, { raw: info }).avif({ quality: 55, effort }).toBuffer()).length;
  const time = (performance.now() - from) / pictures.length;
  rows.push({
    effort,
    'ms a picture': Math.round(time),
    'kB a picture': Math.round(bytes / pictures.length / 100) / 10,
  });
}
const [first] = rows;
for (const row of rows) {
  row['time to effort 0'] =
    Math.round((Number(row['ms a picture']) / Number(first!['ms a picture'])) * 100) / 100;
  row['bytes to effort 0'] =
    Math.round((Number(row['kB a picture']) / Number(first!['kB a picture'])) * 1000) / 1000;
}
await report('effort', `AVIF at quality 55, ${WIDTH} × ${WIDTH / 1.5} px, one thread`, rows, {
  pictures: pictures.length,
});
