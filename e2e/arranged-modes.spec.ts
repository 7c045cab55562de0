// Arrangements for those who see pages otherwise: zoomed to 400 %, in forced colours, on paper; and films that nobody loads
// before they are asked for.
import { expect, test, type Page } from '@playwright/test';
import { axeFindings } from './application.ts';
import { OPTIONS, startSpecimen, type Specimen } from './specimen.ts';

let specimen: Specimen;
test.beforeAll(async () => {
  specimen = await startSpecimen();
});
test.afterAll(() => specimen.close());

const address = (query: Record<string, string>) => `${specimen.origin}/?${new URLSearchParams(query)}`;
const NAMES = Object.keys(OPTIONS);

/** Whether every control of ours lies inside the window's width once it is brought into view. */
const reachable = (page: Page): Promise<string[]> =>
  page.locator('.ours :is(a, button, summary)').evaluateAll((all) =>
    all.flatMap((element) => {
      if (!element.checkVisibility({ visibilityProperty: true })) return [];
      element.scrollIntoView({ block: 'center', inline: 'center' });
      const { left, right, width } = element.getBoundingClientRect();
      const inside = width > 0 && left >= -1 && right <= innerWidth + 1;
      return inside
        ? []
        : [`${element.tagName} ${element.getAttribute('class')} ${element.textContent.trim().slice(0, 30)}`];
    }),
  );

test('at 400 % of a window of 1280 px nothing is cut off, and the page scrolls one way', async ({ page }) => {
  // WCAG 1.4.10: 1280 px at 400 % are 320 CSS px.
  await page.setViewportSize({ width: 320, height: 256 });
  for (const name of NAMES) {
    await page.goto(address({ names: name }));
    expect(await page.evaluate(() => document.documentElement.scrollWidth), name).toBeLessThanOrEqual(320);
    expect(await reachable(page), name).toEqual([]);
  }
  await page.goto(address({ names: 'grid' }));
  await page.locator('.dusky-grid a').first().click();
  const viewer = page.getByRole('dialog');
  for (const name of ['Close', 'Next picture', 'Previous picture'])
    await expect(viewer.getByRole('button', { name })).toBeInViewport({ ratio: 1 });
});

test('in forced colours everything that is pressed has an edge, and words over pictures a ground', async ({
  browser,
}) => {
  const context = await browser.newContext({
    forcedColors: 'active',
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  for (const name of ['fade', 'worded', 'paged', 'cover', 'strip']) {
    await page.goto(address({ names: name }));
    const bare = await page.locator('.ours :is(button, .dusky-pages a, .dusky-more)').evaluateAll((all) =>
      all
        .filter((element) => element.checkVisibility({ visibilityProperty: true }))
        .filter((element) => {
          const { borderTopWidth, borderTopStyle } = getComputedStyle(element);
          const mark = element.classList.contains('dusky-mark');
          return !mark && (borderTopStyle === 'none' || parseFloat(borderTopWidth) < 1);
        })
        .map((element) => element.getAttribute('class')),
    );
    expect(bare, name).toEqual([]);
    expect(await axeFindings(page), name).toEqual([]);
  }
  await page.goto(address({ names: 'worded' }));
  const words = page.locator('.dusky-shown figcaption');
  const [ground, ink] = await words.evaluate((element) => {
    const { backgroundColor, color } = getComputedStyle(element);
    return [backgroundColor, color];
  });
  expect(ground).not.toBe('rgba(0, 0, 0, 0)');
  expect(ground).not.toBe(ink);
  await context.close();
});

test('on paper all pictures of a list are there, and nothing that can only be pressed', async ({ page }) => {
  for (const name of NAMES) {
    await page.goto(address({ names: name }));
    await page.emulateMedia({ media: 'print' });
    const seen = page.locator('.ours :is(button, .dusky-pages, .dusky-poster)');
    expect(
      await seen.evaluateAll((all) => all.filter((element) => element.checkVisibility()).length),
      name,
    ).toBe(0);
    // What is put over a picture on a screen can be read beside or over it on paper.
    for (const caption of await page.locator('.ours .dusky-over figcaption').all())
      await expect(caption).toHaveCSS('opacity', '1');
    await page.emulateMedia({ media: 'screen' });
  }
});

test('with scripts truly off every picture can be reached, at every width', async ({ browser }) => {
  for (const width of [320, 390, 820, 1280, 1920]) {
    const context = await browser.newContext({ javaScriptEnabled: false, viewport: { width, height: 800 } });
    const page = await context.newPage();
    for (const name of NAMES) {
      await page.goto(address({ names: name }));
      const ours = page.locator('.ours');
      await expect(ours.locator('img').first(), `${name} at ${width}`).toBeVisible();
      const options = OPTIONS[name]!;
      // A link to each picture, or all of them in a list or a row that scrolls.
      const all = 'perPage' in options && options.perPage !== null ? options.perPage : 7;
      const count = options.kind === 'figure' || options.kind === 'zoom' ? 1 : all;
      const reached =
        options.kind === 'cover'
          ? ours.locator('a[data-dusky-open]')
          : ours.locator(':is(.dusky-cells > li, .dusky-slides > *, .dusky-set > figure) img');
      await expect(reached, `${name} at ${width}`).toHaveCount(count);
    }
    await context.close();
  }
});

test('a film takes its poster’s place when it is asked for, and nothing of it is loaded before', async ({
  page,
}) => {
  const asked: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('film.webm')) asked.push(request.url());
  });
  await page.goto(address({ names: 'grid' }));
  // A short film of this page's own making.
  const film = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [96, 64];
    const context = canvas.getContext('2d')!;
    const recorder = new MediaRecorder(canvas.captureStream(20), { mimeType: 'video/webm' });
    const parts: Blob[] = [];
    recorder.ondataavailable = ({ data }) => parts.push(data);
    const done = new Promise((ended) => (recorder.onstop = ended));
    recorder.start();
    for (let n = 0; n < 12; n++) {
      context.fillStyle = `hsl(${n * 30} 80% 50%)`;
      context.fillRect(0, 0, 96, 64);
      await new Promise((next) => requestAnimationFrame(next));
    }
    recorder.stop();
    await done;
    return [...new Uint8Array(await new Blob(parts).arrayBuffer())];
  });
  expect(film.length).toBeGreaterThan(200);
  await page.route('**/film.webm', (route) =>
    route.fulfill({ body: Buffer.from(film), contentType: 'video/webm' }),
  );
  await page.route('**/film.*.vtt', (route) =>
    route.fulfill({
      body: 'WEBVTT\n\n00:00.000 --> 00:05.000\nThe plate is turned.\n',
      contentType: 'text/vtt',
    }),
  );
  await page.goto(address({ names: 'diary' }));
  const poster = page.getByRole('link', { name: /Play the film: Plate on slate/ });
  await poster.scrollIntoViewIfNeeded();
  const before = (await poster.locator('img').boundingBox())!;
  expect(asked).toEqual([]);
  await poster.focus();
  await page.keyboard.press('Enter');
  const player = page.locator('.ours video');
  await expect(player).toBeFocused();
  await expect.poll(() => player.evaluate((video: HTMLVideoElement) => video.readyState)).toBeGreaterThan(1);
  expect(asked.length).toBeGreaterThan(0);
  // Its title names it; its captions are shown in the page's language, and can be had in the other.
  await expect(player).toHaveAttribute('aria-label', 'Plate on slate');
  const tracks = () =>
    player.evaluate((video: HTMLVideoElement) =>
      [...video.textTracks].map(({ kind, language, label, mode, cues }) => [
        kind,
        language,
        label,
        mode,
        cues?.length,
      ]),
    );
  await expect.poll(tracks).toEqual([
    ['captions', 'en', 'English', 'showing', 1],
    ['captions', 'de', 'Deutsch', 'disabled', undefined],
  ]);
  const now = (await player.boundingBox())!;
  expect(Math.abs(now.width - before.width) + Math.abs(now.height - before.height)).toBeLessThan(2);
  expect(await axeFindings(page)).toEqual([]);
});

/** The largest distance between two layouts, CSS px; none where they are of other things. */
const apart = (a: number[][], b: number[][]): number =>
  a.length === b.length ? Math.max(...a.flat().map((value, n) => Math.abs(value - b.flat()[n]!))) : Infinity;

/** Where every picture and item stands. */
const layoutOf = (page: Page): Promise<number[][]> =>
  page.locator('.ours :is(li, figure, img, button)').evaluateAll((all) =>
    all
      .filter((element) => element.checkVisibility())
      .map((element) => {
        const { left, top, width, height } = element.getBoundingClientRect();
        return [left, top + scrollY, width, height];
      }),
  );

test('a page that allows no styles and scripts in it looks the same, and its scripts run', async ({
  page,
}) => {
  const refused: string[] = [];
  page.on('console', (message) => {
    if (/Content Security Policy/.test(message.text())) refused.push(message.text());
  });
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    for (const name of ['rows', 'matted', 'over', 'fade', 'worded', 'strip', 'cover', 'mat']) {
      await page.goto(address({ names: name }));
      const plain = await layoutOf(page);
      expect(plain.length, name).toBeGreaterThan(1);
      await page.goto(address({ names: name, strict: '1' }));
      // A file that has come may be a fraction of a pixel higher than was reserved, and those add up down the page.
      await expect
        .poll(async () => apart(await layoutOf(page), plain), `${name} at ${width}`)
        .toBeLessThanOrEqual(2);
    }
  }
  expect(refused).toEqual([]);
  await page.goto(address({ names: 'rows', strict: '1' }));
  await page.locator('.dusky-rows a').first().click();
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(refused).toEqual([]);
});
