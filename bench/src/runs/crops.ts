// First guesses of crops: how many keep at least 90 % of the hand-labelled subject, beside other ways to choose.
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Rect, ShapeId, Size } from '@dusky-otter/core/contract';
import { cover, largestWindow, ratioOf } from '@dusky-otter/core/geometry';
import { guessFocalPoint } from '@dusky-otter/core/saliency';
import sharp from 'sharp';
import { report, ROOT, type Figures } from '../report.ts';

type Box = [number, number, number, number];
const { subjects } = JSON.parse(await readFile(join(ROOT, 'demo/subjects.json'), 'utf8')) as {
  subjects: Record<string, Box | null>;
};
const SHAPES: ShapeId[] = ['3:1', '1:1', '4:5', '3:2'];
const KEPT = 0.9;

const overlap = (a0: number, a1: number, b0: number, b1: number): number =>
  Math.max(0, Math.min(a1, b1) - Math.max(a0, b0));

/** Share of the subject's area inside a window. */
function kept(window: Rect, [x0, y0, x1, y1]: Box, { width, height }: Size): number {
  const across = overlap(window.x, window.x + window.width, x0 * width, x1 * width);
  const down = overlap(window.y, window.y + window.height, y0 * height, y1 * height);
  return (across * down) / ((x1 - x0) * width * (y1 - y0) * height);
}

/** The window that sharp's strategy cuts out, in pixels of the picture. */
async function byStrategy(
  picture: Buffer,
  size: Size,
  shape: ShapeId,
  strategy: 'attention' | 'entropy',
): Promise<Rect> {
  const window = largestWindow(size, ratioOf(shape, size));
  const { info } = await sharp(picture)
    .resize(window.width, window.height, {
      fit: 'cover',
      position: sharp.strategy[strategy],
      withoutReduction: false,
    })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { x: -(info.cropOffsetLeft ?? 0), y: -(info.cropOffsetTop ?? 0), ...window };
}

const methods = ['this guess', 'middle', 'attention', 'entropy', 'best possible'] as const;
const counts = new Map<string, number>();
const labelled = Object.entries(subjects).filter((entry): entry is [string, Box] => entry[1] !== null);
let time = 0;
for (const [name, box] of labelled) {
  const small = await sharp(join(ROOT, 'demo/photos', name))
    .autoOrient()
    .resize(480, 480, { fit: 'inside' })
    .toColourspace('srgb')
    .png()
    .toBuffer({ resolveWithObject: true });
  const size = { width: small.info.width, height: small.info.height };
  const { data, info } = await sharp(small.data)
    .resize(200, 200, { fit: 'inside' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const from = performance.now();
  const guess = guessFocalPoint({ data, width: info.width, height: info.height, channels: 3 });
  time += performance.now() - from;
  for (const shape of SHAPES) {
    const ratio = ratioOf(shape, size);
    const middle = { x: (box[0] + box[2]) / 2, y: (box[1] + box[3]) / 2 };
    const windows: Record<(typeof methods)[number], Rect> = {
      'this guess': cover(size, ratio, guess),
      middle: cover(size, ratio, { x: 0.5, y: 0.5 }),
      attention: await byStrategy(small.data, size, shape, 'attention'),
      entropy: await byStrategy(small.data, size, shape, 'entropy'),
      'best possible': cover(size, ratio, middle),
    };
    for (const method of methods) {
      const good = kept(windows[method], box, size) >= KEPT;
      const id = `${method} ${shape}`;
      counts.set(id, (counts.get(id) ?? 0) + (good ? 1 : 0));
      if (
        process.env.SHOW &&
        method === 'this guess' &&
        !good &&
        kept(windows['best possible'], box, size) >= KEPT
      )
        console.log(name, shape, guess, kept(windows[method], box, size).toFixed(2));
    }
  }
}
const share = (count: number, of: number): number => Math.round((count / of) * 1000) / 1000;
const rows: Figures[] = methods.map((method) => ({
  method,
  ...Object.fromEntries(
    SHAPES.map((shape) => [shape, share(counts.get(`${method} ${shape}`)!, labelled.length)]),
  ),
  'of those that fit': share(
    SHAPES.reduce((sum, shape) => sum + counts.get(`${method} ${shape}`)!, 0),
    SHAPES.reduce((sum, shape) => sum + counts.get(`best possible ${shape}`)!, 0),
  ),
}));
await report('crops', `Share of crops that keep at least ${KEPT * 100} % of the subject`, rows, {
  photos: labelled.length,
  'ms a guess': Math.round((time / labelled.length) * 10) / 10,
});
