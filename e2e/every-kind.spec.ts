// One page that holds every kind of arrangement with its main options, in three languages, one of them from right to left:
// valid, clean, never wider than its window, and the same however it comes into a page.
import { chromium, expect, test, type Page } from '@playwright/test';
import { HtmlValidate } from 'html-validate';
import config from '../playwright.config.ts';
import { axeFindings } from './application.ts';
import { HOSTS, OPTIONS, startSpecimen, type Specimen } from './specimen.ts';

const LANGUAGES = [
  { lang: 'en', dir: 'ltr' },
  { lang: 'de', dir: 'ltr' },
  { lang: 'ar', dir: 'rtl' },
];
const WINDOWS = [320, 390, 820, 1280, 1920];
const names = Object.keys(OPTIONS).join();

let specimen: Specimen;
test.beforeAll(async () => {
  specimen = await startSpecimen();
});
test.afterAll(() => specimen.close());

const address = (query: Record<string, string>) => `${specimen.origin}/?${new URLSearchParams(query)}`;

/** Whether one of the page's viewers opens, what it shows, and that it closes. */
async function looksLarge(page: Page, closed: () => Promise<unknown> = async () => undefined): Promise<void> {
  const before = page.url();
  await page.locator('.dusky-grid a[data-dusky-open]').first().click();
  const viewer = page.getByRole('dialog');
  await viewer.locator('img').evaluate((img: HTMLImageElement) => img.decode());
  await closed();
  await page.keyboard.press('Escape');
  await expect(viewer).toHaveCount(0);
  // Closing goes back, and a page that is still going back drops where it is sent next.
  await expect(page).toHaveURL(before);
}

/** What a reader can press, and where every picture stands. */
const found = (page: Page) =>
  page.locator('.ours').evaluate((ours) => ({
    buttons: ours.querySelectorAll('button').length,
    pictures: [...ours.querySelectorAll('img')]
      .filter((img) => img.checkVisibility())
      .map((img) => {
        const { left, width, height } = img.getBoundingClientRect();
        return [left, width, height].map(Math.round).join();
      }),
  }));

for (const { lang, dir } of LANGUAGES)
  test.describe(`every kind, ${lang}`, () => {
    test.use({ contextOptions: { reducedMotion: 'reduce' } });
    const query = { names, lang, dir };

    test('is valid, and clean with the viewer open and closed', async ({ page }) => {
      const html = await (await fetch(address({ ...query, strict: '1' }))).text();
      const { results } = await new HtmlValidate({
        extends: ['html-validate:standard'],
        rules: {
          // The specimen's own head leaves out what HTML allows to be left out.
          ...{ 'no-implicit-close': 'off', 'no-implicit-button-type': 'off' },
        },
      }).validateString(html);
      expect(
        results.flatMap(({ messages }) => messages.map((one) => `${one.ruleId}: ${one.message}`)),
      ).toEqual([]);
      for (const width of lang === 'en' ? [390, 1280] : [390]) {
        await page.setViewportSize({ width, height: 800 });
        await page.goto(address(query));
        expect(await axeFindings(page), `${width}`).toEqual([]);
        await looksLarge(page, async () => expect(await axeFindings(page), `viewer, ${width}`).toEqual([]));
      }
    });

    test('is no wider than what scroll bars leave of its window, with and without scripts', async () => {
      const { executablePath, args = [] } = config.use!.launchOptions!;
      const ignoreDefaultArgs = ['--hide-scrollbars'];
      const browser = await chromium.launch({ executablePath: executablePath!, args, ignoreDefaultArgs });
      try {
        // 320 px are 1280 px at 400 %.
        for (const width of WINDOWS)
          for (const javaScriptEnabled of [true, false]) {
            const context = await browser.newContext({ viewport: { width, height: 700 }, javaScriptEnabled });
            const page = await context.newPage();
            await page.goto(address(query), { waitUntil: 'domcontentloaded' });
            const { room, wide } = await page.evaluate(() => ({
              room: innerWidth - document.documentElement.clientWidth,
              wide: document.documentElement.scrollWidth - document.documentElement.clientWidth,
            }));
            expect([width, javaScriptEnabled, room, wide]).toEqual([width, javaScriptEnabled, 15, 0]);
            await context.close();
          }
      } finally {
        await browser.close();
      }
    });

    test('is the same as first load, put in later, and where nothing within the page is allowed', async ({
      page,
    }) => {
      await page.goto(address(query));
      const first = await found(page);
      expect(first.pictures.length).toBeGreaterThan(60);
      expect(first.buttons).toBeGreaterThan(10);
      await page.goto(address({ ...query, strict: '1' }));
      await expect.poll(() => found(page)).toEqual(first);
      await looksLarge(page);
      // As a page that comes by script: its markup is taken out, and put in anew.
      await page.goto(address(query));
      await page.evaluate(async (same) => {
        const html = await (await fetch(same)).text();
        const ours = new DOMParser().parseFromString(html, 'text/html').querySelector('.ours')!;
        document.querySelector('.ours')!.replaceChildren();
        await new Promise((done) => setTimeout(done));
        document.querySelector('.ours')!.append(...document.importNode(ours, true).childNodes);
      }, address(query));
      await expect.poll(() => found(page)).toEqual(first);
      await looksLarge(page);
    });

    test('on paper and in forced colours everything can be read, and nothing can be pressed on paper', async ({
      page,
    }) => {
      await page.goto(address(query));
      await page.emulateMedia({ media: 'print' });
      const pressed = page.locator('.ours :is(button, .dusky-pages, .dusky-poster)');
      expect(
        await pressed.evaluateAll((all) => all.filter((element) => element.checkVisibility()).length),
      ).toBe(0);
      await page.emulateMedia({ media: 'screen', forcedColors: 'active' });
      expect(await axeFindings(page)).toEqual([]);
    });

    test('in hosts of others nothing sticks out, and its viewer opens', async ({ page }) => {
      for (const host of Object.keys(HOSTS))
        for (const width of [390, 1280]) {
          await page.setViewportSize({ width, height: 800 });
          await page.goto(address({ ...query, host }));
          const out = await page.evaluate(() => {
            const { clientWidth, scrollWidth } = document.documentElement;
            return scrollWidth - clientWidth;
          });
          expect([host, width, out]).toEqual([host, width, 0]);
          if (width === 1280) await looksLarge(page);
        }
    });
  });
