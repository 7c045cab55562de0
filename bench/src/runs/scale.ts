// A set of 10,000 photos beside one of 100: what a window waits for, what scrolling costs, what memory is held. The photos
// are small and made up, taken in once and kept for the next time.
import { randomUUID } from 'node:crypto';
import { chromium, type Page } from '@playwright/test';
import type { PhotoPage, SetHeader, SiteSummary } from '@dusky-otter/core/contract';
import { ask as askServer, edit, takeIn } from '../many.ts';
import { watchMemory } from '../processes.ts';
import { median, report, rounded, type Figures } from '../report.ts';
import { newSet, startServer } from '../server.ts';

const LARGE = Number(process.env.SCALE_PHOTOS ?? 10_000);
const SMALL = 100;
/** Photos whose arrival is timed at each size. */
const TIMED = 60;
const EDITS = 40;

const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '2' });
const { address } = server;

const ask = <T>(method: string, path: string, body?: object): Promise<T> =>
  askServer<T>(address, method, path, body);

/** The set of this size: the one that was kept, filled up where it was left unfinished. */
async function setOf(size: number): Promise<number> {
  const sites = await ask<SiteSummary[]>('GET', '/api/sites');
  const name = `Scale ${size}`;
  const kept = sites.flatMap(({ sets }) => sets).find((set) => set.name === name);
  const id = kept?.id ?? (await newSet(server, name));
  if (!kept) {
    const { set, site } = await ask<SetHeader>('GET', `/api/sets/${id}`);
    const command = { kind: 'set', change: { slots: ['grid'] } };
    const seen = { photos: {}, set: set.version, site: site.version };
    await ask('POST', `/api/sets/${id}/edits`, edit([command], seen));
  }
  const { counts } = await ask<SetHeader>('GET', `/api/sets/${id}`);
  if (counts.filters.all < size) await takeIn(address, id, counts.filters.all, size);
  return id;
}

async function prepared(setId: number): Promise<void> {
  for (;;) {
    const { preparation } = await ask<SetHeader>('GET', `/api/sets/${setId}`);
    if (preparation.made + preparation.failed >= preparation.wanted) return;
    await new Promise((done) => setTimeout(done, 500));
  }
}

/** Milliseconds of an alt edit over HTTP, from sending to the answer. */
async function editTime(setId: number): Promise<number> {
  const { photos } = await ask<PhotoPage>('GET', `/api/sets/${setId}/photos?from=0&count=40`);
  const times: number[] = [];
  const versions = new Map(photos.map(({ id, version }) => [id, version]));
  for (let n = 0; n < EDITS; n++) {
    const { id } = photos[n % photos.length]!;
    const words = { alt: `Bowls on a shelf, seen from the left, number ${n} of set ${setId}.` };
    const body = edit([{ kind: 'words', photo: id, language: 'en', words }], {
      photos: { [id]: versions.get(id) },
    });
    const from = performance.now();
    await ask('POST', `/api/sets/${setId}/edits`, body);
    times.push(performance.now() - from);
  }
  return median(times.slice(5));
}

/** Photos that one edit changes, to be taken back at once. */
const MANY = Math.min(2000, LARGE);

/** Milliseconds until an edit of many photos is taken back, over HTTP. */
async function undoOfMany(setId: number): Promise<number> {
  const { ids, versions } = await ask<{ ids: number[]; versions: number[] }>(
    'GET',
    `/api/sets/${setId}/ids?filter=all`,
  );
  const some = ids.slice(0, MANY);
  const commands = some.map((photo) => ({
    kind: 'words',
    photo,
    language: 'en',
    words: { alt: `A bowl among many, number ${photo}, before the undo.` },
  }));
  const photos = Object.fromEntries(some.map((id, at) => [id, versions[at]]));
  await ask('POST', `/api/sets/${setId}/edits`, edit(commands, { photos }));
  return timed(() =>
    ask('POST', `/api/sets/${setId}/undo`, { window: 'bench-window', since: 0, token: randomUUID() }),
  );
}

/** Bytes of what a window reads before its first rows are there. */
async function firstAnswer(setId: number): Promise<number> {
  const texts = await Promise.all(
    [`/api/sets/${setId}`, `/api/sets/${setId}/photos?filter=all&from=0&count=40`].map(
      async (path) => (await (await fetch(`${address}${path}`)).arrayBuffer()).byteLength,
    ),
  );
  return texts.reduce((sum, bytes) => sum + bytes, 0);
}

const timed = async (body: () => Promise<unknown>): Promise<number> => {
  const from = performance.now();
  await body();
  return performance.now() - from;
};

const saved = (page: Page) =>
  page.waitForFunction(() => document.querySelector('[data-pending]')?.getAttribute('data-pending') === '0');

/** Wheels through the table for some seconds. @returns ms between frames */
async function scroll(page: Page): Promise<number[]> {
  const frames = page.evaluate(
    () =>
      new Promise<number[]>((done) => {
        const times: number[] = [];
        let last = performance.now();
        const end = last + 5000;
        const frame = (now: number) => {
          times.push(now - last);
          last = now;
          if (now < end) requestAnimationFrame(frame);
          else done(times.slice(2));
        };
        requestAnimationFrame(frame);
      }),
  );
  const box = (await page.locator('[role="grid"] [role="rowgroup"]').boundingBox())!;
  await page.mouse.move(box.x + 400, box.y + 200);
  for (let n = 0; n < 90; n++) {
    await page.mouse.wheel(0, 420);
    await page.waitForTimeout(50);
  }
  return frames;
}

interface Used {
  figures: Figures;
  frames: number[];
}

async function use(setId: number, size: number): Promise<Used> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const rows = page.locator('[data-row]');
  const first = await timed(async () => {
    await page.goto(`${address}/sets/${setId}/gather`);
    await rows.first().locator('textarea').waitFor();
  });
  const alt = rows.first().locator('textarea');
  const text = `Typed into the first row of ${size}`;
  const shown = await timed(async () => {
    await alt.fill(text);
    await page.waitForFunction(
      (value) => document.querySelector<HTMLTextAreaElement>('[data-row] textarea')?.value === value,
      text,
    );
  });
  const savedIn = await timed(async () => {
    await alt.blur();
    await saved(page);
  });
  const undo = await timed(async () => {
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.waitForFunction(
      (value) => document.querySelector<HTMLTextAreaElement>('[data-row] textarea')?.value !== value,
      text,
    );
  });
  const filter = await timed(async () => {
    await page.getByRole('button', { name: /^Need words/ }).click();
    await page.locator('[role="grid"]').first().waitFor();
    await rows.first().waitFor();
  });
  await page.getByRole('button', { name: /^All/ }).click();
  const selectAll = await timed(async () => {
    await page.locator('[role="grid"] [role="rowgroup"]').focus();
    await page.keyboard.press('Control+a');
    await page.locator('footer').getByText(`${size} selected`).waitFor();
  });
  await page.keyboard.press('Escape');
  const frames = await scroll(page);
  const heap = await page.evaluate(
    () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize,
  );
  await browser.close();
  const figures = {
    'first rows, ms': Math.round(first),
    'edit until shown, ms': Math.round(shown),
    'edit until saved, ms': Math.round(savedIn),
    'undo, ms': Math.round(undo),
    'filter, ms': Math.round(filter),
    'select all, ms': Math.round(selectAll),
    'frames over 33 ms': rounded(frames.filter((ms) => ms > 33).length / frames.length),
    'worst frame, ms': Math.round(Math.max(...frames)),
    'tab, MB of heap': Math.round(heap / 1e6),
  };
  return { figures, frames };
}

const small = await setOf(SMALL);
const large = await setOf(LARGE);
for (const id of [small, large]) await prepared(id);

/** Arrivals at a size: they go for good afterwards, so that the kept set stays as large as it is. */
async function arrivals(setId: number): Promise<number> {
  const perSecond = await takeIn(address, setId, 1_000_000, 1_000_000 + TIMED);
  const { ids, versions } = await ask<{ ids: number[]; versions: number[] }>(
    'GET',
    `/api/sets/${setId}/ids?filter=all`,
  );
  const [own, seen] = [ids.slice(-TIMED), versions.slice(-TIMED)];
  const commands = own.map((photo) => ({ kind: 'bin', photo, binned: true }));
  const photos = Object.fromEntries(own.map((id, at) => [id, seen[at]]));
  await ask('POST', `/api/sets/${setId}/edits`, edit(commands, { photos }));
  await ask('DELETE', `/api/sets/${setId}/bin`);
  return perSecond;
}

const rows: Figures[] = [];
const took: number[] = [];
const edits: number[] = [];
let worst = 0;
let slow = 0;
const watch = watchMemory(server.child.pid!, Number(process.env.DATABASE_PID));
for (const [id, size] of [
  [small, SMALL],
  [large, LARGE],
] as const) {
  const bytes = await firstAnswer(id);
  // In turn, so that both are measured on a machine in the same mood.
  edits.push(median([await editTime(id), await editTime(id), await editTime(id)]));
  const { figures, frames } = await use(id, size);
  const rate = await arrivals(id);
  took.push(rate);
  worst = Math.max(...frames);
  slow = frames.filter((ms) => ms > 33).length / frames.length;
  rows.push({
    photos: size,
    'first answer, kB': rounded(bytes / 1000, 1),
    'edit over HTTP, ms': rounded(edits.at(-1)!, 1),
    ...figures,
    'files taken in a second': rounded(rate, 1),
  });
}
const many = median([await undoOfMany(large), await undoOfMany(large), await undoOfMany(large)]);
const peak = watch.stop();
await server.end();
await report(
  'scale',
  `a set of ${LARGE} photos beside one of ${SMALL}: small made-up files in one place`,
  rows,
  {
    photos: LARGE,
    'first answer kB': rows.at(-1)!['first answer, kB']!,
    'edit ratio to 100 photos': rounded(edits[1]! / edits[0]!, 2),
    'frames over 33 ms': rounded(slow),
    'worst frame ms': Math.round(worst),
    [`undo of ${MANY} photos, ms`]: Math.round(many),
    'server MB': Math.round(peak.server / 1e6),
    'files taken in a second': rounded(took.at(-1)!, 1),
  },
);
