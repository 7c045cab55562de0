// The Arrange stop with fifty places and thousands of photos, beside the same stop with two places and a hundred: until it can
// be used, what scrolling costs both ways, and what it takes to move a photo. Nothing is made meanwhile.
import { chromium, type Page } from '@playwright/test';
import { optionsFor, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { PhotoPage, SetHeader } from '@dusky-otter/core/contract';
import { firstPage } from '@dusky-otter/core/page';
import { framesDuring } from '../frames.ts';
import { ask, edit, takeIn } from '../many.ts';
import { median, report, rounded, type Figures } from '../report.ts';
import { newSet, startServer } from '../server.ts';

const SIZES = [
  { photos: 100, places: 2 },
  { photos: Number(process.env.SHELVES_PHOTOS ?? 2500), places: 50 },
];
const MOVES = 5;

const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '2' });
const { address } = server;

/** A set whose photos all stand in the first place, and each in one of the others. */
async function setOf({ photos, places }: (typeof SIZES)[number]): Promise<number> {
  const id = await newSet(server, `Shelves ${photos}`);
  const name = (n: number) => `gallery-${n}`;
  const { set, site } = await ask<SetHeader>(address, 'GET', `/api/sets/${id}`);
  const slots = Array.from(
    { length: places },
    (_, n) =>
      slotsOfArrangement({
        ...{
          shortName: name(n),
          title: `Gallery ${n}`,
          options: { ...optionsFor('grid'), click: 'nothing' },
        },
        container: [{ from: 0, vw: 1, px: -32 }],
      } as Parameters<typeof slotsOfArrangement>[0]).cell,
  );
  const parts = slots.map((slot) => ({ kind: 'place', slot: slot.id, titled: true }));
  const page = { ...firstPage('Shelves', [], () => false), parts };
  const commands = [
    ...slots.map((value) => ({ kind: 'slot', slot: value.id, value })),
    { kind: 'set', change: { slots: [name(0)], page } },
  ];
  const seen = { photos: {}, set: set.version, site: site.version };
  await ask(address, 'POST', `/api/sets/${id}/edits`, edit(commands, seen));
  await ask(address, 'PUT', `/api/sets/${id}/preparation`, { paused: true });
  await takeIn(address, id, 0, photos);
  const { ids, versions } = await ask<{ ids: number[]; versions: number[] }>(
    address,
    'GET',
    `/api/sets/${id}/ids?filter=all`,
  );
  const placed = ids.map((photo, n) => ({
    ...{ kind: 'placements', photo },
    placements: [name(0), name(1 + (n % (places - 1)))].map((slot) => ({
      ...{ slot, link: '', words: {}, crops: {} },
    })),
  }));
  const all = Object.fromEntries(ids.map((photo, n) => [photo, versions[n]]));
  await ask(address, 'POST', `/api/sets/${id}/edits`, edit(placed, { photos: all }));
  return id;
}

/** Wheels over a place of the screen. */
async function wheel(page: Page, [x, y]: [number, number], [right, down]: [number, number]): Promise<void> {
  await page.mouse.move(x, y);
  for (let n = 0; n < 60; n++) {
    await page.mouse.wheel(right, down);
    await page.waitForTimeout(40);
  }
}

const slow = (frames: readonly number[]) => rounded(frames.filter((ms) => ms > 33).length / frames.length);

/** Milliseconds until a photo that a key moves stands one further. */
async function moved(page: Page): Promise<number> {
  const first = page.locator('[data-at^="gallery-0 "]').first();
  const before = await first.getAttribute('data-at');
  await first.focus();
  const from = performance.now();
  await page.keyboard.press('Shift+ArrowRight');
  await page.waitForFunction(
    (was) => document.querySelector('[data-at^="gallery-0 "]')?.getAttribute('data-at') !== was,
    before,
  );
  return performance.now() - from;
}

async function use(id: number): Promise<Figures> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const from = performance.now();
  await page.goto(`${address}/sets/${id}/arrange`);
  await page.locator('[data-at^="gallery-0 "] img').nth(3).waitFor();
  const opened = performance.now() - from;
  const sideways = await framesDuring(page, () => wheel(page, [800, 180], [500, 0]));
  const down = await framesDuring(page, () => wheel(page, [1150, 500], [0, 300]));
  await page.goto(`${address}/sets/${id}/arrange`);
  await page.locator('[data-at^="gallery-0 "] img').nth(3).waitFor();
  const times: number[] = [];
  for (let n = 0; n < MOVES; n++) times.push(await moved(page));
  const drawn = await page.locator('*').count();
  await browser.close();
  return {
    'opened, ms': Math.round(opened),
    'sideways: frames over 33 ms': slow(sideways),
    'sideways: worst frame, ms': Math.round(Math.max(...sideways)),
    'down: frames over 33 ms': slow(down),
    'down: worst frame, ms': Math.round(Math.max(...down)),
    'a photo moved, ms': Math.round(median(times)),
    elements: drawn,
  };
}

const rows: Figures[] = [];
for (const size of SIZES) {
  const id = await setOf(size);
  const { photos } = await ask<PhotoPage>(address, 'GET', `/api/sets/${id}/photos?from=0&count=1`);
  if (photos.length === 0) throw new Error('Nothing came in.');
  rows.push({ ...size, ...(await use(id)) });
}
await server.end();
const [small, large] = rows as [Figures, Figures];
const ratio = (name: string) => rounded(Number(large[name]) / Number(small[name]), 2);
await report('shelves', 'the Arrange stop with many places and photos beside a small one', rows, {
  photos: large.photos!,
  places: large.places!,
  'opened ÷ small': ratio('opened, ms'),
  'a photo moved ÷ small': ratio('a photo moved, ms'),
  'worst frame, ms': Math.max(
    Number(large['down: worst frame, ms']),
    Number(large['sideways: worst frame, ms']),
  ),
  'frames over 33 ms, down': large['down: frames over 33 ms']!,
  'frames over 33 ms, sideways': large['sideways: frames over 33 ms']!,
});
