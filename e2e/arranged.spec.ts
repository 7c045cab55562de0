// Arrangements in pages of others: as wide as computed, the file that was predicted, nothing that moves while it loads,
// clean for axe, with and without scripts.
import { expect, test, type Page } from '@playwright/test';
import { widthAt } from '../packages/core/src/css/index.ts';
import { ruleFor } from '../packages/core/src/slots/index.ts';
import { chosenWidth } from '../packages/core/src/source/index.ts';
import { axeFindings } from './application.ts';
import { HOSTS, itemsOf, markupOf, OPTIONS, runtimeFile, startSpecimen, type Specimen } from './specimen.ts';

const WINDOWS = [320, 390, 820, 1280, 1920];
const NAMES = Object.keys(OPTIONS);

let specimen: Specimen;
test.beforeAll(async () => {
  specimen = await startSpecimen();
});
test.afterAll(() => specimen.close());

const address = (query: Record<string, string>) => `${specimen.origin}/?${new URLSearchParams(query)}`;

/** Sum of the layout's shifts until now; what was shifted before it was asked for is counted, too. */
const shifts = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((done) => {
        let sum = 0;
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries()) sum += (entry as unknown as { value: number }).value;
        }).observe({ type: 'layout-shift', buffered: true });
        requestAnimationFrame(() => requestAnimationFrame(() => done(sum)));
      }),
  );

/** Brings every picture into view once, as a reader does, so that lazy ones are loaded. */
const scrolled = (page: Page) =>
  page.evaluate(async () => {
    for (const img of document.querySelectorAll('img')) {
      // A hero loads none that is neither shown nor next.
      if (!img.checkVisibility() || img.closest('.dusky-far')) continue;
      img.scrollIntoView();
      await img.decode();
    }
    scrollTo(0, 0);
  });

interface Seen {
  width: number;
  height: number;
  /** Of the file that was loaded, px. */
  pixels: number;
}

const seenIn = (page: Page): Promise<Seen[]> =>
  page.locator('.ours img').evaluateAll((all) =>
    (all as HTMLImageElement[])
      .filter((img) => img.checkVisibility())
      .map((img) => {
        const { width, height } = img.getBoundingClientRect();
        return { width, height, pixels: Number(/-(\d+)x\d+\.\w+$/.exec(img.currentSrc)?.[1]) };
      }),
  );

/** Kinds whose cells all are seen at once, each as wide as its place. */
const OPEN = [
  ...['grid', 'over', 'rows', 'paged', 'index', 'feed', 'diary', 'sideways'],
  ...['figure', 'beside', 'mat', 'mats', 'matted'],
];

test.describe('each kind', () => {
  test.use({ contextOptions: { reducedMotion: 'reduce' } });
  for (const name of NAMES)
    test(`${name}: widths, files, no shift, axe, with and without scripts`, async ({ page }) => {
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      for (const width of WINDOWS) {
        await page.setViewportSize({ width, height: 800 });
        for (const scripts of ['1', '0']) await lookAt(page, name, width, scripts);
      }
      expect(errors).toEqual([]);
    });
});

async function lookAt(page: Page, name: string, width: number, scripts: string): Promise<void> {
  const items = itemsOf(name);
  const said = `${name} at ${width}, scripts ${scripts}`;
  await page.goto(address({ names: name, scripts, apart: `${width}-${scripts}` }));
  await scrolled(page);
  expect(await shifts(page), said).toBe(0);
  expect(await page.evaluate(() => document.documentElement.scrollWidth), said).toBeLessThanOrEqual(width);
  const seen = await seenIn(page);
  if (OPEN.includes(name)) {
    const options = OPTIONS[name]!;
    const ofPage = 'perPage' in options ? options.perPage : null;
    const shown = options.kind === 'figure' ? 1 : (ofPage ?? items.length);
    expect(seen, said).toHaveLength(shown);
    seen.forEach(({ width: measured, height, pixels }, n) => {
      const { cell, row } = items[n]!;
      const planned = widthAt(cell.rule, width);
      expect(Math.abs(measured - planned), `${said}: picture ${n}`).toBeLessThan(1);
      const own = row.variants.filter((v) => v.slot === cell.id && v.format === 'webp');
      const ratio = own[0]!.width / own[0]!.height;
      expect(Math.abs(height - measured / ratio), `${said}: height ${n}`).toBeLessThan(1.5);
      const widths = own.map((v) => v.width);
      expect(pixels, `${said}: file ${n} of ${widths.join()}`).toBe(chosenWidth(widths, planned, 1));
    });
  }
  // Once a kind is enough for what doesn't hang on the width.
  if (width === 320 || width === 1280) expect(await axeFindings(page), said).toEqual([]);
}

test('pictures that are seen whole stand in even cells, and load what they need there', async ({ page }) => {
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(address({ names: 'whole', scripts: '1', apart: `whole-${width}` }));
    await scrolled(page);
    expect(await shifts(page)).toBe(0);
    const seen = await seenIn(page);
    seen.forEach(({ width: measured, height, pixels }, n) => {
      const { cell, row } = itemsOf('whole')[n]!;
      expect(Math.abs(measured - widthAt(cell.rule, width)), `cell ${n}`).toBeLessThan(1);
      expect(Math.abs(height - measured / 1.5), `height ${n}`).toBeLessThan(1.5);
      const own = row.variants.filter((v) => v.slot === cell.id && v.format === 'webp');
      const planned = widthAt(ruleFor(cell, 'own', row.original), width);
      expect(planned).toBeCloseTo(measured * Math.min(1, row.original.width / row.original.height / 1.5), 0);
      const widths = own.map((v) => v.width);
      expect(pixels, `file ${n} of ${widths.join()}`).toBe(chosenWidth(widths, planned, 1));
    });
    expect(await axeFindings(page)).toEqual([]);
  }
});

test('buttons of a hero have the size and the colours that were said', async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 800 });
  await page.goto(address({ names: 'slide', scripts: '1', apart: 'buttons' }));
  const button = page.locator('.dusky-controls .dusky-on');
  await expect(button).toHaveCSS('width', '56px');
  await expect(button).toHaveCSS('color', 'rgb(0, 0, 0)');
});

test('a hero has another shape in narrow windows, and its own files there', async ({ page }) => {
  for (const [width, shape] of [
    [390, '4:3'],
    [820, '2:1'],
  ] as const) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(address({ names: 'worded', scripts: '1', apart: String(width) }));
    await scrolled(page);
    expect(await shifts(page)).toBe(0);
    const [first] = await seenIn(page);
    const [across, down] = shape.split(':').map(Number);
    expect(first!.width / first!.height).toBeCloseTo(across! / down!, 1);
    const { cell, row } = itemsOf('worded')[0]!;
    const own = row.variants.filter((v) => v.format === 'webp' && v.shape === shape);
    const widths = own.map((v) => v.width);
    expect(first!.pixels).toBe(chosenWidth(widths, widthAt(cell.rule, width), 1));
  }
});

test('scripts that come late move nothing', async ({ page }) => {
  for (const name of ['fade', 'slide', 'worded', 'diary', 'grid', 'strip', 'zoom', 'cover']) {
    await page.setViewportSize({ width: 390, height: 664 });
    await page.goto(address({ names: name, scripts: '0', first: '1' }));
    await page
      .locator('.ours img')
      .first()
      .evaluate((img) => (img as HTMLImageElement).decode());
    for (const feature of ['viewer', 'rotating', 'strip', 'zoom', 'film'])
      await page.addScriptTag({ content: runtimeFile(`${feature}.js`) });
    expect(await shifts(page), name).toBe(0);
  }
});

for (const host of Object.keys(HOSTS).filter((name) => name !== 'plain')) {
  test(`inside a page of others (${host}), twice: as wide as computed, and nothing of theirs changes`, async ({
    page,
  }) => {
    for (const width of [390, 1280]) {
      await page.setViewportSize({ width, height: 800 });
      const theirs = async (names: string) => {
        await page.goto(address({ names, host, ...(names === NAMES.join() && { twice: '1' }) }));
        return page.evaluate(() =>
          [...document.querySelectorAll('.theirs')].slice(0, 2).map((element) => {
            const style = getComputedStyle(element);
            return [...style].map((name) => [name, style.getPropertyValue(name)].join(': ')).join('\n');
          }),
        );
      };
      const alone = await theirs('figure');
      expect(await theirs(NAMES.join())).toEqual(alone);
      for (const name of ['grid', 'rows', 'feed']) {
        await page.goto(address({ names: name, host, twice: '1' }));
        await scrolled(page);
        const items = itemsOf(name);
        const seen = await seenIn(page);
        expect(seen).toHaveLength(2 * items.length);
        // Others' columns may be narrower than the page: what is compared are the parts of it.
        const own = await page
          .locator('.dusky-set')
          .first()
          .evaluate((set) => set.clientWidth);
        seen.forEach(({ width: measured, height }, n) => {
          const { cell, row } = items[n % items.length]!;
          const said = `${host}, ${name} at ${width}: picture ${n}`;
          if (
            Math.abs(
              own -
                widthAt(
                  [
                    { from: 0, vw: 1, px: -32 },
                    { from: 1172, vw: 0, px: 1140 },
                  ],
                  width,
                ),
            ) < 0.5
          )
            expect(Math.abs(measured - widthAt(cell.rule, width)), said).toBeLessThan(1);
          const variant = row.variants.find((v) => v.slot === cell.id)!;
          expect(Math.abs(height - (measured * variant.height) / variant.width), said).toBeLessThan(1.5);
          expect(measured, said).toBeLessThanOrEqual(own);
        });
      }
    }
  });
}

test('everything that is used is at most 4 kB of script and 4 kB of styles, gzipped', async () => {
  const { gzipSync } = await import('node:zlib');
  const size = (files: string[]) => gzipSync(files.map(runtimeFile).join('\n'), { level: 9 }).length;
  const scripts = size(['viewer.js', 'strip.js', 'rotating.js', 'zoom.js']);
  const styles = size(
    ['set', 'grid', 'rows', 'figure', 'feed', 'strip', 'rotating', 'zoom', 'viewer'].map(
      (name) => `${name}.css`,
    ),
  );
  expect(scripts).toBeLessThanOrEqual(4096);
  expect(styles).toBeLessThanOrEqual(4096);
  expect(scripts).toBeGreaterThan(500);
});

test('markup has one id, its own, and says nothing in the tool’s words', () => {
  for (const name of NAMES) {
    const markup = markupOf(name);
    expect(markup.match(/\sid="[^"]*"/g)).toEqual([` id="dusky-${name}"`]);
    expect(markup).not.toMatch(/ style="[^"]*position/);
  }
});
