// The Arrange stop by place: photos are put in, moved, ordered and taken out, by the pointer and by keys; what the page
// does not show is not made.
import type { Locator, Page } from '@playwright/test';
import { allMade, axeFindings, expect, FIRST_FIVE, keepFew, saved, test, trayOf } from './application.ts';

const boardOf = (page: Page, place: string) =>
  page.getByRole('listbox', { name: `Photos in ${place}` }).getByRole('option');
const named = async (photos: Locator): Promise<string[]> =>
  photos.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? ''));
const [BAY, VASE, SHELF, PLATE, KILN] = [
  ...(['Bay at dusk', 'GM_0418.JPG', 'Drying shelf', 'Plate on slate', 'Wood kiln at dusk'] as const),
];

/** Drags something over another thing, and lets it go left of its middle. */
async function dragBefore(page: Page, from: Locator, to: Locator): Promise<void> {
  await from.scrollIntoViewIfNeeded();
  const [start, end] = [(await from.boundingBox())!, (await to.boundingBox())!];
  await page.mouse.move(start.x + start.width / 2, start.y + start.height / 2);
  await page.mouse.down();
  await page.mouse.move(start.x + start.width / 2 + 12, start.y + start.height / 2 + 4, { steps: 3 });
  await page.mouse.move(end.x + end.width / 4, end.y + end.height / 2, { steps: 8 });
  await page.mouse.up();
}

test.beforeEach(async ({ page, server, setId }) => {
  await keepFew(server, setId, FIRST_FIVE);
  await page.goto(`${server.address}/sets/${setId}/arrange`);
  await expect(boardOf(page, 'Text column').first()).toBeVisible();
});

test('photos go from place to place by hand, several at once, and back', async ({ page }) => {
  const [column, hero] = [boardOf(page, 'Text column'), boardOf(page, 'Full-width hero')];
  await expect.poll(() => named(column)).toEqual([VASE, SHELF, PLATE]);
  await expect.poll(() => named(hero)).toEqual([BAY, KILN]);

  // Two that are picked go along with the one that is taken.
  await column.nth(1).click();
  await column.nth(2).click({ modifiers: ['Control'] });
  await expect(column.nth(2)).toHaveAttribute('aria-selected', 'true');
  await dragBefore(page, column.nth(1), hero.nth(1));
  await expect.poll(() => named(hero)).toEqual([BAY, SHELF, PLATE, KILN]);
  await expect.poll(() => named(column)).toEqual([VASE]);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect.poll(() => named(hero)).toEqual([BAY, KILN]);
  await expect.poll(() => named(column)).toEqual([VASE, SHELF, PLATE]);

  // One from beside the places comes in, and stands where it stood, too.
  await dragBefore(page, trayOf(page).nth(4), column.first());
  await expect.poll(() => named(column)).toContain(KILN);
  await expect.poll(() => named(hero)).toEqual([BAY, KILN]);
  await expect(trayOf(page).nth(4)).toHaveAccessibleName(`${KILN}, in 3 places`);
  // Let go beside them it is out of that place alone.
  await dragBefore(page, column.nth(3), trayOf(page).first());
  await expect.poll(() => named(column)).toEqual([VASE, SHELF, PLATE]);
  await expect.poll(() => named(hero)).toEqual([BAY, KILN]);
});

test('the same by keys alone', async ({ page }) => {
  const [column, hero] = [boardOf(page, 'Text column'), boardOf(page, 'Full-width hero')];
  await column.first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(column.nth(1)).toBeFocused();
  // A step to the front of the row: the order of the set, which a plain place shows.
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(() => named(column)).toEqual([SHELF, VASE, PLATE]);
  await expect(column.first()).toBeFocused();
  // Over to the row above, and the focus comes along.
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => named(hero)).toEqual([BAY, SHELF, KILN]);
  await expect(hero.nth(1)).toBeFocused();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await expect(page.getByRole('toolbar', { name: '2 picked' })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect.poll(() => named(hero)).toEqual([BAY]);
  await expect(
    page.getByRole('status').filter({ hasText: '2 photos taken out of Full-width hero' }),
  ).toBeAttached();
  await expect(hero.first()).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/frame\/\d+$/);
});

test('what waits for a place is said, and placed at once', async ({ page }) => {
  const column = boardOf(page, 'Text column');
  const grid = boardOf(page, 'Square thumbnail grid');
  for (const board of [column, grid]) {
    await board
      .filter({ hasNot: page.locator('x') })
      .first()
      .focus();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Delete');
    await expect(board).toHaveCount(0);
  }
  const waiting = page.getByRole('listbox', { name: 'Photos without a place' }).getByRole('option');
  await expect
    .poll(() => named(waiting))
    .toEqual([VASE, SHELF, PLATE].map((name) => `${name}, no place yet`));
  await page.getByRole('button', { name: 'Place the 3 that wait' }).click();
  await page.getByRole('menuitem', { name: /^Square thumbnail grid/ }).click();
  await expect.poll(() => named(grid)).toEqual([VASE, SHELF, PLATE]);
  await expect(waiting).toHaveCount(0);
});

test('a place that is taken off the page wants no files, keeps its photos, and comes back', async ({
  page,
  server,
  setId,
}) => {
  await allMade(page);
  const wanted = async () => (await server.state(setId)).preparation.wanted;
  const before = await wanted();
  const shelf = page.getByRole('region', { name: 'Text column' });
  await shelf.getByRole('button', { name: 'More for Text column' }).click();
  await page.getByRole('menuitem', { name: 'Take it off the page' }).click();
  await expect(shelf).toContainText('3 photos, seen by nobody');
  await saved(page);
  await expect.poll(wanted).toBeLessThan(before);
  // Nothing of it goes out.
  const manifest = (await (await fetch(`${server.address}/preview/${setId}/manifest.json`)).json()) as {
    photos: { slots: string[] }[];
  };
  expect(manifest.photos.flatMap(({ slots }) => slots)).not.toContain('column');
  await shelf.getByRole('button', { name: 'More for Text column' }).click();
  await page.getByRole('menuitem', { name: 'Put it onto the page' }).click();
  await expect(shelf).toContainText('3 photos');
  await expect(shelf).not.toContainText('seen by nobody');
  await expect.poll(wanted).toBe(before);
});

test('what is put into a place that the page does not show puts the place onto the page', async ({
  page,
  server,
  setId,
}) => {
  // A page that is kept, and not one that follows.
  await page.getByRole('button', { name: 'More for Square thumbnail grid' }).click();
  await page.getByRole('menuitem', { name: 'Take it off the page' }).click();
  await saved(page);
  await trayOf(page).first().click();
  await page.getByRole('button', { name: 'Put into…' }).click();
  await page.getByRole('menuitem', { name: /^Viewer.*comes onto the page$/ }).click();
  await expect(page.getByRole('region', { name: 'Viewer' })).toContainText('1 photo');
  await saved(page);
  const shown = async () =>
    (await server.state(setId)).set.page!.parts.map((part) => (part.kind === 'place' ? part.slot : ''));
  expect(await shown()).toContain('viewer');
  await page.keyboard.press('Control+z');
  await expect.poll(shown).not.toContain('viewer');
});

test('axe finds nothing, and nothing is wider than the window', async ({ page }) => {
  await boardOf(page, 'Text column').first().click();
  for (const width of [1280, 640, 390]) {
    await page.setViewportSize({ width, height: 800 });
    await expect(page.getByRole('toolbar', { name: '1 picked' })).toBeVisible();
    expect(await axeFindings(page), `${width}`).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
});
