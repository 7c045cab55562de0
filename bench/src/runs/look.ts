// What a look at the weigh bench costs: the answer to another quality at 1,600 px, while nothing else is done and while
// versions are being made beside it; and the longest that the page's main thread is blocked meanwhile.
import { chromium } from '@playwright/test';
import type { TakeInResult } from '@dusky-otter/core/contract';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { framesDuring } from '../frames.ts';
import { median, report, ROOT, rounded, type Figures } from '../report.ts';
import { newSet, startServer } from '../server.ts';

const WIDTH = 1600;
/** The bench is opened so many times, each in a browser of its own. */
const OPENINGS = 7;
const QUALITIES = [92, 40, 85, 55, 76, 62, 70, 48];

const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '2' });
const setId = await newSet(server, 'Looks');

async function added(file: string): Promise<number> {
  const response = await fetch(`${server.address}/api/sets/${setId}/files?name=${file}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(await readFile(join(ROOT, 'demo/photos', file))),
  });
  const taken = (await response.json()) as TakeInResult;
  if (taken.kind !== 'new') throw new Error(`${file} was not taken in: ${taken.kind}`);
  return taken.photo.id;
}
const pause = (paused: boolean) =>
  fetch(`${server.address}/api/sets/${setId}/preparation`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ paused }),
  });

/** Milliseconds until the whole file has come. */
async function answer(photo: number, query: Record<string, string>): Promise<number> {
  const asked = new URLSearchParams({ slot: 'column', shape: '3:2', width: String(WIDTH), ...query });
  const from = performance.now();
  const response = await fetch(`${server.address}/api/sets/${setId}/photos/${photo}/look?${asked}`);
  await response.arrayBuffer();
  if (!response.ok) throw new Error(`${response.status}`);
  return performance.now() - from;
}

await pause(true);
const photo = await added('GM_0412.JPG');
const rows: Figures[] = [];
const all: number[] = [];
const measure = async (beside: string) => {
  rows.push({
    beside,
    what: 'the picture itself, first look',
    'median, ms': Math.round(await answer(photo, {})),
  });
  for (const format of ['jpeg', 'webp', 'avif']) {
    const times: number[] = [];
    for (const quality of QUALITIES) times.push(await answer(photo, { format, quality: String(quality) }));
    if (format !== 'avif') all.push(...times);
    rows.push({
      beside,
      what: `another quality, ${format}`,
      'median, ms': Math.round(median(times)),
      'worst, ms': Math.round(Math.max(...times)),
    });
  }
};
await measure('nothing');

/** A browser that has seen nothing yet, with the bench open, and how long its main thread was blocked for meanwhile. */
async function opened() {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    const state = window as unknown as { longest: number };
    state.longest = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) state.longest = Math.max(state.longest, duration);
    }).observe({ type: 'longtask' });
  });
  await page.goto(`${server.address}/sets/${setId}/weigh/${photo}`);
  const points = page.getByRole('region', { name: 'Points of all formats' }).getByRole('button');
  await points.first().click();
  await page.locator('[data-shows]').waitFor();
  const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
  return { browser, page, longest };
}
const openings: number[] = [];
for (let n = 1; n < OPENINGS; n++) {
  const { browser, longest } = await opened();
  openings.push(longest);
  await browser.close();
}
const { browser, page, longest: lastOpening } = await opened();
openings.push(lastOpening);
await page.evaluate(() => ((window as unknown as { longest: number }).longest = 0));
// All points of all formats are looked at and measured while the picture is moved about.
const stage = (await page.locator('[role="application"]').boundingBox())!;
const frames = await framesDuring(page, async () => {
  const until = Date.now() + 8000;
  await page.mouse.move(stage.x + 200, stage.y + 200);
  await page.mouse.down();
  for (let n = 0; Date.now() < until; n++)
    await page.mouse.move(stage.x + 200 + 80 * Math.sin(n / 10), stage.y + 200 + 60 * Math.cos(n / 10));
  await page.mouse.up();
});
const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
await browser.close();

await pause(false);
for (const file of ['DSC00356.JPG', 'GM_0467.JPG', 'GM_0440.JPG']) await added(file);
await measure('versions being made by two processes');
await server.end();
await report('look', `answers at the weigh bench, ${WIDTH} px`, rows, {
  'median answer ms, JPEG and WebP': Math.round(median(all)),
  'part of answers within 300 ms': rounded(all.filter((ms) => ms <= 300).length / all.length),
  'worst answer ms': Math.round(Math.max(...all)),
  'median frame ms while panning': rounded(median(frames), 1),
  'worst frame ms while panning': Math.round(Math.max(...frames)),
  'main thread blocked at most ms, opening, median': Math.round(median(openings)),
  'main thread blocked at most ms, opening, worst': Math.round(Math.max(...openings)),
  'main thread blocked at most ms, looking': Math.round(longest),
});
