// The weigh bench: what is sent, what is seen of it, other points, ways out, stills; each taken back.
import { readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import type { Page } from '@playwright/test';
import type { SentPhoto } from '../packages/core/src/contract/index.ts';
import { allMade, axeFindings, drop, expect, keepFew, rowOf, saved, test } from './application.ts';

const DEMO = resolve(import.meta.dirname, '../demo');

async function photoOf(address: string, setId: number, file: string): Promise<SentPhoto> {
  const response = await fetch(`${address}/api/sets/${setId}/photos?from=0&count=50`);
  const { photos } = (await response.json()) as { photos: SentPhoto[] };
  return photos.find(({ fileName }) => fileName === file)!;
}

/** Bytes that a 390 px phone loads for the whole set. */
const phoneOf = async (address: string, setId: number): Promise<number> => {
  const response = await fetch(`${address}/api/sets/${setId}/sent?viewport=390&density=2`);
  return ((await response.json()) as { sent: number }).sent;
};

async function open(page: Page, address: string, setId: number, file: string): Promise<void> {
  const { id } = await photoOf(address, setId, file);
  await page.goto(`${address}/sets/${setId}/weigh/${id}`);
  await allMade(page);
  await expect(page.getByRole('heading', { name: 'How much may be seen' })).toBeVisible();
}
const inHand = (page: Page) => page.getByText(/^In hand: .*difference/);
const curves = (page: Page) => page.getByRole('region', { name: 'Points of all formats' });

test.use({ modern: 'avif' });

test('what is sent is shown and measured as it was made; another point changes the file and the page; undo brings it back', async ({
  page,
  server,
  setId,
}) => {
  await keepFew(server, setId, ['GM_0467.JPG', 'DSC00356.JPG']);
  await open(page, server.address, setId, 'GM_0467.JPG');
  await expect(inHand(page)).toContainText('this is what is sent');
  // The browser measures what the server measured.
  const said = /In hand: (.+) AVIF at quality (\d+), difference ([\d.]+)/.exec(
    await inHand(page).innerText(),
  )!;
  const before = await photoOf(server.address, setId, 'GM_0467.JPG');
  const own = Object.values(before.files).find(
    ({ quality, difference }) =>
      quality === Number(said[2]) && Math.abs((difference ?? 0) - Number(said[3])) < 0.06,
  );
  expect(own).toBeDefined();
  await expect(page.getByRole('figure')).toHaveCount(4);
  // The original stands in its place while a key is held.
  const picture = page.locator('[data-shows]');
  await page.keyboard.down('o');
  await expect(picture).toHaveAttribute('data-shows', 'original');
  await page.keyboard.up('o');
  await expect(picture).toHaveAttribute('data-shows', 'sent');
  await page.keyboard.press('m');
  await expect(page.getByRole('img', { name: /Where it differs/ })).toBeVisible();
  // Another point: a rougher AVIF.
  await expect(curves(page).getByRole('row', { name: /^AVIF 46/ })).toBeVisible();
  const rougher = await curves(page)
    .getByRole('row', { name: /^AVIF 46/ })
    .innerText();
  const foretold = Number(/(\d+) kB/.exec(rougher)![1]) * 1000;
  const phone = await phoneOf(server.address, setId);
  await curves(page)
    .getByRole('row', { name: /^AVIF 46/ })
    .getByRole('button')
    .click();
  await expect(inHand(page)).toContainText('quality 46');
  await page.getByRole('button', { name: 'Send this point' }).click();
  await expect(page.getByText(/Yours here: AVIF at quality 46/)).toBeVisible();
  await saved(page);
  await allMade(page);
  await expect(inHand(page)).toContainText('quality 46');
  await expect(inHand(page)).toContainText('this is what is sent');
  const after = await photoOf(server.address, setId, 'GM_0467.JPG');
  const stored = Object.values(after.files).filter(({ quality }) => quality === 46);
  expect(stored.some(({ bytes }) => Math.abs(bytes - foretold) <= 0.03 * foretold + 500)).toBe(true);
  expect(await phoneOf(server.address, setId)).toBeLessThan(phone);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/Yours here/)).toHaveCount(0);
  await expect.poll(() => phoneOf(server.address, setId)).toBe(phone);
  // What all screens load, beside the same with one quality for all.
  await page.getByRole('button', { name: 'Beside one quality for all' }).click();
  const totals = page.getByRole('region', { name: 'What the page sends' });
  await expect(totals.getByText(/^One quality for all \(AVIF 60/)).toBeVisible();
  for (const screen of await totals.getByRole('row', { name: /^(Phone|Tablet|Laptop)/ }).all())
    await expect(screen.getByRole('cell').nth(2)).toHaveText(/^[\d.,]+ [kM]B$/);
});

test('a budget that can’t be met offers its ways out; each weighs what it foretold, and is taken back', async ({
  page,
  server,
  setId,
}) => {
  await keepFew(server, setId, ['GM_0467.JPG', 'DSC00356.JPG']);
  await open(page, server.address, setId, 'DSC00356.JPG');
  const ways = page.getByRole('region', { name: 'Ways out' });
  await expect(ways.getByRole('heading')).toContainText('over its budget');
  expect(await axeFindings(page)).toEqual([]);
  const way = ways.getByRole('listitem').filter({ hasText: 'Fewer pixels' });
  // Tried, not guessed.
  await expect(way).toContainText(/\d+ kB, within the budget, difference [\d.]+/);
  await expect(way).not.toContainText(/about \d+ kB, within/);
  const foretold = Number(/(\d+) kB, within/.exec(await way.innerText())![1]) * 1000;
  const widest = Number(/(\d+) px at most/.exec(await way.innerText())![1]);
  await way.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText(`Yours here: at most ${widest} px.`)).toBeVisible();
  await saved(page);
  await allMade(page);
  const { files } = await photoOf(server.address, setId, 'DSC00356.JPG');
  const bytes = Object.values(files).map((file) => file.bytes);
  expect(Math.min(...bytes.map((one) => Math.abs(one - foretold)))).toBeLessThanOrEqual(0.03 * foretold);
  await page.keyboard.press('g');
  await expect(page.getByText(/Yours here/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(`Yours here: at most ${widest} px.`)).toBeVisible();
});

test('an animation becomes a still of the frame that is chosen; at 390 px nothing overlaps', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/weigh`);
  await drop(page, [
    { name: 'wheel.gif', bytes: await readFile(join(DEMO, 'special/wheel.gif')), type: 'image/gif' },
  ]);
  await expect.poll(() => photoOf(server.address, setId, 'wheel.gif')).toBeTruthy();
  const { id } = await photoOf(server.address, setId, 'wheel.gif');
  await page.goto(`${server.address}/sets/${setId}/weigh/${id}`);
  await expect(page.getByText('It moves: its frames are not compared.')).toBeVisible();
  await page.getByRole('button', { name: 'One frame, still' }).click();
  await page.getByRole('slider', { name: /Frame/ }).fill('7');
  await expect(page.getByText('Yours here: still, frame 7.')).toBeVisible();
  await saved(page);
  await allMade(page);
  expect((await photoOf(server.address, setId, 'wheel.gif')).quality).toEqual({
    column: { still: true, frame: 6 },
  });
  await expect(curves(page).getByRole('row').nth(3)).toBeVisible();
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await axeFindings(page)).toEqual([]);
  const sideways = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(sideways).toBeLessThanOrEqual(0);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('It moves: its frames are not compared.')).toBeVisible();
});

test('many at once: a target for a selection is shown in its rows, and given back', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/weigh`);
  for (const name of ['GM_0412.JPG', 'DSC00307.JPG']) await rowOf(page, name).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Weigh', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Target: lean/ }).click();
  await expect(rowOf(page, 'GM_0412.JPG').getByText('lean', { exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Weigh', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Give all back/ }).click();
  await expect(rowOf(page, 'GM_0412.JPG').getByText('lean', { exact: true })).toHaveCount(0);
});
