// The frame bench on a photo of 24 megapixels: what a dragged focal point, a dragged crop and a turning slider cost, in the
// browser's own frame times.
import { chromium } from '@playwright/test';
import type { TakeInResult } from '@dusky-otter/core/contract';
import sharp from 'sharp';
import { framesDuring } from '../frames.ts';
import { median, report, rounded, type Figures } from '../report.ts';
import { newSet, startServer } from '../server.ts';

const SIZE = { width: 6000, height: 4000 };
const SECONDS = 4;

const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '1' });
const setId = await newSet(server, 'Frame bench');

/** A picture with something to draw everywhere: smooth waves under grain. */
async function photo(): Promise<Buffer> {
  const noise = await sharp({
    create: {
      width: 1500,
      height: 1000,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .png()
    .toBuffer();
  return sharp(noise).resize(SIZE.width, SIZE.height, { kernel: 'cubic' }).jpeg({ quality: 85 }).toBuffer();
}

const response = await fetch(`${server.address}/api/sets/${setId}/files?name=large.jpg`, {
  method: 'POST',
  headers: { 'content-type': 'application/octet-stream' },
  body: new Uint8Array(await photo()),
});
const taken = (await response.json()) as TakeInResult;
if (taken.kind !== 'new') throw new Error(`The photo was not taken in: ${taken.kind}`);

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
// What is prepared in the background is measured elsewhere: here the browser has the machine.
await fetch(`${server.address}/api/sets/${setId}/preparation`, {
  method: 'PUT',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ paused: true }),
});
await page.goto(`${server.address}/sets/${setId}/frame/${taken.photo.id}`);
await page.locator('[data-stage]').waitFor();
await page.locator('[data-tilt]:not([data-tilt="looking"])').waitFor();

/** Drags along a circle for some seconds, a step a frame. */
async function drag(from: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  const until = Date.now() + SECONDS * 1000;
  for (let n = 0; Date.now() < until; n++) {
    const angle = n / 12;
    await page.mouse.move(from.x + 90 * Math.sin(angle), from.y + 60 * (1 - Math.cos(angle)));
  }
  await page.mouse.up();
}

const middleOf = async (selector: string) => {
  const box = (await page.locator(selector).first().boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

const rows: Figures[] = [];
const all: number[] = [];
const measure = async (what: string, act: () => Promise<void>) => {
  const frames = await framesDuring(page, act);
  all.push(...frames);
  rows.push({
    what,
    frames: frames.length,
    'median, ms': rounded(median(frames), 1),
    'over 20 ms': rounded(frames.filter((ms) => ms > 20).length / frames.length),
    'over 33 ms': rounded(frames.filter((ms) => ms > 34).length / frames.length),
    'worst, ms': Math.round(Math.max(...frames)),
  });
};
await measure('nothing', () => page.waitForTimeout(SECONDS * 1000));
all.length = 0;
await measure('focal point dragged', async () => drag(await middleOf('button[aria-label^="Focal point"]')));
await page.getByRole('button', { name: /1:1$/ }).first().click();
await measure('crop dragged', async () => {
  const { x, y } = await middleOf('[data-crop]');
  await drag({ x: x + 60, y: y + 60 });
});
await measure('straightened by the slider', async () => {
  const slider = (await page.getByRole('slider').boundingBox())!;
  await drag({ x: slider.x + slider.width / 2, y: slider.y + slider.height / 2 });
});
await browser.close();
await server.end();
await report(
  'frame-bench',
  `frame times at the frame bench, a photo of ${SIZE.width} × ${SIZE.height} px`,
  rows,
  {
    megapixels: (SIZE.width * SIZE.height) / 1e6,
    'median frame ms': rounded(median(all), 1),
    'frames over 20 ms': rounded(all.filter((ms) => ms > 20).length / all.length),
    'worst frame ms': Math.round(Math.max(...all)),
  },
);
