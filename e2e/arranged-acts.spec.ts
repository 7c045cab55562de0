// What arrangements do in the hands of a reader: by mouse, keyboard and finger, with less motion, right to left, and with
// scripts off.
import { expect, test, type Page } from '@playwright/test';
import { axeFindings } from './application.ts';
import { itemsOf, startSpecimen, type Specimen, runtimeFile } from './specimen.ts';

let specimen: Specimen;
test.beforeAll(async () => {
  specimen = await startSpecimen();
});
test.afterAll(() => specimen.close());

const address = (query: Record<string, string>) => `${specimen.origin}/?${new URLSearchParams(query)}`;

/** Addresses of pictures that are asked for, as they are. */
function asked(page: Page): string[] {
  const list: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('/photos/')) list.push(request.url());
  });
  return list;
}

/** A finger that goes sideways over an element. */
async function swipe(page: Page, selector: string, by: number): Promise<void> {
  const { x, y, width, height } = (await page.locator(selector).first().boundingBox())!;
  const client = await page.context().newCDPSession(page);
  const at = (left: number) => [{ x: x + width / 2 + left, y: y + height / 2 }];
  await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(-by / 2) });
  for (const part of [-0.25, 0, 0.25, 0.5])
    await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(part * by) });
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}

test.describe('the viewer', () => {
  test('opens large what was not loaded before, goes by keys, and gives the focus back', async ({ page }) => {
    const requests = asked(page);
    await page.goto(address({ names: 'grid' }));
    const links = page.locator('.dusky-grid a');
    await links.nth(1).focus();
    expect(requests.some((url) => url.includes('-large-'))).toBe(false);
    await page.keyboard.press('Enter');
    const viewer = page.getByRole('dialog', { name: 'The grid of the pottery' });
    await expect(viewer.getByText('2 of 7')).toBeVisible();
    await expect(viewer.getByRole('img', { name: 'Tall vase, seen from the window.' })).toBeVisible();
    await expect.poll(() => requests.some((url) => url.includes('2-grid-large-'))).toBe(true);
    expect(new URL(page.url()).hash).toBe('#grid-tall-vase-2');
    expect(await axeFindings(page)).toEqual([]);
    for (const [key, count] of [
      ['ArrowRight', '3 of 7'],
      ['ArrowLeft', '2 of 7'],
      ['ArrowLeft', '1 of 7'],
      ['ArrowLeft', '7 of 7'],
      ['Home', '1 of 7'],
      ['End', '7 of 7'],
    ]) {
      await page.keyboard.press(key!);
      await expect(viewer.getByText(count!)).toBeVisible();
    }
    // The focus goes round inside.
    const inside = () =>
      page.evaluate(
        () => document.activeElement?.closest('dialog') !== null || document.activeElement === document.body,
      );
    for (let press = 0; press < 9; press++) {
      await page.keyboard.press('Tab');
      expect(await inside()).toBe(true);
    }
    expect(await viewer.getByRole('link', { name: 'Download' }).getAttribute('href')).toMatch(
      /^http.*7-grid-large-.*jpe?g$/,
    );
    await page.keyboard.press('Escape');
    await expect(viewer).toHaveCount(0);
    await expect(links.nth(6)).toBeFocused();
    await expect.poll(() => new URL(page.url()).hash).toBe('');
  });

  test('is closed by Back, which leaves the page where it was; the next picture is fetched ahead, and no other', async ({
    page,
  }) => {
    const requests = asked(page);
    const larges = () => [...new Set(requests.flatMap((url) => /(\d)-grid-large-/.exec(url)?.[1] ?? []))];
    await page.goto(`${address({ names: 'grid' })}#elsewhere`);
    await page.locator('.dusky-grid a').nth(1).click();
    const viewer = page.getByRole('dialog');
    await expect(viewer.getByText('2 of 7')).toBeVisible();
    await expect.poll(larges).toEqual(['2', '3']);
    await page.keyboard.press('ArrowRight');
    await expect.poll(larges).toEqual(['2', '3', '4']);
    await page.goBack();
    await expect(viewer).toHaveCount(0);
    expect(new URL(page.url()).hash).toBe('#elsewhere');
    // Closed by its button, Back leads nowhere near the viewer again.
    await page.locator('.dusky-grid a').first().click();
    await viewer.getByRole('button', { name: 'Close' }).click();
    await expect(viewer).toHaveCount(0);
    await expect.poll(() => new URL(page.url()).hash).toBe('#elsewhere');
    expect(larges().slice(0, 3)).toEqual(['2', '3', '4']);
  });

  test('on a phone its picture is as wide as the window, and every word can be read', async ({ browser }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 800 } });
    const page = await context.newPage();
    await page.goto(`${address({ names: 'grid', host: 'reset' })}#grid-red-teapot-1`);
    const viewer = page.getByRole('dialog');
    const picture = viewer.getByRole('img');
    await expect(picture).toBeVisible();
    await expect.poll(async () => (await picture.boundingBox())?.width).toBe(390);
    await page.addStyleTag({ content: 'figcaption, small { color: #57535f } :root { --dusky-paper: #fff }' });
    expect(await axeFindings(page)).toEqual([]);
    await context.close();
  });

  test('opens by its address, plays and stops, and closes beside the picture', async ({ page }) => {
    await page.clock.install();
    await page.goto(`${address({ names: 'grid,rows' })}#rows-plate-on-slate-3`);
    const viewer = page.getByRole('dialog', { name: 'The rows of the pottery' });
    await expect(viewer.getByText('3 of 7')).toBeVisible();
    await viewer.getByRole('button', { name: 'Show one after the other' }).click();
    await page.clock.runFor(5100);
    await expect(viewer.getByText('4 of 7')).toBeVisible();
    await viewer.getByRole('button', { name: 'Stop' }).click();
    await page.clock.runFor(20_000);
    await expect(viewer.getByText('4 of 7')).toBeVisible();
    await viewer.getByRole('button', { name: 'Next picture' }).click();
    await expect(viewer.getByText('5 of 7')).toBeVisible();
    await page.mouse.click(20, 700);
    await expect(viewer).toHaveCount(0);
  });

  test('from right to left the arrows go the other way; in German it speaks German', async ({ page }) => {
    await page.goto(address({ names: 'cover', dir: 'rtl', lang: 'de' }));
    await page.locator('.dusky-cover figure a').click();
    const viewer = page.getByRole('dialog');
    await expect(viewer.getByText('1 von 7')).toBeVisible();
    await expect(viewer.getByRole('img', { name: /^Red teapot/ })).toBeVisible();
    await page.keyboard.press('ArrowLeft');
    await expect(viewer.getByText('2 von 7')).toBeVisible();
    await expect(viewer.getByRole('button', { name: 'Schließen' })).toBeVisible();
    // Where the file is not offered, nothing offers it.
    await expect(viewer.getByRole('link')).toHaveCount(0);
  });

  test('by finger, on a phone, nothing is smaller than a finger', async ({ browser }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 800 }, hasTouch: true });
    const page = await context.newPage();
    await page.goto(address({ names: 'grid' }));
    await page.locator('.dusky-grid a').first().tap();
    const viewer = page.getByRole('dialog');
    await expect(viewer.getByText('1 of 7')).toBeVisible();
    await swipe(page, '.dusky-stage', -160);
    await expect(viewer.getByText('2 of 7')).toBeVisible();
    await swipe(page, '.dusky-stage', 160);
    await expect(viewer.getByText('1 of 7')).toBeVisible();
    for (const box of await viewer
      .locator('button, a')
      .evaluateAll((all) => all.map((one) => one.getBoundingClientRect())))
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(24);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await context.close();
  });
});

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
