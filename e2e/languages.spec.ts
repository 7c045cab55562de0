// A site in several languages: its page's texts side by side, what is missing, words of one place, and the page that follows.
import { firstPage } from '../packages/core/src/page/index.ts';
import { axeFindings, editBefore, expect, FIRST_FIVE, keepFew, rowOf, saved, test } from './application.ts';

const TEXT = 'We lit the kiln at five.';

test.beforeEach(async ({ page, server, setId }) => {
  await keepFew(server, setId, FIRST_FIVE);
  const { site } = await server.state(setId);
  await editBefore(server, setId, [
    { kind: 'site', change: { languages: ['en', 'de', 'ar'] } },
    {
      kind: 'set',
      change: {
        page: {
          ...firstPage('Kiln diary', site.slots, (slot) => slot === 'column'),
          parts: [
            { kind: 'languages' },
            { kind: 'heading', text: 'The firing' },
            { kind: 'text', passage: [{ kind: 'paragraph', runs: [{ text: TEXT }] }] },
            { kind: 'place', slot: 'column', titled: false },
          ],
        },
      },
    },
  ]);
  await page.goto(`${server.address}/sets/${setId}/arrange`);
});

test('texts are written beside each other, counted where they are missing, and go out', async ({
  page,
  server,
  setId,
}) => {
  // Said where one arranges, and led to.
  await page.getByRole('link', { name: /^Languages: 2 lack something/ }).click();
  await expect(page).toHaveURL(/\/texts$/);
  const missing = page.getByRole('list', { name: 'What is missing' });
  await expect(missing).toContainText(/German lacks 3 texts and words of \d photos\./);
  const texts = page.getByRole('list', { name: 'Texts of Kiln diary' }).getByRole('listitem');
  await expect(texts).toHaveCount(3);
  expect(await axeFindings(page)).toEqual([]);

  const german = (n: number) => texts.nth(n).getByRole('textbox', { name: 'German' });
  await german(0).fill('Das Ofentagebuch');
  await german(1).fill('Der Brand');
  await texts
    .nth(2)
    .getByRole('button', { name: /^German: Text: ?Write it/ })
    .click();
  await page.getByRole('textbox', { name: 'German: Text' }).fill('Um fünf haben wir den Ofen angezündet.');
  await saved(page);
  await expect(missing).toContainText(/German lacks words of \d photos\./);
  await expect(missing).toContainText(/Arabic lacks 3 texts/);
  // What is written stays in view where one looks at what was missing.
  await page.getByRole('checkbox', { name: 'only what is missing' }).check();
  await expect(texts).toHaveCount(3);
  await expect(texts.nth(1).getByRole('textbox', { name: 'Arabic' })).toHaveAttribute('dir', 'rtl');
  await page.reload();
  await expect(german(1)).toHaveValue('Der Brand');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(missing).toContainText(/German lacks 1 text and/);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(missing).toContainText(/German lacks words of/);

  // Said before anything goes out.
  await page.goto(`${server.address}/sets/${setId}/hand-over`);
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  const lacking = page.getByRole('dialog').getByRole('list', { name: 'Languages' });
  await expect(lacking).toContainText('Arabic lacks 3 texts');
  await page.keyboard.press('Escape');

  await page.goto(`${server.address}/preview/${setId}/de/`);
  await expect(page.getByRole('heading', { level: 1, name: 'Das Ofentagebuch' })).toBeVisible();
  await expect(page.getByText('Um fünf haben wir den Ofen angezündet.')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('navigation', { name: 'Sprachen' }).getByRole('link', { name: 'العربية' }).click();
  await expect(page.locator('html')).toHaveAttribute('dir', 'rtl');
  await expect(page.getByText(TEXT).locator('..')).toHaveAttribute('lang', 'en');
  for (const width of [320, 390, 820, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
  expect(await axeFindings(page)).toEqual([]);
});

test('words of one place are written in each language, and taken out of it', async ({
  page,
  server,
  setId,
}) => {
  const { rows } = await server.state(setId);
  const vase = rows.find(({ fileName }) => fileName === 'GM_0418.JPG')!;
  const others = async () =>
    (await server.state(setId)).rows
      .find(({ id }) => id === vase.id)!
      .placements?.find(({ slot }) => slot === 'column')?.others;
  await page.goto(`${server.address}/sets/${setId}/describe/${vase.id}?language=de&place=column`);
  await page.getByRole('textbox', { name: 'Alt text' }).fill('Die Vase, hier von Nahem');
  await saved(page);
  expect(await others()).toEqual({ de: { alt: 'Die Vase, hier von Nahem' } });
  // Elsewhere, and in the first language, nothing is another.
  await page.getByRole('button', { name: 'Everywhere' }).click();
  await expect(page.getByRole('textbox', { name: 'Alt text' })).toHaveValue('');
  await page.getByRole('button', { name: 'Text column: its own' }).click();
  await expect(page.getByRole('textbox', { name: 'Alt text' })).toHaveValue('Die Vase, hier von Nahem');
  await page.getByRole('button', { name: 'Take the photo’s words again' }).click();
  await expect(page.getByRole('textbox', { name: 'Alt text' })).toHaveValue('');
  await saved(page);
  expect(await others()).toEqual({});
});

test('a site of one language says how it gets another', async ({ page, server, setId }) => {
  await editBefore(server, setId, [{ kind: 'site', change: { languages: ['en'] } }]);
  await page.goto(`${server.address}/sets/${setId}/texts`);
  await expect(page.getByText(/The site has one language, English\./)).toBeVisible();
  await page.goto(`${server.address}/sets/${setId}/arrange`);
  await expect(page.getByRole('button', { name: 'New arrangement' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Languages/ })).toHaveCount(0);
});

test('a file of words is added as a photo is, and says whose it is', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(rowOf(page, 'GM_0418.JPG')).toBeVisible();
  const words = `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/" photoshop:Credit="Ida Gullmoor"/></rdf:RDF></x:xmpmeta>`;
  const file = { mimeType: 'application/rdf+xml', buffer: Buffer.from(words) };
  await page
    .locator('input[type="file"]')
    .first()
    .setInputFiles([
      { ...file, name: 'GM_0418.xmp' },
      { ...file, name: 'GM_9999.xmp' },
    ]);
  await expect(page.getByText('Its words stand with GM_0418.JPG now')).toBeVisible();
  await expect(page.getByText('Its words wait for a photo called “GM_9999”.')).toBeVisible();
  const { rows } = await server.state(setId);
  expect(rows.find(({ fileName }) => fileName === 'GM_0418.JPG')!.words.credit).toBe('Ida Gullmoor');
});
