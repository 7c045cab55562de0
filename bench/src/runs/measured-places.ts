// Widths that the application measures on pages, beside those of a plain load of the same pages: every picture in every
// window that was looked at. The demo's site, and more folders where MEASURE_SITES names them (with : between).
import { readdir } from 'node:fs/promises';
import { basename, join, resolve } from 'node:path';
import { chromium } from '@playwright/test';
import { measuredFigures, plainWidths, serve, worstError } from '../measuring.ts';
import { report, rounded, type Figures } from '../report.ts';
import { newSet, startServer } from '../server.ts';

const MOST_PAGES = Number(process.env.MEASURE_PAGES ?? 12);
const DEMO = resolve('demo/site');
const folders = [DEMO, ...(process.env.MEASURE_SITES ?? '').split(':').filter(Boolean)];

const server = await startServer({ SEED_DEMO: '0' });
const setId = await newSet(server, 'Measured places');
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

const rows: Figures[] = [];
let [pictures, worst, shipped] = [0, 0, 0];
for (const folder of folders) {
  const site = await serve(folder);
  const found = (await readdir(folder, { recursive: true })).filter((path) => /\.x?html?$/i.test(path));
  await page.goto(`${server.address}/sets/${setId}/measure`);
  await page.getByLabel('The folder of a site').setInputFiles(folder);
  for (const path of found.sort().slice(0, MOST_PAGES)) {
    const figures = await measuredFigures(page, path);
    const windows = [...new Set(figures.map(({ window }) => window))];
    const plain = await plainWidths(browser, new URL(encodeURI(path), site.address).href, windows);
    const error = worstError(figures, plain);
    const seen = new Set(figures.map(({ number }) => number)).size;
    const fits = await page.getByText(/^The rule fits /).allTextContents();
    const rules = Math.max(0, ...fits.map((said) => Number(/([\d.]+) px/.exec(said)?.[1] ?? 0)));
    rows.push({
      page: folder === DEMO ? path : join(basename(folder), path),
      windows: windows.length,
      pictures: seen,
      'worst error, px': rounded(error, 3),
      'worst rule, px': rules,
    });
    pictures += seen;
    worst = Math.max(worst, error);
    if (folder === DEMO) shipped = worst;
  }
  site.close();
}
await browser.close();
await server.end();
const own = rows.filter(({ page: name }) => !String(name).includes('/'));
await report(
  'measured-places',
  'widths of pictures as measured, beside a plain load of the same pages',
  own,
  {
    pictures: folders.length === 1 ? pictures : own.reduce((sum, row) => sum + Number(row.pictures), 0),
    'worst error px': rounded(shipped, 3),
  },
);
if (folders.length > 1) {
  console.table(rows);
  console.log(`All folders: ${pictures} pictures, worst error ${rounded(worst, 3)} px`);
}
