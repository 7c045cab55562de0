// The pages of the demo as they are handed over, on a slow line, each beside the same photos put on a page by hand: originals
// that the browser scales, and copies at one size and quality, all at once.
import { readdir, readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { report, ROOT, rounded, type Figures } from '../report.ts';
import { prepared, startServer } from '../server.ts';

/** Bits a second and milliseconds there and back: the slow phone line of docs/decisions.md. */
const LINE = { bytesPerSecond: 200_000, roundTrip: 150 };
const SCREENS = [
  { screen: 'phone', width: 390, height: 664, density: 2 },
  { screen: 'laptop', width: 1280, height: 800, density: 1 },
];

const server = await startServer({ SEED_DEMO: '1', CODEC_WORKERS: '2' });
const [site] = (await (await fetch(`${server.address}/api/sites`)).json()) as {
  sets: { id: number; name: string }[];
}[];
const folders = new Map<string, string>(
  (await readdir(join(ROOT, 'demo'), { recursive: true })).map((path) => [path.split('/').at(-1)!, path]),
);

/** Files by address. */
const pages = new Map<string, Uint8Array>();

const byHand = (title: string, photos: number): Uint8Array => {
  const img = (n: number) => `<img src="${n}.jpg" alt="" style="width: 100%">`;
  const cells = Array.from(
    { length: photos },
    (_, n) => `<div style="flex: 0 0 calc(50% - 6px)">${img(n)}</div>`,
  );
  return new TextEncoder().encode(
    `<!doctype html><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title>
<body style="margin: 0 16px">${img(0)}<h1>${title}</h1><div style="display: flex; flex-wrap: wrap; gap: 12px">${cells.join('')}</div>`,
  );
};

const ways = {
  originals: (bytes: Buffer) => Promise.resolve(bytes),
  'one size': (bytes: Buffer) =>
    sharp(bytes).rotate().resize({ width: 1600 }).jpeg({ quality: 80 }).toBuffer(),
} as const;

/** Folders of the demo's pages, in the order of its sets. */
const names: string[] = [];
for (const { id } of site!.sets) {
  const { set, rows } = await server.state(id);
  if (!set.page) continue;
  const { folder, title } = set.page;
  names.push(folder);
  await prepared(server, id);
  const zip = await (await fetch(`${server.address}/api/sets/${id}/hand-over.zip`)).arrayBuffer();
  for (const [path, bytes] of Object.entries(unzipSync(new Uint8Array(zip))))
    pages.set(`/ours/${folder}/${path}`, bytes);
  for (const [way, make] of Object.entries(ways)) {
    pages.set(`/${way}/${folder}/index.html`, byHand(title, rows.length));
    for (const [n, { fileName }] of rows.entries())
      pages.set(
        `/${way}/${folder}/${n}.jpg`,
        await make(await readFile(join(ROOT, 'demo', folders.get(fileName)!))),
      );
  }
}
await server.end();

const TYPES: Record<string, string> = {
  html: 'text/html; charset=utf-8',
  css: 'text/css',
  js: 'text/javascript',
  jpg: 'image/jpeg',
  png: 'image/png',
  avif: 'image/avif',
  webp: 'image/webp',
  gif: 'image/gif',
  svg: 'image/svg+xml',
};
const host = createServer((request, response) => {
  const path = decodeURIComponent(new URL(request.url!, 'http://host').pathname);
  const bytes = pages.get(path);
  if (!bytes) {
    response.writeHead(404).end();
    return;
  }
  response.writeHead(200, { 'content-type': TYPES[path.split('.').at(-1)!] ?? 'application/octet-stream' });
  response.end(bytes);
});
await new Promise<void>((done) => host.listen(0, '127.0.0.1', done));
const origin = `http://127.0.0.1:${(host.address() as AddressInfo).port}`;

/** Scrolls through the page as a reader does, so that what is lazy is loaded. */
const readThrough = (page: Page) =>
  page.evaluate(async () => {
    for (let top = 0; top < document.documentElement.scrollHeight; top += innerHeight / 2) {
      scrollTo(0, top);
      await new Promise((done) => setTimeout(done, 120));
    }
    scrollTo(0, 0);
  });

async function measured(
  browser: Browser,
  name: string,
  way: string,
  { screen, width, height, density }: (typeof SCREENS)[number],
): Promise<Figures> {
  const context = await browser.newContext({ viewport: { width, height }, deviceScaleFactor: density });
  const page = await context.newPage();
  const client = await context.newCDPSession(page);
  await client.send('Network.enable');
  await client.send('Performance.enable');
  await client.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: LINE.roundTrip,
    downloadThroughput: LINE.bytesPerSecond,
    uploadThroughput: LINE.bytesPerSecond,
  });
  let bytes = 0;
  let requests = 0;
  client.on('Network.loadingFinished', ({ encodedDataLength }) => {
    bytes += encodedDataLength;
    requests += 1;
  });
  await page.addInitScript(() => {
    const seen = { lcp: 0, cls: 0 };
    Object.assign(window, { seen });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.lcp = entry.startTime;
    }).observe({ type: 'largest-contentful-paint', buffered: true });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.cls += (entry as unknown as { value: number }).value;
    }).observe({ type: 'layout-shift', buffered: true });
  });
  await page.goto(`${origin}/${way}/${name}/index.html`, { waitUntil: 'load', timeout: 300_000 });
  await page.waitForLoadState('networkidle', { timeout: 300_000 });
  const first = { bytes, requests };
  const { lcp } = await page.evaluate(() => (window as unknown as { seen: { lcp: number } }).seen);
  await readThrough(page);
  await page.waitForLoadState('networkidle', { timeout: 300_000 });
  const { cls } = await page.evaluate(() => (window as unknown as { seen: { cls: number } }).seen);
  const { metrics } = await client.send('Performance.getMetrics');
  const script = metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? 0;
  await context.close();
  return {
    page: name,
    way,
    screen,
    'LCP, s': rounded(lcp / 1000, 2),
    CLS: rounded(cls, 3),
    'kB at first': Math.round(first.bytes / 1000),
    'requests at first': first.requests,
    'kB in all': Math.round(bytes / 1000),
    'script, ms': rounded(script * 1000, 1),
  };
}

/** The figures that were kept last, of what goes out: those of this run stand beside them. */
const last = JSON.parse(await readFile(join(ROOT, 'bench/results/page.json'), 'utf8')) as { rows: Figures[] };

/** Figures beside those of the same page on the same screen that were kept last. */
function before(rows: readonly Figures[]): Figures[] {
  return rows.map((row) => {
    const old = last.rows.find((one) => ['page', 'way', 'screen'].every((name) => one[name] === row[name]));
    if (row.way !== 'ours' || !old) return row;
    const ratio = (name: string) => rounded(Number(row[name]) / Number(old[name]), 2);
    const more = (name: string) => rounded(Number(row[name]) - Number(old[name]), 3);
    return {
      ...row,
      'LCP, s ÷ before': ratio('LCP, s'),
      'kB in all ÷ before': ratio('kB in all'),
      'requests at first more than before': more('requests at first'),
      'CLS more than before': more('CLS'),
    };
  });
}

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const rows: Figures[] = [];
for (const screen of SCREENS)
  for (const name of names)
    for (const way of ['ours', ...Object.keys(ways)]) rows.push(await measured(browser, name, way, screen));
await browser.close();
host.close();
const figures = (way: string, screen: string, name: string): number[] =>
  rows.filter((row) => row.way === way && row.screen === screen).map((row) => Number(row[name]));
const sum = (all: readonly number[]): number => all.reduce((one, other) => one + other, 0);
const worst = (name: string, screen: string) => Math.max(...figures('ours', screen, name));
const ratio = (name: string, screen: string, way: string) =>
  rounded(sum(figures('ours', screen, name)) / sum(figures(way, screen, name)), 3);
const asBefore = before(rows);
const ofBefore = (name: string): number[] =>
  asBefore.map((row) => Number(row[name])).filter((ratio) => Number.isFinite(ratio));
await report(
  'page',
  `the demo's pages (${names.join(', ')}) at 1.6 Mbit/s and 150 ms, each beside the same photos by hand`,
  asBefore,
  {
    'worst LCP on a phone, s': worst('LCP, s', 'phone'),
    'worst LCP on a laptop, s': worst('LCP, s', 'laptop'),
    'worst CLS': Math.max(worst('CLS', 'phone'), worst('CLS', 'laptop')),
    'bytes on a phone ÷ one size': ratio('kB in all', 'phone', 'one size'),
    'bytes on a phone ÷ originals': ratio('kB in all', 'phone', 'originals'),
    'LCP on a phone ÷ one size': ratio('LCP, s', 'phone', 'one size'),
    'LCP on a phone ÷ originals': ratio('LCP, s', 'phone', 'originals'),
    'worst bytes ÷ before': Math.max(...ofBefore('kB in all ÷ before')),
    'worst LCP ÷ before': Math.max(...ofBefore('LCP, s ÷ before')),
    'most requests more than before': Math.max(...ofBefore('requests at first more than before')),
    'worst CLS more than before': Math.max(...ofBefore('CLS more than before')),
  },
);
