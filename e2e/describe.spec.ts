// Words by keyboard alone, and the same in everything that goes out.
import { execFileSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Words } from '@dusky-otter/core/contract';
import { NO_WORDS } from '@dusky-otter/core/words';
import { unzipSync } from 'fflate';
import { allMade, axeFindings, expect, saved, test, wordsOf } from './application.ts';

/** Takes all words out of a set, as one edit. */
async function clearWords(address: string, setId: number): Promise<number[]> {
  const page = (await (await fetch(`${address}/api/sets/${setId}/photos?count=200`)).json()) as {
    photos: { id: number; version: number }[];
  };
  const seen = Object.fromEntries(page.photos.map(({ id, version }) => [id, version]));
  const response = await fetch(`${address}/api/sets/${setId}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      label: 'all words taken out',
      commands: page.photos.map(({ id }) => ({ kind: 'words', photo: id, language: 'en', words: NO_WORDS })),
      seen: { photos: seen },
      token: crypto.randomUUID(),
      window: 'another-window',
      since: 0,
    }),
  });
  expect(response.status).toBe(200);
  return page.photos.map(({ id }) => id);
}

const TABLE = ['Cones at the top shelf.', '| Cone | °C |', '| --- | --- |', '| 6 | 1222 |', '| 10 | 1285 |'];
const ALTS = [
  'Quotes “inside” and "straight", <b>no</b> tags & co.',
  'Größe: drei Töpfe, übereinander gestülpt',
  'مزهرية خضراء على طاولة من خشب البلوط',
  'Two jugs beside a cat 🐈 on the warm kiln roof',
  '=SUM(A1) chalked on the studio door',
  'A stack of five bowls, oat at the bottom',
  'The bay at low tide from the kiln roof',
  'Hands lifting a wet cup off the wheel',
  'Snow on the woodshed, smoke above it',
  'Six cups on white, one lying on its side',
];

test('fourteen photos are described by keyboard alone, and the words are the same in everything that goes out', async ({
  page,
  server,
  setId,
}) => {
  const ids = await clearWords(server.address, setId);
  expect(ids).toHaveLength(14);
  await page.goto(`${server.address}/sets/${setId}/describe/${ids[0]}`);
  await allMade(page);
  let presses = 0;
  const press = async (key: string) => {
    // A key that is held down for another is pressed, too.
    presses += key.split('+').length;
    await page.keyboard.press(key);
  };
  const alt = page.getByRole('textbox', { name: 'Alt text' });
  const inBench = (id: number) => expect(page).toHaveURL(new RegExp(`describe/${id}$`));
  const begin = async (id: number, key: string) => {
    await inBench(id);
    await expect(page.getByRole('heading', { name: 'What is it here for?' })).toBeFocused();
    await press(key);
  };
  const write = async (text: string) => {
    await expect(alt).toBeFocused();
    await page.keyboard.insertText(text);
  };
  for (const [n, text] of ALTS.entries()) {
    await begin(ids[n]!, '1');
    await write(text);
    await press('Enter');
  }
  await begin(ids[10]!, '2');
  await expect(page.getByRole('button', { name: 'Save, next without words' })).toBeFocused();
  await press('Enter');
  await begin(ids[11]!, '3');
  await write('All pots from this firing');
  await press('Enter');
  await expect(page.getByRole('textbox', { name: 'Leads to' })).toBeFocused();
  await page.keyboard.insertText('/shop?firing=autumn&all=1');
  await press('Enter');
  await begin(ids[12]!, '4');
  await expect(
    page.getByRole('heading', { name: 'Are these words on the page as text, too?' }),
  ).toBeVisible();
  await press('n');
  await write('Open today');
  await press('Enter');
  await begin(ids[13]!, '5');
  await write('Cones and their temperatures');
  await press('Enter');
  await expect(page.getByRole('textbox', { name: 'Long description' })).toBeFocused();
  for (const [n, line] of TABLE.entries()) {
    if (n > 0) await page.keyboard.press('Enter');
    await page.keyboard.insertText(line);
  }
  await press('Control+Enter');
  await expect(page.getByText('Every photo has its words.')).toBeVisible();
  expect(presses / ids.length).toBeLessThanOrEqual(3);
  await saved(page);
  await expect(page.getByRole('row', { name: '6 1222' })).toBeVisible();

  const known = await wordsOf(server.address, setId);
  expect(ids.slice(0, 10).map((id) => known.get(id)!.alt)).toEqual(ALTS);
  expect(known.get(ids[10]!)).toMatchObject({ role: 'decorative', alt: '' });
  expect(known.get(ids[11]!)).toMatchObject({ role: 'functional', link: '/shop?firing=autumn&all=1' });
  expect(known.get(ids[13]!)!.longDescription).toBe(`${TABLE[0]}\n\n${TABLE.slice(1).join('\n')}`);

  // The rules let the words go inside the files as well.
  await page.goto(`${server.address}/sets/${setId}/rules`);
  await page.getByRole('radio', { name: /^Its words and the credit/ }).check();
  await page.getByRole('button', { name: 'Let these rules hold' }).click();
  await saved(page);
  // A hand-over waits for a minute; on a busy machine all versions take longer.
  await allMade(page);
  const zip = unzipSync(
    new Uint8Array(await (await fetch(`${server.address}/api/sets/${setId}/hand-over.zip`)).arrayBuffer()),
  );
  const text = (name: string) => new TextDecoder().decode(zip[name]);
  const manifest = JSON.parse(text('manifest.json')) as {
    photos: { words: Words; variants: { path: string; format: string }[] }[];
  };
  expect(manifest.photos.map(({ words }) => words.alt)).toEqual(ids.map((id) => known.get(id)!.alt));
  const folder = await mkdtemp(join(tmpdir(), 'otter-words-'));
  for (const { words, variants } of manifest.photos) {
    const inside = variants.filter(({ format }) => format !== 'gif' && format !== 'svg');
    for (const format of new Set(inside.map((one) => one.format))) {
      const { path } = inside.find((one) => one.format === format)!;
      const file = join(folder, path.split('/').at(-1)!);
      await writeFile(file, zip[path]!);
      const said = execFileSync('exiftool', ['-j', '-charset', 'UTF8', '-XMP-iptcCore:all', file]).toString();
      const [xmp] = JSON.parse(said) as { AltTextAccessibility?: string; ExtDescrAccessibility?: string }[];
      expect(xmp!.AltTextAccessibility ?? '', path).toBe(words.alt);
      expect(xmp!.ExtDescrAccessibility ?? '', path).toBe(words.longDescription);
    }
  }
  await rm(folder, { recursive: true });
  const preview = await fetch(`${server.address}/api/sets/${setId}/words`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ text: text('words.csv') }),
  });
  // What is read back from the table is what is there: no word would change.
  expect(await preview.json()).toMatchObject({
    lines: 14,
    problem: null,
    unclear: [],
    waiting: { count: 0 },
  });
  await page.setContent(text('index.html'));
  for (const words of known.values()) {
    if (words.role === 'decorative') continue;
    expect(
      await page.locator('img').evaluateAll((all) => all.map((img) => img.getAttribute('alt'))),
    ).toContain(words.alt);
  }
  await expect(page.locator('a[href="/shop?firing=autumn&all=1"] img')).not.toHaveCount(0);
  await expect(page.locator('details table th[scope="row"]').first()).toHaveText('6');
});

test('a finding is mended with the focus kept, kept on purpose with a note, and taken back', async ({
  page,
  server,
  setId,
}) => {
  const { rows } = await server.state(setId);
  const plate = rows.find(({ words }) => words.alt === 'image of plate')!;
  await page.goto(`${server.address}/sets/${setId}/describe/${plate.id}`);
  const alt = page.getByRole('textbox', { name: 'Alt text' });
  await expect(alt).toBeFocused();
  await page.getByRole('button', { name: 'Mend' }).click();
  await expect(alt).toHaveValue('Plate');
  await expect(alt).toBeFocused();
  const finding = page.locator('[data-finding="hardly-says"]');
  await finding.getByRole('button', { name: 'Why?' }).click();
  await expect(finding.getByText('“Library.”')).toBeVisible();
  await finding.getByRole('button', { name: 'Keep it' }).click();
  await page.keyboard.type('The caption says the rest');
  await page.keyboard.press('Enter');
  await expect(finding.getByText('kept on purpose')).toBeVisible();
  await saved(page);
  const kept = (await wordsOf(server.address, setId)).get(plate.id)!.kept;
  expect(kept).toEqual({ 'hardly-says': 'The caption says the rest' });
  await page.keyboard.press('Control+z');
  await expect(finding.getByRole('button', { name: 'Keep it' })).toBeVisible();
  // A placeholder that is taken out is said, and can be put back.
  await alt.fill('test');
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(page.getByText('Taken out: “test”')).toBeVisible();
  await expect(alt).toBeFocused();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(alt).toHaveValue('test');
  // Esc leaves the field first, the bench afterwards.
  await page.keyboard.press('Escape');
  await expect(alt).not.toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/\/describe$/);
});

test('in one place a photo has words of its own, and takes the others again', async ({
  page,
  server,
  setId,
}) => {
  const { rows } = await server.state(setId);
  const kiln = rows.find(({ words }) => words.title === 'Wood kiln at dusk')!;
  await page.goto(`${server.address}/sets/${setId}/describe/${kiln.id}`);
  const alt = page.getByRole('textbox', { name: 'Alt text' });
  await expect(alt).toHaveValue(kiln.words.alt);
  const hold = page.getByRole('group', { name: 'Where these words hold' });
  await hold.getByRole('button').nth(1).click();
  await page.getByRole('button', { name: 'links', exact: true }).click();
  await alt.fill('Kiln diary, autumn');
  await page.getByRole('textbox', { name: 'Leads to' }).fill('/diary');
  await saved(page);
  await expect(hold.getByRole('button', { name: /: its own$/ })).toHaveCount(1);
  await hold.getByRole('button', { name: 'Everywhere' }).click();
  await expect(alt).toHaveValue(kiln.words.alt);
  await allMade(page);
  await page.goto(`${server.address}/preview/${setId}/index.html`);
  await expect(page.locator('a[href="/diary"] img')).toHaveAttribute('alt', 'Kiln diary, autumn');
  await expect(page.getByRole('img', { name: kiln.words.alt, exact: true })).not.toHaveCount(0);
  await page.goBack();
  await hold.getByRole('button', { name: /: its own$/ }).click();
  await page.getByRole('button', { name: 'Take the photo’s words again' }).click();
  await expect(alt).toHaveValue(kiln.words.alt);
  await saved(page);
  const after = (await server.state(setId)).rows.find(({ id }) => id === kiln.id)!;
  expect(after.placements!.every(({ words }) => Object.keys(words).length === 0)).toBe(true);
});

test('axe finds nothing at the describe bench and in the reading preview', async ({
  page,
  server,
  setId,
}) => {
  const { rows } = await server.state(setId);
  const ids = [rows.find(({ words }) => words.role === null)!.id, rows[5]!.id, rows.at(-1)!.id];
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    for (const path of [...ids.map((id) => `describe/${id}`), 'reading']) {
      await page.goto(`${server.address}/sets/${setId}/${path}`);
      await expect(page.getByRole('heading', { name: 'Read aloud' })).toBeVisible();
      expect(await axeFindings(page), `${path} at ${width}`).toEqual([]);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
  }
});
