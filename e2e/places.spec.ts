// Places of one's own, as a new user makes them.
import { readFile } from 'node:fs/promises';
import { axeFindings, expect, saved, test } from './application.ts';

const SAID = [
  ['Narrow column', '420 px column', 'min(100vw - 32px, 420px)', ['358', '420', '420', '420']],
  [
    'Shop shelf',
    '4 across with 16 px between in 1200 px',
    'calc((min(100vw - 32px, 1200px) - 48px) / 4)',
    ['78', '185', '288', '288'],
  ],
  ['Fitted', 'at most 960×720', 'min(100vw - 32px, 960px)', ['358', '788', '960', '960']],
  ['Half', 'half of a 1140 px column', 'min(50vw - 16px, 570px)', ['179', '394', '570', '570']],
] as const;

test('four sentences make four places; the error stands at its character, with a mend', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/places`);
  for (const [name, said, css, widths] of SAID) {
    await page.getByRole('button', { name: 'Make a place' }).click();
    await page.getByRole('textbox', { name: 'Name of the new place' }).fill(name);
    await page.getByRole('textbox', { name: /^Width of the new place/ }).fill(said);
    await expect(page.getByText(css, { exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Make it' }).click();
    const row = page.locator('[data-place]').filter({ hasText: said });
    await expect(row).toContainText(name);
    for (const width of widths) await expect(row).toContainText(width);
  }
  // What can't be read is kept, over a reload too.
  await page.getByRole('button', { name: 'Make a place' }).click();
  const width = page.getByRole('textbox', { name: /^Width of the new place/ });
  await page.getByRole('textbox', { name: 'Name of the new place' }).fill('Visiting, by the map');
  await width.fill('clamp(280px, 50vw – 24px, 560px)');
  await expect(page.getByRole('alert')).toContainText('At character 19, “–”');
  await expect(page.getByRole('button', { name: 'Make it' })).toBeDisabled();
  await page.reload();
  await expect(width).toHaveValue('clamp(280px, 50vw – 24px, 560px)');
  await page.getByRole('button', { name: 'Mend it' }).click();
  await expect(width).toHaveValue('clamp(280px, 50vw - 24px, 560px)');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.locator('[data-place="visiting-by-the-map"]')).toContainText('280');
  await saved(page);
  for (let n = 0; n < 5; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-place="visiting-by-the-map"]')).toHaveCount(0);
  await expect(page.locator('[data-place="narrow-column"]')).toHaveCount(0);
});

test('a change is drawn at once, says what it costs, and is applied or dropped', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/places`);
  await page.locator('[data-place="grid"]').click();
  const bench = page.getByRole('region', { name: /^Place Square/ });
  await bench.getByLabel('Say how wide it is').fill('4 across with 16 px between in 1200 px');
  await expect(bench.getByText('Not applied yet')).toBeVisible();
  await expect(bench.getByText(/^\d+ files for \d+ photos: \d+ to be made, \d+ go\.$/)).toBeVisible();
  // The draft outlives the reload.
  await page.reload();
  await page.locator('[data-place="grid"]').click();
  await bench.getByRole('button', { name: 'Drop the change' }).click();
  await expect(bench.getByText('Not applied yet')).toHaveCount(0);
  await bench.getByLabel('Type it as CSS').fill('min(100vw - 32px, 300px');
  await expect(bench.getByRole('alert')).toContainText('At the end');
  await expect(bench.getByRole('button', { name: 'Apply' })).toBeDisabled();
  await bench.getByRole('button', { name: /^Mend it/ }).click();
  await bench.getByRole('button', { name: 'contain, kept whole' }).click();
  await expect(bench.getByText('no larger than')).toBeVisible();
  await bench.getByRole('button', { name: 'cover, cut to it' }).click();
  await bench.getByRole('button', { name: 'Add a range' }).click();
  await expect(bench.getByRole('combobox', { name: 'Shape from 700 px' })).toBeVisible();
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    expect(await axeFindings(page), `${width}`).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  await bench.getByRole('button', { name: 'Apply' }).click();
  await saved(page);
  await expect(page.locator('[data-place="grid"]')).toContainText('min(100vw - 32px, 300px)');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-place="grid"]')).not.toContainText('300px');
});

test('several changes are applied at once and taken back by one undo; one that can’t be read stays', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/places`);
  const change = async (place: string, css: string) => {
    await page.locator(`[data-place="${place}"]`).click();
    await page
      .getByRole('region', { name: /^Place / })
      .getByLabel('Type it as CSS')
      .fill(css);
  };
  await change('grid', 'min(100vw - 32px, 310px)');
  await expect(page.getByText(/changes not applied yet/)).toHaveCount(0);
  await change('column', 'min(100vw - 32px, 610px)');
  await expect(page.getByText('2 changes not applied yet')).toBeVisible();
  await change('half', 'min(100vw');
  await expect(page.getByText('3 changes not applied yet')).toBeVisible();
  await expect(
    page.getByText(/\d+ files to be made, \d+ go\. 1 of them can’t be read yet, and stays\./),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Apply 2' }).click();
  await saved(page);
  const row = (place: string) => page.locator(`[data-place="${place}"]`);
  await expect(row('grid')).toContainText('310px');
  await expect(row('column')).toContainText('610px');
  await expect(page.getByText(/changes not applied yet/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row('grid')).not.toContainText('310px');
  await expect(row('column')).not.toContainText('610px');
});

test('places leave as a file and come back; devices are read from CSV; nonsense is told', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/places`);
  const menu = page.getByRole('button', { name: 'Files', exact: true });
  await menu.click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save these places as JSON' }).click(),
  ]);
  const text = await readFile(await download.path(), 'utf8');
  const input = page.getByLabel('A JSON file of places');
  await input.setInputFiles({ name: 'places.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(page.locator('[data-place="hero-2"]')).toBeVisible();
  await saved(page);
  // The answer comes later than the word that something changed: what failed meanwhile must stay said.
  const failure = page.getByText('This is no JSON file, or it ends too early.');
  await page.route('**/undo', async (route) => {
    const response = await route.fetch();
    await expect(failure).toBeVisible();
    await route.fulfill({ response });
  });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-place="hero-2"]')).toHaveCount(0);
  await saved(page);
  await input.setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"file":'),
  });
  await expect(page.getByText('Taken back: ')).toBeVisible();
  await expect(failure).toBeVisible();
  await page.getByRole('button', { name: 'Put away' }).first().click();
  await expect(failure).toHaveCount(0);
  await menu.click();
  await page.getByRole('menuitem', { name: 'Devices of the visitors' }).click();
  const csv = page.getByLabel('A CSV file of devices');
  await csv.setInputFiles({
    name: 'd.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,viewport,density,share\nphone,390,x,1'),
  });
  await expect(page.getByRole('alert')).toContainText('Line 2, density');
  await csv.setInputFiles({
    name: 'd.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,viewport,density,share\nOur phones,400,3,75\nDesks,1500,1,25'),
  });
  await expect(page.getByRole('cell', { name: 'Our phones' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
});
