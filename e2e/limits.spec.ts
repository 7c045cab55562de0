// Rules of a site, a limit for the page, and smaller files: each says beforehand what it does, and can be taken back.
import { readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import type { Page } from '@playwright/test';
import { allMade, axeFindings, drop, expect, keepFew, openFirst, saved, test } from './application.ts';

const DEMO = resolve(import.meta.dirname, '../demo');
const KEPT = ['DSC00198.JPG', 'GM_0412.JPG', 'DSC00307.JPG', 'GM_0467.JPG', 'DSC00268.JPG'];

/** Bytes that a 390 px phone loads for the whole set; NaN while some of its files are made. */
const phoneOf = async (address: string, setId: number): Promise<number> => {
  const response = await fetch(`${address}/api/sets/${setId}/sent?viewport=390&density=2`);
  const { sent, complete } = (await response.json()) as { sent: number; complete: boolean };
  return complete ? sent : NaN;
};
/** How far the phone's bytes are from what was foretold, as a part of it. */
const missOf = async (address: string, setId: number, foretold: number): Promise<number> =>
  Math.abs((await phoneOf(address, setId)) / foretold - 1);
/** In kB or MB as they are written. */
const bytesIn = (text: string): number => {
  const [, number, unit] = /([\d.]+) (kB|MB)/.exec(text)!;
  return Number(number) * (unit === 'MB' ? 1e6 : 1e3);
};
const sideways = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

// What files weigh is the subject: as most sites serve them.
test.use({ modern: 'avif' });

test('rules say what they make of the set before they hold; undo takes them back', async ({
  page,
  server,
  setId,
}) => {
  await keepFew(server, setId, KEPT);
  await page.goto(`${server.address}/sets/${setId}/weigh`);
  await allMade(page);
  const before = await phoneOf(server.address, setId);
  await page.getByRole('link', { name: 'Rules' }).click();
  await expect(page.getByText('These rules hold.')).toBeVisible();
  await page.getByRole('radio', { name: /^lean/ }).check();
  await expect(page.getByText(/Measured on \d+ files/)).toBeVisible();
  const row = page.getByRole('row', { name: /A phone, 2×/ });
  const foretold = bytesIn(await row.getByRole('cell').nth(2).innerText());
  expect(foretold).toBeLessThan(before);
  // Nothing is made yet of what is only looked at.
  expect(await phoneOf(server.address, setId)).toBe(before);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Leave them as they were' }).click();
  await expect(page.getByText('These rules hold.')).toBeVisible();
  await page.getByRole('radio', { name: /^lean/ }).check();
  await page.getByRole('button', { name: 'Let these rules hold' }).click();
  await saved(page);
  // Carried over from five pictures to all of them, whose files lie up to a fifth below the target.
  await expect.poll(() => missOf(server.address, setId, foretold)).toBeLessThan(0.15);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('radio', { name: /^clean/ })).toBeChecked();
  await expect.poll(() => phoneOf(server.address, setId)).toBe(before);
  // An address that is none says so, and holds nothing up but itself.
  await page.getByLabel('Where files lie').fill('javascript:alert(1)');
  await expect(page.getByRole('button', { name: 'Let these rules hold' })).toBeDisabled();
  await page.getByLabel('Where files lie').fill('/media/');
  await page.getByRole('radio', { name: /^Plain/ }).check();
  await expect(page.getByText('/media/photos/marbled-bowl-grid-1x1-720w.jpg')).toBeVisible();
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await sideways(page)).toBeLessThanOrEqual(0);
  expect(await axeFindings(page)).toEqual([]);
});

test('a limit for the page is shared out, shown before it is decided, kept, and taken back', async ({
  page,
  server,
  setId,
}) => {
  await keepFew(server, setId, KEPT);
  await page.goto(`${server.address}/sets/${setId}/weigh`);
  await allMade(page);
  const before = await phoneOf(server.address, setId);
  await page.getByRole('link', { name: 'Page limit' }).click();
  // Nine files of each picture are made and looked at.
  await expect(page.getByText(/\d+ of \d+ pictures change/)).toBeVisible({ timeout: 240_000 });
  const field = page.getByRole('textbox', { name: 'All pictures together, in kB' });
  await field.fill('abc');
  await expect(page.getByText('Type a number of kilobytes above 0.')).toBeVisible();
  await field.fill('3');
  await expect(page.getByText(/That can’t be met: the least is/)).toBeVisible();
  const limit = Math.round((before * 0.85) / 1000);
  await field.fill(String(limit));
  await expect(page.getByText(/\d+ of \d+ pictures change/)).toBeVisible();
  const kept = page.getByRole('checkbox', { name: /^Keep Bay at dusk in Full-width hero/ });
  await kept.check();
  await expect(page.getByRole('row', { name: /Bay at dusk Full-width hero/ })).toContainText('as it is');
  const foretold = bytesIn(
    await page
      .getByRole('row', { name: /within the limit/ })
      .getByRole('cell')
      .nth(1)
      .innerText(),
  );
  expect(foretold).toBeLessThanOrEqual(limit * 1000);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: /^Make \d+ pictures anew/ }).click();
  await saved(page);
  await expect.poll(() => missOf(server.address, setId, foretold)).toBeLessThan(0.03);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => phoneOf(server.address, setId)).toBe(before);
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await sideways(page)).toBeLessThanOrEqual(0);
  expect(await axeFindings(page)).toEqual([]);
});

test('smaller files are looked for when somebody asks, and handed over', async ({ page, server, setId }) => {
  const sites = (await (await fetch(`${server.address}/api/sites`)).json()) as {
    id: number;
    sets: { id: number }[];
  }[];
  const site = sites.find(({ sets }) => sets.some(({ id }) => id === setId))!;
  const made = await fetch(`${server.address}/api/sites/${site.id}/sets`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'One photo' }),
  });
  const { id } = (await made.json()) as { id: number };
  await openFirst(server.address, id);
  await page.goto(`${server.address}/sets/${id}/gather`);
  await drop(page, [
    { name: 'tiny.jpg', bytes: await readFile(join(DEMO, 'special/tiny.jpg')), type: 'image/jpeg' },
  ]);
  await expect.poll(() => phoneOf(server.address, id)).toBeGreaterThan(0);
  await allMade(page);
  const before = await phoneOf(server.address, id);
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await page.getByRole('button', { name: 'Look for them now' }).click();
  await expect(
    page.getByText(/^For every file a smaller one that looks the same was looked for: .+ less\.$/),
  ).toBeVisible({ timeout: 240_000 });
  expect(await axeFindings(page)).toEqual([]);
  expect(await phoneOf(server.address, id)).toBeLessThan(before);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('dialog')
      .getByRole('button', { name: /^Download/ })
      .click(),
  ]);
  expect((await download.failure()) ?? '').toBe('');
});
