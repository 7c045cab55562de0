// Words of many photos: from a table, by a pattern, by finding and replacing.
import { readFile } from 'node:fs/promises';
import { allMade, axeFindings, expect, saved, test, wordsOf } from './application.ts';

test('words come from a table, also for files that are still to come', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/describe`);
  await page.getByRole('button', { name: 'Table of words' }).click();
  const table = [
    'file,role,alt text,caption,place',
    'GM_0479.JPG,informs,"A rust-red teapot, and two cups","=1+1 is a caption",Viewer',
    'DSC00307.JPG,informative,A turquoise plate on slate,,',
    'IMG-20260822-203118.jpg,,,Twelve hours in.,',
    'DSC00203.JPG,informative,Pebbles of every size,,',
    'GM_0418.JPG,pretty,,,',
  ].join('\n');
  const choose = async (name: string, text: string) =>
    page
      .getByLabel('Choose a table')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await choose('no.csv', 'a,b\n1,2\n');
  await expect(page.getByRole('alert')).toContainText('No column names the files');
  await choose('words.csv', table);
  await expect(page.getByText('“pretty” is no role.')).toBeVisible();
  const dialog = page.getByRole('dialog');
  // Nothing is taken over what is said already but what is ticked.
  const all = dialog.getByRole('checkbox', { name: /^Take all 2 texts that would stand instead/ });
  const caption = dialog.getByRole('checkbox', { name: /^Instead, as caption of Wood kiln at dusk/ });
  const alt = dialog.getByRole('checkbox', { name: /^Instead, as alt text of Plate on slate/ });
  await expect(caption).not.toBeChecked();
  await all.check();
  await expect(alt).toBeChecked();
  await alt.uncheck();
  await expect(all).not.toBeChecked();
  expect(await axeFindings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Take them, and keep the rest for later' }).click();
  await expect(page.getByText('Words wait for 1 file still to come.')).toBeVisible();
  await saved(page);
  const byFile = async () => {
    const { rows } = await server.state(setId);
    return new Map(rows.map((row) => [row.fileName, row]));
  };
  const files = await byFile();
  expect(files.get('GM_0479.JPG')).toMatchObject({
    words: { role: 'informative', alt: 'A rust-red teapot, and two cups', caption: '=1+1 is a caption' },
    placements: [{ slot: 'viewer' }],
  });
  expect(files.get('DSC00307.JPG')!.words.alt).toBe('image of plate');
  expect(files.get('IMG-20260822-203118.jpg')!.words.caption).toBe('Twelve hours in.');
  const photo = await readFile(new URL('../demo/photos/DSC00203.JPG', import.meta.url));
  await page
    .locator('#photos-to-add')
    .setInputFiles({ name: 'dsc00203.jpg', mimeType: 'image/jpeg', buffer: photo });
  await expect(page.getByText('15 photos', { exact: true })).toBeVisible();
  expect((await byFile()).get('dsc00203.jpg')!.words).toMatchObject({
    role: 'informative',
    alt: 'Pebbles of every size',
  });
});

test('many photos at once: roles, a pattern, find and replace, each taken back as one', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/describe`);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  await page
    .locator('[data-row]')
    .first()
    .click({ position: { x: 20, y: 60 } });
  await page.keyboard.press('Control+a');
  await expect(page.getByText('14 selected')).toBeVisible();
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByRole('menuitem', { name: /Fill in by a pattern/ }).click();
  await page.getByRole('textbox', { name: 'Pattern' }).fill('{title}, {moon}');
  await expect(page.getByRole('alert')).toContainText('There is no {moon}');
  await page.getByRole('combobox', { name: 'Into' }).selectOption('credit');
  await page.getByRole('textbox', { name: 'Pattern' }).fill('{site}, {date}');
  await page.getByRole('button', { name: /^Change \d+ photos$/ }).click();
  await saved(page);
  const credits = async () =>
    [...(await wordsOf(server.address, setId)).values()].map(({ credit }) => credit);
  expect(
    (await credits()).filter((credit) => credit.startsWith('Gullmoor Pottery, ')).length,
  ).toBeGreaterThan(5);
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByRole('menuitem', { name: /Find and replace/ }).click();
  await page.getByRole('textbox', { name: 'Find' }).fill('gullmoor pottery');
  await page.getByRole('textbox', { name: 'Replace by' }).fill('The kiln');
  await page.getByRole('button', { name: /^Change \d+ photos$/ }).click();
  await saved(page);
  expect((await credits()).some((credit) => credit.includes('Gullmoor'))).toBe(false);
  await page
    .locator('[data-row]')
    .first()
    .click({ position: { x: 20, y: 60 } });
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await credits()).filter((credit) => credit.includes('Gullmoor')).length)
    .toBeGreaterThan(5);
});

test('a site has several languages: words in each, what is missing, and a page for each', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/rules`);
  const another = page.getByRole('combobox', { name: 'Another language' });
  await another.fill('not a language!');
  await expect(page.getByText('is no language')).toBeVisible();
  // By its name, its own name or its tag; never as a folder called by its name.
  for (const language of ['Deutsch', 'ar']) {
    await another.fill(language);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(another).toHaveValue('');
  }
  await saved(page);
  const { rows } = await server.state(setId);
  const bay = rows.find(({ words }) => words.title === 'Bay at dusk') ?? rows[0]!;
  await page.goto(`${server.address}/sets/${setId}/describe/${bay.id}`);
  await page.getByRole('button', { name: 'German, missing' }).click();
  const alt = page.getByRole('textbox', { name: 'Alt text' });
  await expect(alt).toHaveAttribute('lang', 'de');
  await alt.fill('Foto von einer stillen Bucht am Abend');
  // The checks are those of the language.
  await expect(page.locator('[data-finding="opens-with-image"]')).toBeVisible();
  await alt.fill('Stille Bucht zwischen zwei dunklen Landzungen');
  await saved(page);
  await expect(page.getByRole('button', { name: 'German', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Arabic, missing' }).click();
  await expect(alt).toHaveValue('');
  await alt.fill('خليج هادئ عند الغروب');
  await saved(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'English', exact: true }).click();
  await expect(alt).toHaveValue(bay.words.alt);

  // A table in one of them.
  await page.goto(`${server.address}/sets/${setId}/describe`);
  await page.getByRole('button', { name: 'Table of words' }).click();
  await page.getByRole('combobox', { name: 'The words are in' }).selectOption('de');
  const german = `file,alt text\n${rows[5]!.fileName},Sechs Becher auf hellem Grund\nnever.jpg,x\n`;
  await page
    .getByLabel('Choose a table')
    .setInputFiles({ name: 'de.csv', mimeType: 'text/csv', buffer: Buffer.from(german) });
  await expect(page.getByText('only words in the first language can wait for them')).toBeVisible();
  await page.getByRole('button', { name: 'Take them', exact: true }).click();
  await saved(page);
  await page.goto(`${server.address}/sets/${setId}/describe/${rows[5]!.id}`);
  await page.getByRole('button', { name: 'German', exact: true }).click();
  await expect(alt).toHaveValue('Sechs Becher auf hellem Grund');

  await allMade(page);
  await page.goto(`${server.address}/preview/${setId}/de/`);
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await expect(
    page.getByRole('img', { name: 'Stille Bucht zwischen zwei dunklen Landzungen' }).first(),
  ).toBeVisible();
  // What nobody wrote in German is there in English, and says so.
  await expect(page.locator('figure[lang="en"] img').first()).toBeVisible();
  await expect(page.locator('figure:not([lang]) img[alt^="Stille"]').first()).toBeVisible();
  await page.goto(`${server.address}/preview/${setId}/ar/`);
  await expect(page.locator('html')).toHaveAttribute('dir', 'rtl');
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
  ).toBeLessThanOrEqual(0);
  expect(await axeFindings(page)).toEqual([]);
});

test('photos that sound nearly alike are found among many', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/describe`);
  await page.getByLabel('Alt text of GM_0418.JPG').fill('A pale green vase on the warm kiln roof.');
  await page.getByLabel('Alt text of GM_0479.JPG').fill('The pale green vase, on a warm kiln roof');
  await saved(page);
  await page
    .locator('[data-row]')
    .first()
    .click({ position: { x: 20, y: 60 } });
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Tell those apart/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Alike by ear' });
  await expect(dialog.getByRole('textbox', { name: 'Alt text' })).toHaveCount(2);
  await expect(dialog.getByRole('link', { name: 'Red teapot' })).toBeVisible();
});

test('photos with the same words are told apart side by side', async ({ page, server, setId }) => {
  const { rows } = await server.state(setId);
  const [first, second] = rows.filter(({ words }) => words.role === 'informative' && words.alt.length > 30);
  await page.goto(`${server.address}/sets/${setId}/describe/${first!.id}`);
  const alt = page.getByRole('textbox', { name: 'Alt text' });
  await alt.fill(second!.words.alt);
  await saved(page);
  await page.locator('[data-finding="same-alt"]').getByRole('button', { name: 'Compare' }).click();
  const dialog = page.getByRole('dialog', { name: 'Alike by ear' });
  await expect(dialog.getByRole('textbox', { name: 'Alt text' })).toHaveCount(2);
  expect(await axeFindings(page)).toEqual([]);
  await dialog
    .getByRole('textbox', { name: 'Alt text' })
    .first()
    .fill('The bay from the kiln roof, one boat on the sand');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Escape');
  await saved(page);
  await expect(page.locator('[data-finding="same-alt"]')).toHaveCount(0);
  const after = await wordsOf(server.address, setId);
  expect(after.get(first!.id)!.alt).not.toBe(after.get(second!.id)!.alt);
});
