// Scroll bars that take room: nothing of a page is wider than what they leave, in both designs and within the columns of
// other pages.
import { chromium, expect, test, type Browser } from '@playwright/test';
import { optionsFor, slotsOfArrangement } from '../packages/core/src/arrange/index.ts';
import type { Arrangement, SetPage } from '../packages/core/src/contract/index.ts';
import { arrangementRules, pageMarkup, pageStyles, runtimeFor } from '../packages/core/src/markup/index.ts';
import { CONTEXT, sampleRow } from '../packages/core/src/testing/sample.ts';
import config from '../playwright.config.ts';
import { runtimeFile } from './specimen.ts';
import { openIn } from '../packages/core/src/plan/index.ts';

const WINDOWS = [320, 390, 820, 1280, 1920];

/** As wide as the window, and as a window's column. */
const ARRANGEMENTS: readonly Arrangement[] = (['rotating', 'grid', 'rows', 'feed'] as const).flatMap((kind) =>
  [0, -32].map((px) => ({
    ...{ shortName: `${kind}${px < 0 ? '-column' : ''}`, title: `The ${kind}`, options: optionsFor(kind) },
    container: [{ from: 0, vw: 1, px }],
  })),
);
const cells = ARRANGEMENTS.map((one) => slotsOfArrangement(one).cell);
const slots = [...CONTEXT.slots, ...cells];
const PLACES = ['hero', 'column', 'grid'];

function pageOf(design: SetPage['design']): string {
  const standing = [...PLACES, ...cells.map(({ id }) => id)];
  const context = { ...CONTEXT, slots };
  const rows = [1, 2, 3, 4].map((id) =>
    sampleRow(standing, { id }, { width: 4200, height: 1900 }, 900, context),
  );
  const page: SetPage = {
    ...{ title: 'Pots', description: '', folder: 'pots', home: null, menu: true },
    ...{ design, tone: 'light', template: '' },
    parts: standing.map((slot) => ({ kind: 'place', slot, titled: true })),
  };
  const html = pageMarkup({ page, rows, setPlaces: openIn(...standing), context, urlOf: () => 'data:,' });
  const used = runtimeFor(cells);
  const styles = [
    pageStyles({ slots }, page),
    ...used.styles.map((name) => runtimeFile(`${name}.css`)),
    ...ARRANGEMENTS.map(arrangementRules),
  ];
  return html.replace(/<link rel="stylesheet"[^>]*>/, () => `<style>${styles.join('\n')}</style>`);
}

let browser: Browser;
test.beforeAll(async () => {
  const { executablePath, args = [] } = config.use!.launchOptions!;
  browser = await chromium.launch({
    executablePath: executablePath!,
    args,
    // Bars as on a desktop: they take 15 px of the window.
    ignoreDefaultArgs: ['--hide-scrollbars'],
  });
});
test.afterAll(() => browser.close());

for (const design of ['plain', 'wide'] as const)
  for (const width of WINDOWS)
    test(`${design} at ${width} px: no part is wider than the window`, async () => {
      const page = await browser.newPage({ viewport: { width, height: 700 } });
      await page.setContent(pageOf(design), { waitUntil: 'domcontentloaded' });
      const { room, bar, wide } = await page.evaluate(() => ({
        room: document.documentElement.clientWidth,
        bar: window.innerWidth - document.documentElement.clientWidth,
        wide: [...document.querySelectorAll('body *')]
          // What scrolls within its own box moves nothing of the page.
          .filter((element) => !element.parentElement!.closest('.dusky-slides'))
          .filter((element) => {
            const { left, right } = element.getBoundingClientRect();
            return right > document.documentElement.clientWidth + 0.5 || left < -0.5;
          })
          .map(({ tagName, className }) => `${tagName}.${className}`),
      }));
      // Otherwise nothing is shown by it.
      expect(bar).toBe(15);
      expect(room).toBe(width - 15);
      expect(wide).toEqual([]);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(room);
      await page.close();
    });
