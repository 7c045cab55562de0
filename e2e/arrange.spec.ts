// An arrangement is made, tried as other kinds, kept, filled and ordered, and stands in the page that goes out.
import {
  allMade,
  arrangeFirst,
  axeFindings,
  expect,
  FIRST_FIVE,
  keepFew,
  saved,
  test,
} from './application.ts';

test('from photos to an arrangement on the page', async ({ page, server, setId }) => {
  await keepFew(server, setId, FIRST_FIVE);
  await page.goto(`${server.address}/sets/${setId}/arrange`);
  // Of four photos; large files of all of them would be made.
  await arrangeFirst(page, 'Pots from this firing', 4);
  await expect(page).toHaveURL(/\/arrange\/pots-from-this-firing$/);
  const pictures = page.getByRole('region', { name: 'In order' }).getByRole('listitem');
  await expect(pictures).toHaveCount(4);
  await saved(page);
  const proof = page.frameLocator('iframe[aria-hidden="false"]');
  await expect(proof.locator('.dusky-grid li')).toHaveCount(4);

  // Another kind is seen before it is kept.
  await allMade(page);
  const before = (await server.state(setId)).edits.undo;
  await page.getByRole('button', { name: 'Rows' }).click();
  await expect(proof.locator('.dusky-rows li')).toHaveCount(4);
  // What it would weigh, on a phone and a laptop, and how many files it takes.
  const tried = page.getByRole('region', { name: 'Tried, not kept' });
  await expect(tried.getByRole('row', { name: /^A phone, 2×/ })).toContainText(/kB.*kB/);
  await expect(tried.getByRole('row', { name: /^Files in all/ })).toContainText(/to make/);
  expect((await server.state(setId)).edits.undo).toBe(before);
  await page.keyboard.press('Escape');
  await expect(proof.locator('.dusky-grid li')).toHaveCount(4);
  await page.getByRole('textbox', { name: /^Columns where it is narrow/ }).fill('1');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Phone, 390 px' }).click();
  await page.getByRole('button', { name: 'Keep it so' }).click();
  await saved(page);
  await expect(proof.locator('.dusky-cells')).toHaveCSS('grid-template-columns', /^\d+(\.\d+)?px$/);

  // Out, in, and another order by keys.
  await page.getByRole('checkbox', { name: 'Pick Drying shelf' }).check();
  await page.getByRole('button', { name: 'Out', exact: true }).click();
  await expect(pictures).toHaveCount(3);
  await page.getByRole('button', { name: 'Put in…' }).click();
  const sheet = page.getByRole('dialog', { name: 'Put photos in' });
  await sheet.getByRole('checkbox', { name: 'Drying shelf' }).check();
  expect(await axeFindings(page)).toEqual([]);
  await sheet.getByRole('button', { name: 'Put 1 in' }).click();
  await expect(pictures).toHaveCount(4);
  const first = (await pictures.first().locator('b').textContent())!;
  await pictures
    .first()
    .getByRole('button', { name: /^Move / })
    .focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/ is (?:picked up|over .*), at place 1 of 4\.$/).first()).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText(`at place 2 of 4.`).first()).toBeAttached();
  await page.keyboard.press('Space');
  await expect(pictures.nth(1).locator('b')).toHaveText(first);

  // Two at once, by a button and by keys.
  const names = async () => pictures.locator('b').allTextContents();
  const all = await names();
  await pictures.nth(1).getByRole('checkbox').check();
  await pictures.nth(3).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'To the front' }).click();
  await expect.poll(async () => (await names()).join()).toBe([all[1], all[3], all[0], all[2]].join());
  await pictures
    .nth(0)
    .getByRole('button', { name: /^Move / })
    .focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/ with 1 others is (?:picked up|over)/).first()).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('at place 4 of 4.').first()).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(async () => (await names()).join()).toBe([all[0], all[2], all[1], all[3]].join());
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await names()).join()).toBe(all.join());
  await page.getByRole('button', { name: 'Pick none' }).click();

  // By name, as one edit.
  await page.getByRole('button', { name: 'Order by…' }).click();
  await page.getByRole('menuitem', { name: /^Name/ }).click();
  await expect.poll(async () => (await names()).join()).toBe([...(await names())].sort().join());
  await expect(pictures.first().locator('b')).toHaveText(/^(?:Bay|Drying)/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(pictures.nth(1).locator('b')).toHaveText(first);

  // Its title is people's, its name stays.
  const title = page.getByRole('textbox', { name: /^Title/ });
  await title.fill('Still warm');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Still warm' })).toBeVisible();
  await saved(page);
  await allMade(page);
  await page.goto(`${server.address}/preview/${setId}/index.html`);
  const made = page.locator('.dusky-a-pots-from-this-firing');
  await expect(page.getByRole('heading', { name: 'Still warm' })).toBeVisible();
  await made.locator('a').first().click();
  const viewer = page.getByRole('dialog', { name: 'Still warm' });
  await expect(viewer.getByText('1 of 4')).toBeVisible();
  await expect
    .poll(() => viewer.locator('img').evaluate((img) => (img as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(500);
  await page.keyboard.press('Escape');
  expect(await axeFindings(page)).toEqual([]);

  // Taken away with one press, and back with another.
  await page.goto(`${server.address}/sets/${setId}/arrange/pots-from-this-firing`);
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(page).toHaveURL(/\/arrange$/);
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.goto(`${server.address}/sets/${setId}/arrange/pots-from-this-firing`);
  await expect(pictures).toHaveCount(4);
});

test('axe finds nothing at the Arrange bench', async ({ page, server, setId }) => {
  await keepFew(server, setId, FIRST_FIVE);
  await page.goto(`${server.address}/sets/${setId}/arrange`);
  await page.getByRole('button', { name: 'New arrangement' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Hero by the kiln');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Hero by the kiln' })).toBeVisible();
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    for (const kind of ['Figure', 'Grid', 'Rotating', 'Zoom']) {
      await page.getByRole('button', { name: kind, exact: true }).click();
      await expect(
        page.frameLocator('iframe[aria-hidden="false"]').locator(`.dusky-${kind.toLowerCase()}`),
      ).toBeVisible();
      expect(await axeFindings(page), `${kind} at ${width}`).toEqual([]);
    }
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
});
