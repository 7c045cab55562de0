// What arrangements do in the hands of a reader: by mouse, keyboard and finger, with less motion, right to left, and with
// scripts off.
import { expect, test, type Page } from '@playwright/test';
import { axeFindings } from './application.ts';
import { asked, swipe } from './hands.ts';
import { itemsOf, startSpecimen, type Specimen, runtimeFile } from './specimen.ts';

let specimen: Specimen;
test.beforeAll(async () => {
  specimen = await startSpecimen();
});
test.afterAll(() => specimen.close());

const address = (query: Record<string, string>) => `${specimen.origin}/?${new URLSearchParams(query)}`;

test.describe('the rotating hero', () => {
  const shown = (page: Page) => page.locator('.dusky-marks [aria-current]').getAttribute('aria-label');
  test('goes on by itself, stands still under a pointer or the focus, and stops by its button', async ({
    page,
  }) => {
    await page.clock.install();
    await page.goto(address({ names: 'fade' }));
    expect(await shown(page)).toBe('Picture 1 of 7');
    await page.clock.runFor(3100);
    expect(await shown(page)).toBe('Picture 2 of 7');
    await page.locator('.dusky-rotating').hover();
    await page.clock.runFor(20_000);
    expect(await shown(page)).toBe('Picture 2 of 7');
    await page.mouse.move(2, 2);
    await page.clock.runFor(3100);
    expect(await shown(page)).toBe('Picture 3 of 7');
    // The first thing that Tab reaches in it stops it.
    await page.keyboard.press('Tab');
    await expect(page.getByRole('button', { name: 'Stop' })).toBeFocused();
    await page.clock.runFor(20_000);
    expect(await shown(page)).toBe('Picture 3 of 7');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: 'Show one after the other' })).toBeFocused();
    await expect(page.locator('.dusky-slides')).toHaveAttribute('aria-live', 'polite');
    await page.mouse.click(2, 2);
    await page.clock.runFor(20_000);
    expect(await shown(page)).toBe('Picture 3 of 7');
    await page.getByRole('button', { name: 'Next picture' }).click();
    await page.getByRole('button', { name: 'Picture 1 of 7' }).click();
    expect(await shown(page)).toBe('Picture 1 of 7');
    // Only what is shown is heard.
    await expect(page.getByRole('img')).toHaveCount(1);
    expect(await axeFindings(page)).toEqual([]);
  });

  for (const name of ['fade', 'slide'])
    test(`${name}: loads the picture that is shown and the next one, and no other`, async ({ page }) => {
      const requests = asked(page);
      const photos = () =>
        [...new Set(requests.flatMap((url) => /photos\/(\d+)-/.exec(url)?.[1] ?? []))].sort().join();
      await page.goto(address({ names: name, first: '1' }));
      await expect.poll(photos).toBe('1,2');
      // What is not asked for by then is not asked for at all: the page has been idle.
      await page.waitForLoadState('networkidle');
      expect(photos()).toBe('1,2');
      await page.getByRole('button', { name: 'Next picture' }).click();
      await expect.poll(photos).toBe('1,2,3');
      await page.waitForLoadState('networkidle');
      expect(photos()).toBe('1,2,3');
    });

  test('fades when another is shown, not when its script comes', async ({ page }) => {
    // Styles are computed first (Web Animations 1): what begins to change has begun.
    const fading = () => page.evaluate(() => document.getAnimations().length);
    await page.goto(address({ names: 'fade', scripts: '0' }));
    await page.addScriptTag({ content: runtimeFile('rotating.js') });
    expect(await fading()).toBe(0);
    await page.getByRole('button', { name: 'Next picture' }).click();
    expect(await fading()).toBeGreaterThan(0);
  });

  test('never moves by itself where less motion is asked for', async ({ browser }) => {
    const context = await browser.newContext({ reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.clock.install();
    await page.goto(address({ names: 'fade' }));
    await page.clock.runFor(60_000);
    expect(await shown(page)).toBe('Picture 1 of 7');
    await expect(page.getByRole('button', { name: 'Show one after the other' })).toBeVisible();
    await context.close();
  });

  test('slides by finger, and has room for its controls before they are there', async ({ browser }) => {
    const context = await browser.newContext({
      viewport: { width: 390, height: 800 },
      hasTouch: true,
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    await page.goto(address({ names: 'slide' }));
    await swipe(page, '.dusky-slides', -160);
    await expect(page.locator('.dusky-marks [aria-current]')).toHaveAttribute('aria-label', 'Picture 2 of 7');
    await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0);
    for (const box of await page
      .locator('.dusky-controls button')
      .evaluateAll((all) => all.map((one) => one.getBoundingClientRect())))
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(24);
    await context.close();
  });
});

test.describe('a closer look', () => {
  test('loads the large file when it is asked for, and follows pointer and keys', async ({ page }) => {
    const requests = asked(page);
    await page.goto(address({ names: 'zoom' }));
    const link = page.locator('.dusky-zoom a');
    await expect(link.locator('img')).toHaveCount(1);
    const box = (await link.boundingBox())!;
    expect(requests.some((url) => url.includes('-large-'))).toBe(false);
    await page.mouse.move(box.x + box.width / 4, box.y + box.height / 2);
    const close = page.locator('.dusky-close');
    await expect(close).toBeVisible();
    // In the format that the browser reads, and as wide as there is one.
    const widest = itemsOf('zoom')[0]!.row.variants.filter(({ slot }) => slot.includes('large'));
    const width = Math.max(...widest.map((variant) => variant.width));
    await expect
      .poll(() => requests.filter((url) => url.includes('-large-')))
      .toEqual([expect.stringMatching(new RegExp(`-large-${width}x\\d+\\.webp$`))]);
    // What is under the pointer stays under it: a quarter of the frame is a quarter of the picture.
    const of = () => close.evaluate((img) => img.getBoundingClientRect().toJSON() as DOMRect);
    const drawn = await of();
    expect(drawn.width / box.width).toBeCloseTo(2, 2);
    expect((box.x + box.width / 4 - drawn.x) / drawn.width).toBeCloseTo(0.25, 2);
    await page.mouse.move(2, 2);
    await expect(page.locator('.dusky-zoomed')).toHaveCount(0);
    await link.focus();
    await page.keyboard.press('Enter');
    await expect(page.locator('.dusky-zoomed')).toHaveCount(1);
    const before = await of();
    await page.keyboard.press('ArrowRight');
    expect((await of()).x).toBeLessThan(before.x);
    await page.keyboard.press('Escape');
    await expect(page.locator('.dusky-zoomed')).toHaveCount(0);
  });

  test('by finger: a tap looks closely, two fingers as closely as they say', async ({ browser }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 800 }, hasTouch: true });
    const page = await context.newPage();
    await page.goto(address({ names: 'zoom' }));
    await page.locator('.dusky-zoom a').tap();
    await expect(page.locator('.dusky-zoomed')).toHaveCount(1);
    await page.locator('.dusky-zoom a').tap();
    await expect(page.locator('.dusky-zoomed')).toHaveCount(0);
    const { x, y, width, height } = (await page.locator('.dusky-zoom a').boundingBox())!;
    const client = await context.newCDPSession(page);
    const fingers = (apart: number) =>
      [-1, 1].map((side, id) => ({ x: x + width / 2 + (side * apart) / 2, y: y + height / 2, id }));
    await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: fingers(100) });
    for (const apart of [110, 130, 150])
      await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: fingers(apart) });
    // One and a half times as far apart, but for the first step, which says from where.
    await expect(page.locator('.dusky-close')).toHaveCSS('transform', /^matrix\(1\.[2-5]/);
    await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    await context.close();
  });
});

test('a filmstrip shows large what is chosen', async ({ page }) => {
  await page.goto(address({ names: 'film' }));
  const large = page.locator('.dusky-large');
  await expect(large.getByRole('img', { name: /^Red teapot/ })).toBeVisible();
  const { height } = (await page.locator('.dusky-film').boundingBox())!;
  await page.locator('.dusky-cells a').nth(2).focus();
  await page.keyboard.press('Enter');
  await expect(large.getByRole('img', { name: /^Plate on slate/ })).toBeVisible();
  await expect(page.locator('.dusky-cells a').nth(2)).toHaveAttribute('aria-current', 'true');
  expect((await page.locator('.dusky-large picture').boundingBox())!.height).toBeLessThanOrEqual(height);
});

test('with scripts off every picture can be seen large or reached', async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto(address({ names: 'grid,fade,cover' }));
  await page.locator('.dusky-grid a').nth(2).click();
  expect(page.url()).toMatch(/3-grid-large-\d+x\d+\.jpeg$/);
  await page.goBack();
  // The hero shows its first picture, and scrolls to the others by keyboard.
  await page.getByRole('group', { name: 'Pictures' }).focus();
  const second = page.getByRole('group', { name: 'Picture 2 of 7' });
  await expect(second).not.toBeInViewport();
  await page.keyboard.press('ArrowRight');
  await expect(second).toBeInViewport();
  await page.getByText('All 7 pictures').click();
  await page.getByRole('link', { name: 'Bay at dusk', exact: true }).click();
  expect(page.url()).toMatch(/4-cover-large-/);
  await context.close();
});

test('captions over pictures come with the focus as with the pointer', async ({ page }) => {
  await page.goto(address({ names: 'over' }));
  const caption = page.locator('.dusky-over figcaption').first();
  await expect(caption).toHaveCSS('opacity', '0');
  await page.locator('.dusky-over a').first().focus();
  await expect(caption).toHaveCSS('opacity', '1');
  await page.mouse.click(2, 2);
  await expect(caption).toHaveCSS('opacity', '0');
  await page.locator('.dusky-over a').first().hover();
  await expect(caption).toHaveCSS('opacity', '1');
});
