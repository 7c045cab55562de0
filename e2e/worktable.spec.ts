// The worktable and the bench with the demo: selection, filters, words, undo, keys, refusals, both themes under axe.
import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import sharp from 'sharp';
import { allMade, axeFindings, drop, expect, rowOf, saved, test } from './application.ts';

const DEMO = resolve(import.meta.dirname, '../demo');

test.beforeEach(async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(rowOf(page, 'Bay at dusk')).toBeVisible();
});

test('can be used while versions are being made, and the demo shows something true', async ({ page }) => {
  await expect(page.getByText(/of 178 versions/)).toBeVisible();
  await allMade(page);
  // How many are over budget hangs on how small files were made, and tests make them in short.
  for (const count of ['All 14', 'Need words 5', 'Check crop 4', 'Too small 1']) {
    await expect(page.getByRole('button', { name: count })).toBeVisible();
  }
  await expect(page.locator('footer')).toContainText(
    /15\.9 MB\s*from the camera⟶[\d.]+ [kM]B\s*on a phone,\s*[\d.]+ [kM]B\s*on a retina laptop/,
  );
});

test('a click selects, Ctrl adds, Shift reaches; no modified click opens', async ({ page }) => {
  const foot = page.locator('footer');
  const sizeOf = (name: string) => rowOf(page, name).getByText(/ × /).first();
  await sizeOf('Bay at dusk').click();
  await expect(foot).toContainText('1 selected');
  await sizeOf('Plate on slate').click({ modifiers: ['Shift'] });
  await expect(foot).toContainText('4 selected');
  await sizeOf('Drying shelf').click({ modifiers: ['Control'] });
  await expect(foot).toContainText('3 selected');
  await sizeOf('Wood kiln at dusk').click({ modifiers: ['Control', 'Shift'] });
  await expect(page).toHaveURL(/gather$/);
  await page.keyboard.press('Escape');
  await expect(foot).toContainText('All 14 photos go');
});

test('everything from the keyboard: cursor, selection, next without words, bench and back', async ({
  page,
}) => {
  await page.getByRole('rowgroup').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(rowOf(page, 'GM_0418.JPG')).toBeFocused();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.locator('footer')).toContainText('2 selected');
  await page.keyboard.press('Space');
  await expect(page.locator('footer')).toContainText('1 selected');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/frame\/\d+$/);
  await expect(page.locator('[data-stage]')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/\/frame$/);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Find a photo, a place, or what you want to do').fill('marbled');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Marbled bowl' })).toBeVisible();
});

test('words are edited in place, checked as one types, mended, and undone across a reload', async ({
  page,
}) => {
  const row = rowOf(page, 'Plate on slate');
  const alt = row.getByLabel('Alt text of DSC00307.JPG');
  await expect(row).toContainText('Opens with “image of”');
  await row.getByRole('button', { name: 'Mend' }).click();
  await expect(alt).toHaveValue('Plate');
  await expect(row).toContainText('“Plate” hardly says anything');
  await alt.fill('test');
  await expect(row).toContainText('“test” is a placeholder');
  await alt.fill('Turquoise plate with a brown painted ring, seen from above.');
  await alt.blur();
  await saved(page);
  await page.reload();
  await expect(alt).toHaveValue('Turquoise plate with a brown painted ring, seen from above.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(alt).toHaveValue('Plate');
  await page.reload();
  await expect(alt).toHaveValue('Plate');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(alt).toHaveValue('Turquoise plate with a brown painted ring, seen from above.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(alt).toHaveValue('image of plate');
});

test('next without words goes to the field', async ({ page }) => {
  await page.getByRole('link', { name: /^Describe/ }).click();
  await page.getByRole('button', { name: 'Next without words' }).click();
  await expect(page.getByLabel('Alt text of GM_0418.JPG')).toBeFocused();
});

test('the bench: crops follow the focal point, a moved crop is the editor’s, keys nudge by pixels', async ({
  page,
}) => {
  await rowOf(page, 'Wood kiln at dusk').getByRole('button', { name: /^Open/ }).click();
  const crop = page.locator('[data-crop="3:1"]');
  await expect(crop).toHaveAccessibleName(/3300 × 1100 px, 0 from the left, 902 from the top/);
  await page.getByRole('button', { name: /^Focal point/ }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(crop).toHaveAccessibleName(/572 from the top/);
  await saved(page);
  await crop.focus();
  await page.keyboard.press('ArrowDown');
  await expect(crop).toHaveAccessibleName(/573 from the top/);
  await expect(page.getByText('Yours')).toBeVisible();
  for (let i = 0; i < 10; i++) await page.keyboard.press('-');
  await expect(crop).toHaveAccessibleName(/3200 × 1067 px/);
  await saved(page);
  const box = (await crop.boundingBox())!;
  const handle = (await page.locator('[data-handle="nw"]').boundingBox())!;
  await page.mouse.move(handle.x + 7, handle.y + 7);
  await page.mouse.down();
  await page.mouse.move(handle.x + 7 + box.width / 2, handle.y + 7 + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText(/blurred on .*: \d+ px short$/)).toBeVisible();
  const half = (await crop.boundingBox())!;
  expect(Math.abs(half.x + half.width - (box.x + box.width))).toBeLessThan(2);
  expect(Math.abs(half.width / half.height - 3)).toBeLessThan(0.1);
  await page.getByRole('button', { name: 'Give back to automatic' }).click();
  await expect(crop).toHaveAccessibleName(/3300 × 1100 px, 0 from the left, 572 from the top/);
  await page.getByRole('button', { name: 'Next doubtful crop' }).click();
  await expect(page.getByText('Focal point is a guess')).toBeVisible();
  await page.keyboard.press('c');
  await expect(page.getByText('Focal point confirmed')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Focal point is a guess')).toBeVisible();
});

test('refused and known files are said, the rest goes on', async ({ page }) => {
  const files = ['special/not-a-photo.jpg', 'special/broken-truncated.jpg', 'photos/GM_0412.JPG'];
  const read = await Promise.all(files.map((file) => readFile(resolve(DEMO, file))));
  const fresh = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#567' } })
    .png()
    .toBuffer();
  await drop(page, [
    ...files.map((file, i) => ({ name: file.split('/')[1]!, bytes: read[i]!, type: 'image/jpeg' })),
    { name: 'fresh.png', bytes: fresh, type: 'image/png' },
  ]);
  const list = page.getByRole('list', { name: 'Files on their way' });
  await expect(list).toContainText('This is not a picture, whatever its name says.');
  await expect(list).toContainText('The picture is damaged');
  await expect(list).toContainText('The same file is here already, as “GM_0412.JPG”');
  await expect(page.getByRole('button', { name: 'All 15' })).toBeVisible();
  await page.reload();
  await expect(list).toContainText('The picture is damaged');
  const away = list.getByRole('button', { name: 'Put away' });
  for (let left = 2; left > 0; left--) {
    // One that was just put away is still there for a moment.
    await expect(away).toHaveCount(left);
    await away.first().click();
  }
  await expect(list).toBeHidden();
  await page.getByRole('rowgroup').focus();
  await page.keyboard.press('Control+a');
  await expect(page.locator('footer')).toContainText('15 selected');
  await page.keyboard.press('End');
  await rowOf(page, 'fresh.png').getByText(/ × /).first().click();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: 'All 14' })).toBeVisible();
  await page.getByRole('button', { name: 'Bin 1' }).click();
  await page.getByRole('button', { name: 'Put back' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'All 15' })).toBeVisible();
  await rowOf(page, 'fresh.png').getByText(/ × /).first().click();
  await page.getByRole('button', { name: 'Put into bin' }).click();
  await expect(page.getByRole('button', { name: 'All 14' })).toBeVisible();
});

test('markup is copied for the selection, a place is set for it and the others stay', async ({
  page,
  server,
  setId,
}) => {
  await allMade(page);
  await rowOf(page, 'Drying shelf').getByText(/ × /).first().click();
  await page.getByRole('button', { name: 'Copy markup' }).click();
  await page.getByRole('menuitem', { name: /Text column/ }).click();
  await expect(
    page.getByText('Markup of 1 photo, Text column copied, with the styles of its places.'),
  ).toBeVisible();
  const markup = await page.evaluate(() => navigator.clipboard.readText());
  expect(markup).toContain('photos/drying-shelf-column-');
  expect(markup).toContain('alt="Bowls in rows on the drying shelf');
  // Pasted alone into a page with resets it is as wide as said, and nothing sticks out.
  const host = await page.context().newPage();
  for (const [window, width] of [
    [390, 358],
    [1280, 720],
  ] as const) {
    await host.setViewportSize({ width: window, height: 800 });
    await host.setContent(
      `<style>* { margin: 0; padding: 0 } img, figure { display: inline; width: auto; max-width: none }</style>
       <main style="padding: 0 16px">${markup}</main>`,
    );
    expect(await host.locator('img').evaluate((img) => img.getBoundingClientRect().width)).toBeCloseTo(
      width,
      0,
    );
    expect(await host.evaluate(() => document.documentElement.scrollWidth)).toBe(window);
  }
  await host.close();
  await rowOf(page, 'Bay at dusk')
    .getByText(/ × /)
    .first()
    .click({ modifiers: ['Control'] });
  const slots = async () => {
    const { rows } = await server.state(setId);
    return ['DSC00198.JPG', 'GM_0412.JPG'].map(
      (name) => rows.find((row) => row.fileName === name)!.placements?.map(({ slot }) => slot) ?? null,
    );
  };
  await page.getByRole('button', { name: 'Set places' }).click();
  await page.getByRole('menuitemcheckbox', { name: /Viewer/ }).click();
  await page.keyboard.press('Escape');
  await expect.poll(slots).toEqual([
    ['hero', 'grid', 'viewer'],
    ['column', 'grid', 'viewer'],
  ]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(slots).toEqual([['hero', 'grid'], null]);
});

test('a server that is away loses nothing: typing is kept and saved when it is back', async ({
  page,
  setId,
}) => {
  await page.route(`**/api/sets/${setId}/edits`, (route) => route.abort());
  const alt = page.getByLabel('Alt text of GM_0418.JPG');
  await alt.fill('A green vase with dry grasses.');
  await alt.blur();
  await expect(page.getByText('Not saved yet')).toBeVisible();
  await expect(alt).toHaveValue('A green vase with dry grasses.');
  await page.unroute(`**/api/sets/${setId}/edits`);
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(alt).toHaveValue('');
});

test('axe finds nothing at any stop', async ({ page, server, setId }) => {
  const { rows } = await server.state(setId);
  const stops = [
    'gather',
    'frame',
    `frame/${rows[4]!.id}`,
    'weigh',
    'describe',
    'arrange',
    'page',
    'texts',
    'rehearse',
    'hand-over',
  ];
  for (const stop of stops) {
    await page.goto(`${server.address}/sets/${setId}/${stop}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect(await axeFindings(page), stop).toEqual([]);
  }
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(await axeFindings(page), 'download').toEqual([]);
  await page.goto(server.address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  expect(await axeFindings(page), 'sets').toEqual([]);
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto(`${server.address}/sets/${setId}/describe`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  expect(await axeFindings(page), 'describe on a phone').toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
