// The viewer in the hands of a reader: by mouse, keyboard and finger, right to left, by its address and by Back, over all
// pages of a gallery.
import { expect, test } from '@playwright/test';
import { axeFindings } from './application.ts';
import { asked, swipe } from './hands.ts';
import { startSpecimen, type Specimen } from './specimen.ts';

let specimen: Specimen;
test.beforeAll(async () => {
  specimen = await startSpecimen();
});
test.afterAll(() => specimen.close());

const address = (query: Record<string, string>) => `${specimen.origin}/?${new URLSearchParams(query)}`;

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

  test('of a gallery that offers no file opens all the same, and no link leads to one', async ({ page }) => {
    await page.goto(address({ names: 'looked' }));
    const links = page.locator('.dusky-grid a');
    const leads = () =>
      page.evaluate(() => [...document.querySelectorAll('a')].map((a) => a.getAttribute('href') ?? ''));
    expect((await leads()).filter((href) => !href.startsWith('#'))).toEqual([]);
    await links.nth(2).focus();
    await page.keyboard.press('Enter');
    const viewer = page.getByRole('dialog', { name: 'The looked of the pottery' });
    await expect(viewer.getByText('3 of 7')).toBeVisible();
    await expect(viewer.getByRole('link', { name: 'Download' })).toHaveCount(0);
    expect((await leads()).filter((href) => /\.(jpe?g|png|webp|avif)$/.test(href))).toEqual([]);
    // Without scripts a picture is a picture, and nothing that leads nowhere is reached by keyboard.
    await page.goto(address({ names: 'looked', scripts: '0' }));
    await expect(links).toHaveCount(7);
    expect(await leads()).toEqual(Array(7).fill(''));
    await page.keyboard.press('Tab');
    expect(await page.evaluate(() => document.activeElement?.tagName)).toBe('BODY');
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

  test('goes through all pictures of a gallery, on whichever page they stand', async ({ page }) => {
    await page.goto(address({ names: 'paged' }));
    await page.locator('.dusky-grid a[data-dusky-open]').nth(2).click();
    const viewer = page.getByRole('dialog');
    await expect(viewer.getByText('3 of 7')).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(page).toHaveURL(/page=2#paged-bay-at-dusk-4$/);
    await expect(viewer.getByText('4 of 7')).toBeVisible();
    await page.keyboard.press('ArrowLeft');
    await expect(viewer.getByText('3 of 7')).toBeVisible();
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowLeft');
    // Round: the last one, alone on the last page.
    await expect(viewer.getByText('7 of 7')).toBeVisible();
    await viewer.getByRole('button', { name: 'Next picture' }).click();
    await expect(viewer.getByText('1 of 7')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(viewer).toHaveCount(0);
  });

  test('is what it is in a host whose resets are all !important, too', async ({ browser }) => {
    /** What is in the viewer, as it stands: boxes, what is drawn behind and before, and words. */
    const seen = async (host: string, viewport: { width: number; height: number }) => {
      const page = await browser.newPage({ viewport });
      await page.goto(address({ names: 'grid', host, lang: 'ar', dir: 'rtl' }));
      // By its address: such a host lays something over the pictures themselves.
      const first = await page.locator('.dusky-grid a').first().getAttribute('data-dusky-open');
      await page.evaluate((id) => (location.hash = id ?? ''), first);
      const viewer = page.getByRole('dialog');
      await viewer.locator('img').evaluate((img: HTMLImageElement) => img.decode());
      const found = await viewer.evaluate((dialog) =>
        [dialog, ...dialog.querySelectorAll('*')].map((element) => {
          const { x, y, width, height } = element.getBoundingClientRect();
          const { color, backgroundColor, opacity, transform } = getComputedStyle(element);
          const sign = getComputedStyle(element, '::before').content;
          // Where a text's letters end hangs on the host's fonts.
          const isText = element.matches('strong, span, small');
          return [
            `${element.tagName}.${element.getAttribute('class') ?? ''}`,
            ...(isText ? [] : [x, y, width, height].map(Math.round)),
            ...[color, backgroundColor, opacity, transform, sign],
          ].join(' ');
        }),
      );
      await page.close();
      return found;
    };
    for (const viewport of [
      { width: 1280, height: 800 },
      { width: 390, height: 844 },
    ]) {
      const plain = await seen('plain', viewport);
      expect(plain.length).toBeGreaterThan(8);
      expect(await seen('insisting', viewport)).toEqual(plain);
    }
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
    await expect(viewer.getByRole('img', { name: /^Rote Teekanne/ })).toBeVisible();
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
