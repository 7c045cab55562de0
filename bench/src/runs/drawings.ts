// Drawings that are made to take long: what is made of them, in how long, and what the rest of a page pays in Chromium.
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CodecPool } from '../../../packages/server/dist/codec/pool.js';
import { drawingFile } from '../../../packages/server/dist/codec/drawing.js';
import { configFrom } from '../../../packages/server/dist/config.js';
import { RefusedError } from '../../../packages/server/dist/problems.js';
import { dearDrawings, fetchingDrawings } from '../fuzz/drawings.js';
import { lookAt } from '../fuzz/files.js';
import { report, ROOT, rounded, type Figures } from '../report.js';

/** Drawings on one page, and how wide each stands on it, CSS px. */
const ON_A_PAGE = 5;
const WIDTH = 800;

const folder = await mkdtemp(join(tmpdir(), 'otter-bench-drawings-'));
const { jobs } = configFrom({ DATABASE_URL: process.env.DATABASE_URL });
const pool = new CodecPool(1, jobs);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

let hits = 0;
const outside = createServer((_, response) => {
  hits += 1;
  response.end();
});
await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
const elsewhere = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`;

/** A page of a server without any policy, with a drawing several times: as a picture, as an object, in the page itself. */
async function seen(svg: string): Promise<{ ms: number; requests: number }> {
  const before = hits;
  const inPage = svg.replace(/<\?xml[^>]*>/, '');
  const server = createServer(({ url }, response) => {
    if (url?.startsWith('/d')) {
      response.setHeader('content-type', 'image/svg+xml');
      response.end(svg);
      return;
    }
    const pictures = Array.from(
      { length: ON_A_PAGE - 2 },
      (_, n) => `<img src="/d${n}.svg" width="${WIDTH}">`,
    );
    response.setHeader('content-type', 'text/html');
    response.end(
      `<!doctype html>${pictures.join('')}<object data="/d.svg" width="${WIDTH}"></object><div style="width:${WIDTH}px">${inPage}</div>`,
    );
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on('request', (request) => {
    if (!request.url().startsWith(`http://127.0.0.1:${(server.address() as AddressInfo).port}`)) hits += 1;
  });
  const from = performance.now();
  await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
  // Two frames after it has loaded it was drawn; a picture of it is not done before.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await page.screenshot({ fullPage: true });
  const ms = performance.now() - from;
  await page.close();
  server.close();
  return { ms, requests: hits - before };
}

/** An empty page that is drawn likewise: what the browser takes for itself, once it has been used. */
const EMPTY =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200"><rect width="9" height="9"/></svg>';
await seen(EMPTY);
const plain = await seen(EMPTY);
const table: Figures[] = [];
for (const { name, svg } of [
  ...dearDrawings(),
  ...fetchingDrawings(elsewhere),
  { name: 'the demo’s logo', svg: await readFile(join(ROOT, 'demo/special/logo-gullmoor.svg'), 'utf8') },
]) {
  const job = await lookAt({ kind: name, bytes: Buffer.from(svg) }, folder);
  const from = performance.now();
  try {
    const { facts } = await pool.inspect(job);
    const looked = performance.now() - from;
    const goesOut = facts.drawing?.unsafe === null ? 'a drawing' : 'a bitmap';
    const size = { width: WIDTH, height: Math.round((WIDTH * facts.height) / facts.width) };
    const frame = {
      turning: { turns: 0 as const, mirrored: false, angle: 0 },
      crop: { x: 0, y: 0, width: facts.width, height: facts.height },
    };
    const page =
      goesOut === 'a drawing'
        ? await seen((await drawingFile(job.path, facts, frame, size)).toString())
        : null;
    table.push({
      drawing: name,
      becomes: goesOut,
      'look, s': rounded(looked / 1000, 1),
      'five on a page, ms': page ? Math.round(page.ms - plain.ms) : null,
      requests: page?.requests ?? 0,
    });
  } catch (error) {
    if (!(error instanceof RefusedError)) throw error;
    const looked = (performance.now() - from) / 1000;
    table.push({
      ...{ drawing: name, becomes: 'refused', 'look, s': rounded(looked, 1) },
      ...{ 'five on a page, ms': null, requests: 0 },
    });
  }
  console.log(JSON.stringify(table.at(-1)));
}
await browser.close();
outside.close();
await pool.close();
await rm(folder, { recursive: true, force: true });
const most = (key: string) => Math.max(...table.map((row) => Number(row[key] ?? 0)));
await report(
  'drawings',
  'Drawings that are made to be dear or to fetch from elsewhere, and what became of them; five of each on a page without a policy',
  table,
  {
    drawings: table.length,
    'requests elsewhere': most('requests'),
    'longest look, s': most('look, s'),
    'slowest page of five, ms': most('five on a page, ms'),
    refused: table.filter(({ becomes }) => becomes === 'refused').length,
    'as bitmaps': table.filter(({ becomes }) => becomes === 'a bitmap').length,
  },
);
