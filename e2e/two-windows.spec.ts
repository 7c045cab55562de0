// Two browsers on one set, and on two sets that share photos: nobody's work is lost, and everybody sees it.
import type { Browser, Page, Route } from '@playwright/test';
import type { ServerProcess } from '../packages/server/src/testing/process.ts';
import { expect, openFirst, rowOf, saved, test } from './application.ts';

const altOf = (page: Page, file = 'GM_0418.JPG') => page.getByLabel(`Alt text of ${file}`);

/** Another browser, with a storage of its own. */
async function another(browser: Browser, server: ServerProcess, setId: number): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(rowOf(page, 'Bay at dusk')).toBeVisible();
  return page;
}

test.beforeEach(async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(rowOf(page, 'Bay at dusk')).toBeVisible();
});

test('what one writes, bins and moves, the other sees', async ({ page, browser, server, setId }) => {
  const other = await another(browser, server, setId);
  await altOf(page).fill('A green vase with dry grasses.');
  await saved(page);
  await expect(altOf(other)).toHaveValue('A green vase with dry grasses.');
  await rowOf(other, 'Plate on slate').getByText(/ × /).first().click();
  await other.getByRole('button', { name: 'Put into bin' }).click();
  await expect(page.getByRole('button', { name: 'All 13' })).toBeVisible();
  await expect(rowOf(page, 'Plate on slate')).toHaveCount(0);
  // Undo takes back one's own: here the text, there the bin.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(altOf(other)).toHaveValue('');
  await expect(page.getByRole('button', { name: 'All 13' })).toBeVisible();
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(rowOf(page, 'Plate on slate')).toBeVisible();
  await other.context().close();
});

test('one text in two windows: both are shown, and the choice is the editor’s', async ({
  page,
  browser,
  server,
  setId,
}) => {
  const other = await another(browser, server, setId);
  await altOf(page).focus();
  await page.keyboard.type('Mine');
  // Before it is saved, the other window is quicker.
  const quicker = async (route: Route) => {
    await altOf(other).fill('Theirs');
    await saved(other);
    await route.continue();
  };
  await page.route(`**/api/sets/${setId}/edits`, quicker, { times: 1 });
  await altOf(page).blur();
  const sheet = page.getByRole('dialog', { name: 'Changed in two windows' });
  await expect(sheet).toContainText('alt text of GM_0418.JPG');
  await expect(sheet.getByText('Mine', { exact: true })).toBeVisible();
  await expect(sheet.getByText('Theirs', { exact: true })).toBeVisible();
  // Put off, it is lost neither by a reload.
  await page.keyboard.press('Escape');
  await expect(altOf(page)).toHaveValue('Theirs');
  await page.reload();
  await expect(sheet).toBeVisible();
  await sheet.getByRole('button', { name: 'Take mine' }).click();
  await expect(altOf(page)).toHaveValue('Mine');
  await expect(altOf(other)).toHaveValue('Mine');
  // The other's undo does not take back what was chosen since.
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(other.getByText(/stays: the same was changed in another window since/)).toBeVisible();
  await expect(altOf(page)).toHaveValue('Mine');
  await other.context().close();
});

test('a text in hand does not overwrite what the other wrote meanwhile', async ({
  page,
  browser,
  server,
  setId,
}) => {
  const other = await another(browser, server, setId);
  // In the field, but nothing typed: the newer text appears, and leaving the field changes nothing.
  await altOf(page).focus();
  await altOf(other).fill('Theirs');
  await saved(other);
  await expect(altOf(page)).toHaveValue('Theirs');
  await altOf(page).blur();
  await saved(page);
  const { rows } = await server.state(setId);
  expect(rows.find(({ fileName }) => fileName === 'GM_0418.JPG')!.words.alt).toBe('Theirs');
  await other.context().close();
});

test('a photo in two sets: each sees what the other does with it', async ({
  page,
  browser,
  server,
  setId,
}) => {
  const { site, rows } = await server.state(setId);
  const post = (path: string, body: BodyInit, type = 'application/json') =>
    fetch(`${server.address}${path}`, { method: 'POST', headers: { 'content-type': type }, body });
  const made = await post(`/api/sites/${site.id}/sets`, JSON.stringify({ name: 'Second' }));
  const second = ((await made.json()) as { id: number }).id;
  await openFirst(server.address, second);
  const shared = rows.find(({ fileName }) => fileName === 'GM_0412.JPG')!;
  const { readFile } = await import('node:fs/promises');
  const bytes = await readFile(new URL('../demo/photos/GM_0412.JPG', import.meta.url));
  await post(`/api/sets/${second}/files?name=GM_0412.JPG`, new Uint8Array(bytes), 'application/octet-stream');
  const other = await (await browser.newContext()).newPage();
  await other.goto(`${server.address}/sets/${second}/gather`);
  await expect(altOf(other, 'GM_0412.JPG')).toHaveValue(shared.words.alt);
  await altOf(page, 'GM_0412.JPG').fill('Bowls, written in the first set.');
  await saved(page);
  await expect(altOf(other, 'GM_0412.JPG')).toHaveValue('Bowls, written in the first set.');
  await rowOf(other, 'Drying shelf')
    .getByLabel(/^Role of/)
    .selectOption('decorates');
  await saved(other);
  await expect(rowOf(page, 'Drying shelf').getByLabel(/^Role of/)).toHaveValue('decorative');
  await other.context().close();
});

test('leaving by Back and a reload lose nothing that was typed', async ({ page, server, setId }) => {
  // The server takes its time: nothing is saved before one leaves.
  await page.route(`**/api/sets/${setId}/edits`, (route) => route.abort());
  await page.goto(`${server.address}/`);
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await altOf(page).fill('Typed before leaving.');
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Gullmoor Pottery' }).first()).toBeVisible();
  await page.unroute(`**/api/sets/${setId}/edits`);
  await page.reload();
  await expect
    .poll(
      async () => (await server.state(setId)).rows.find((row) => row.fileName === 'GM_0418.JPG')!.words.alt,
    )
    .toBe('Typed before leaving.');
});
