// By keyboard alone, from a page that was just opened: how many presses it takes to what a screen is for.
import type { Page } from '@playwright/test';
import { allMade, expect, test } from './application.ts';

/** What has the focus, by its name or what it says. */
const inHand = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const element = document.activeElement!;
    return (
      element.getAttribute('aria-label') ??
      (element as HTMLInputElement).labels?.[0]?.textContent ??
      element.textContent
    ).trim();
  });

/** Presses Tab until something is in hand. @returns how often */
async function tabsTo(page: Page, name: RegExp, most: number): Promise<number> {
  for (let presses = 0; presses <= most; presses++) {
    if (name.test(await inHand(page))) return presses;
    await page.keyboard.press('Tab');
  }
  throw new Error(`${String(name)} is further away than ${most} presses.`);
}

test('the first row is one press away, or three past the head, and the keys of rows work at once', async ({
  page,
  server,
  setId,
}) => {
  const open = async () => {
    await page.goto(`${server.address}/sets/${setId}/gather`);
    await expect(page.locator('[data-row]').first()).toBeVisible();
  };
  await open();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-row]').first()).toBeFocused();
  await open();
  await page.keyboard.press('w');
  await expect.poll(() => page.evaluate(() => document.activeElement!.tagName)).toBe('TEXTAREA');
  await open();
  // From the very beginning of the page.
  await page.evaluate(() =>
    document.body.prepend(Object.assign(document.createElement('i'), { tabIndex: 0 })),
  );
  await page.locator('body > i').focus();
  expect(await tabsTo(page, /^Skip to the work$/, 1)).toBe(1);
  await page.keyboard.press('Enter');
  expect(await inHand(page)).toMatch(/^Photos, arrow keys/);
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-row]').first()).toBeFocused();
});

test('a bench has in hand what it is for', async ({ page, server, setId }) => {
  const { rows } = await server.state(setId);
  const [first] = rows;
  await page.goto(`${server.address}/sets/${setId}/frame/${first!.id}`);
  await expect.poll(() => inHand(page)).toMatch(/^Focal point, /);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('● Focal point confirmed')).toBeVisible();
  await page.goto(`${server.address}/sets/${setId}/describe/${first!.id}`);
  await expect.poll(() => page.evaluate(() => document.activeElement!.tagName)).toBe('TEXTAREA');
  await page.goto(`${server.address}/sets/${setId}/limit`);
  await expect.poll(() => inHand(page)).toMatch(/^All pictures together, in kB/);
  await allMade(page);
  // Over its budget: the mildest way out is at hand.
  const heavy = rows.find(({ fileName }) => fileName === 'GM_0412.JPG')!;
  await page.goto(`${server.address}/sets/${setId}/weigh/${heavy.id}`);
  await expect(page.getByRole('button', { name: 'Take it' }).first()).toBeVisible();
  expect(await tabsTo(page, /^Take it$/, 8)).toBeLessThanOrEqual(8);
});
