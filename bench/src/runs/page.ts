// A page of the demo as it is handed over, on a slow line, beside the same photos put on a page by hand: originals that
// the browser scales, and copies at one size and quality, all at once.
import { readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { optionsFor, slotsOfArrangement, type Arrangement, type Command } from '@dusky-otter/core';
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
const container = [
  { from: 0, vw: 1, px: -32 },
  { from: 1172, vw: 0, px: 1140 },
];
const arrangements: Arrangement[] = [
  { shortName: 'hero-of-the-diary', title: 'The autumn firing', options: optionsFor('rotating'), container },
  { shortName: 'pots-of-the-diary', title: 'Still warm', options: optionsFor('grid'), container },
];
const before = await server.state(1);
const commands: Command[] = [
  ...arrangements.flatMap((one): Command[] => {
    const { cell, large } = slotsOfArrangement(one);
    return [cell, ...(large ? [large] : [])].map((value) => ({ kind: 'slot', slot: value.id, value }));
  }),
  ...before.rows.map(({ id: photo }): Command => ({ kind: 'placements', photo, placements: null })),
  { kind: 'set', change: { slots: arrangements.map(({ shortName }) => shortName) } },
];
const answer = await fetch(`${server.address}/api/sets/1/edits`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({
    label: 'a page of the diary',
    commands,
    seen: {
      photos: Object.fromEntries(before.rows.map(({ id, version }) => [id, version])),
      set: before.set.version,
      site: before.site.version,
    },
    token: crypto.randomUUID(),
    window: 'bench-window',
    since: 0,
  }),
});
if (!answer.ok) throw new Error(await answer.text());
await prepared(server, 1);
const zip = unzipSync(
  new Uint8Array(await (await fetch(`${server.address}/api/sets/1/hand-over.zip`)).arrayBuffer()),
);
await server.end();

/** Files by address. */
const pages = new Map<string, Uint8Array>(
  Object.entries(zip).map(([path, bytes]) => [`/ours/${path}`, bytes]),
);
const photos = await Promise.all(
  before.rows
    .filter(({ original }) => original.format === 'jpeg')
    .map(async (row) => ({
      row,
      bytes: await readFile(join(ROOT, 'demo/photos', row.fileName)).catch(() => null),
    })),
);
const there = photos.flatMap(({ row, bytes }) => (bytes ? [{ row, bytes }] : []));
const byHand = (folder: string): Uint8Array => {
  const img = (n: number) => `<img src="${n}.jpg" alt="" style="width: 100%">`;
  const cells = there.map((_, n) => `<div style="flex: 0 0 calc(50% - 6px)">${img(n)}</div>`).join('');
  return new TextEncoder().encode(
    `<!doctype html><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${folder}</title>
<body style="margin: 0 16px">${img(0)}<h1>The autumn firing</h1><div style="display: flex; flex-wrap: wrap; gap: 12px">${cells}</div>`,
  );
};
for (const [folder, make] of [
  ['originals', (bytes: Buffer) => Promise.resolve(bytes)],
  [
    'one-size',
    (bytes: Buffer) => sharp(bytes).rotate().resize({ width: 1600 }).jpeg({ quality: 80 }).toBuffer(),
  ],
] as const) {
  pages.set(`/${folder}/index.html`, byHand(folder));
  for (const [n, { bytes }] of there.entries()) pages.set(`/${folder}/${n}.jpg`, await make(bytes));
}

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
  folder: string,
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
  await page.goto(`${origin}/${folder}/index.html`, { waitUntil: 'load', timeout: 300_000 });
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
    page: folder,
    screen,
    'LCP, s': rounded(lcp / 1000, 2),
    CLS: rounded(cls, 3),
    'kB at first': Math.round(first.bytes / 1000),
    'requests at first': first.requests,
    'kB in all': Math.round(bytes / 1000),
    'script, ms': rounded(script * 1000, 1),
  };
}

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const rows: Figures[] = [];
for (const screen of SCREENS)
  for (const folder of ['ours', 'one-size', 'originals']) rows.push(await measured(browser, folder, screen));
await browser.close();
host.close();
const of = (folder: string, screen: string) =>
  rows.find((row) => row.page === folder && row.screen === screen)!;
const ratio = (name: string, screen: string, folder: string) =>
  rounded(Number(of('ours', screen)[name]) / Number(of(folder, screen)[name]), 3);
await report(
  'page',
  `a page with a rotating hero and a grid of ${there.length} photos, at 1.6 Mbit/s and 150 ms, beside the same by hand`,
  rows,
  {
    'LCP on a phone, s': of('ours', 'phone')['LCP, s']!,
    'CLS on a phone': of('ours', 'phone').CLS!,
    'bytes on a phone ÷ one size': ratio('kB in all', 'phone', 'one-size'),
    'bytes on a phone ÷ originals': ratio('kB in all', 'phone', 'originals'),
    'LCP on a phone ÷ originals': ratio('LCP, s', 'phone', 'originals'),
  },
);
