// npm run screenshots: renews the pictures in docs/screenshots from the demo, in Debian's Chromium. Behind -- the names of
// some, where not all are to be renewed.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { startDatabase } from './database.mjs';
import { build, DATABASE, installPackages, needDebian, ROOT } from './setup.mjs';

await Promise.all([needDebian({ ...DATABASE, chromium: 'chromium' }), installPackages()]);
await build();
const { chromium } = await import('@playwright/test');

/** Pictures that were named; all where none was. */
const ONLY = process.argv.slice(2);

const folder = mkdtempSync(join(tmpdir(), 'otter-shots-'));
const database = await startDatabase(join(folder, 'database'));
const env = {
  ...process.env,
  PORT: '0',
  SEED_DEMO: '0',
  IDLE_WORK: '0',
  READ_TEXT: '1',
  DATA_DIR: join(folder, 'data'),
  DATABASE_URL: database.url,
};
const server = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], {
  env,
  stdio: ['ignore', 'pipe', 'inherit'],
});
// A picture that can't be taken must not leave a server behind.
process.once('exit', () => server.kill('SIGKILL'));
/** @type {string} */
const address = await new Promise((found) => {
  createInterface({ input: server.stdout }).on('line', (line) => {
    const match = /(http:\/\/\S+?)\/?$/.exec(line);
    if (match?.[1]) found(match[1]);
  });
});
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

/**
 * @param {string} name @param {string} path
 * @param {{ theme?: string, width?: number, ready?: boolean, before?: (page: import('@playwright/test').Page) => Promise<unknown> }} [options]
 */
async function shoot(name, path, { theme = 'day', width = 1280, before, ready = true } = {}) {
  if (ONLY.length > 0 && !ONLY.includes(name)) return;
  const page = await browser.newPage({ viewport: { width, height: 800 } });
  await page.addInitScript((value) => localStorage.setItem('theme', value), theme);
  page.setDefaultTimeout(900_000);
  await page.goto(`${address}${path}`);
  // Where versions are shown, until they are made.
  if (ready)
    await page.waitForFunction(() => {
      const bar = document.querySelector('header [role="progressbar"]');
      return bar !== null && bar.getAttribute('aria-valuenow') === bar.getAttribute('aria-valuemax');
    });
  // A screen comes piece by piece.
  await page.waitForFunction(() => !document.body.innerText.includes('Opening…'));
  await before?.(page);
  // Lazy ones that are in view as well; of those further down nothing is waited for.
  await page.waitForFunction(() =>
    [...document.images].every((img) => {
      const { width, top, bottom } = img.getBoundingClientRect();
      const isInView = width > 0 && bottom > 0 && top < document.documentElement.clientHeight;
      return img.complete || (img.loading === 'lazy' && !isInView);
    }),
  );
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
  await page.close();
}

/** The demo's site gets a second language, and its home a title in it: as an editor writes it. */
async function writeGerman() {
  const { site: ofHome, set } = /** @type {any} */ (
    await (await fetch(`${address}/api/sets/${home}`)).json()
  );
  const response = await fetch(`${address}/api/sets/${home}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      label: 'German',
      commands: [
        { kind: 'site', change: { languages: ['en', 'de'] } },
        { kind: 'set', change: { page: { ...set.page, others: { de: { title: 'Töpferei Gullmoor' } } } } },
      ],
      seen: { photos: {}, set: set.version, site: ofHome.version },
      ...{ token: randomUUID(), window: 'screenshots', since: 0 },
    }),
  });
  if (!response.ok) throw new Error(await response.text());
}

/** The third row has its weights. @param {import('@playwright/test').Page} page */
const weightsShown = (page) => page.getByRole('row').nth(3).getByText(/\d kB/).first().waitFor();
/** The third row has its pictures. @param {import('@playwright/test').Page} page */
const picturesShown = (page) => page.getByRole('row').nth(3).locator('img').first().waitFor();

await shoot('first-run', '/', {
  ready: false,
  before: (page) =>
    page
      .getByText(/Try it with/)
      .first()
      .waitFor(),
});
await fetch(`${address}/api/demo`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ pages: true }),
});
/** @type {{ sets: { id: number, name: string }[] }[]} */
const [site] = /** @type {any} */ (await (await fetch(`${address}/api/sites`)).json());
const home = site?.sets.find(({ name }) => name === 'Home page')?.id;
const { wholeSet } = await import('@dusky-otter/core/reading');
const { rows } = await wholeSet(async (path) => (await fetch(`${address}${path}`)).json(), 1);
const kiln = rows.find((row) => row.words.title === 'Wood kiln at dusk');
await shoot('sites', '/', { ready: false, before: (page) => page.getByText('Home page').first().waitFor() });
await shoot('worktable', '/sets/1/gather');
await shoot('frame-bench', `/sets/1/frame/${kiln?.id}`);
await shoot('weigh', '/sets/1/weigh', { before: weightsShown });
await shoot('frame', '/sets/1/frame', { before: picturesShown });
await shoot('arrange', '/sets/1/arrange', {
  before: (page) => page.locator('[data-at] img').nth(8).waitFor(),
});
await shoot('weigh-bench', `/sets/1/weigh/${kiln?.id}`, {
  // Every point of every format is measured.
  before: (page) => page.getByRole('row', { name: /^JPEG 93/ }).waitFor(),
});
await shoot('rules', '/sets/1/rules', {
  before: async (page) => {
    await page.getByRole('radio', { name: /^lean/ }).check();
    await page.getByText(/Measured on/).waitFor();
  },
});
await shoot('limit', '/sets/1/limit', {
  before: (page) => page.getByText(/pictures change/).waitFor(),
});
await shoot('rehearse', '/sets/1/rehearse', {
  before: (page) =>
    page
      .frameLocator('iframe')
      .locator('img')
      .first()
      .evaluate((img) => /** @type {HTMLImageElement} */ (img).decode()),
});
await shoot('download', '/sets/1/hand-over', {
  before: async (page) => {
    await page.getByRole('button', { name: 'Download the files' }).click();
    await page.getByText(/photos in \d+ files, /).waitFor();
  },
});
await shoot('places', '/sets/1/places', {
  before: (page) => page.locator('[data-place="hero"]').click(),
});
await shoot('measure', '/sets/1/measure', {
  before: async (page) => {
    await page.getByRole('button', { name: 'Try Gullmoor’s site' }).click();
    await page
      .frameLocator('iframe[title^="The page in a window of 390"]')
      .locator('#dusky-marks b')
      .first()
      .waitFor({ state: 'attached' });
  },
});
const guide = rows.find((row) => row.fileName === 'firing-guide.png');
await shoot('describe-bench', `/sets/1/describe/${guide?.id}`, {
  // Words in the picture have been looked for: once nothing is left to be made.
  before: (page) => page.getByText('The picture shows:').waitFor(),
});

const inProof = (/** @type {import('@playwright/test').Page} */ page) =>
  page.frameLocator('iframe[aria-hidden="false"]').locator('img').first().waitFor();
await shoot('arrange-bench', `/sets/${home}/arrange/welcome`, {
  before: async (page) => {
    await page.getByText(/: contrast/).waitFor();
    await inProof(page);
  },
});
await shoot('page-bench', `/sets/${home}/page`, { before: inProof });
if (ONLY.length === 0 || ONLY.includes('texts')) await writeGerman();
await shoot('texts', `/sets/${home}/texts`, {
  before: (page) => page.getByRole('textbox', { name: 'German' }).first().waitFor(),
});
await shoot('demo-home', `/preview/${home}/`, { ready: false });

await browser.close();
server.kill('SIGTERM');
await new Promise((done) => server.once('exit', done));
await database.stop();
rmSync(folder, { recursive: true, force: true });
