// The page of a set, as one puts it together; galleries that lead to each other; words over a hero that can be read. What an
// editor has to press for each is counted.
import type { Locator, Page, TestInfo } from '@playwright/test';
import type { SetPage } from '../packages/core/src/contract/index.ts';
import {
  FIRST_FIVE,
  allMade,
  arrangeFirst,
  axeFindings,
  expect,
  keepFew,
  openFirst,
  saved,
  test,
} from './application.ts';

/** Counts what is pressed, and says so with the test. */
class Presses {
  private count = 0;
  constructor(private readonly page: Page) {}

  async click(locator: Locator): Promise<void> {
    this.count += 1;
    await locator.click();
  }
  async key(name: string): Promise<void> {
    this.count += 1;
    await this.page.keyboard.press(name);
  }
  /** A choice of a list: to open it, and to take one. */
  async choose(locator: Locator, label: string): Promise<void> {
    this.count += 2;
    await locator.selectOption({ label });
  }
  /** A word that is typed counts once. */
  async type(locator: Locator, text: string): Promise<void> {
    this.count += 1;
    await locator.fill(text);
    await locator.press('Enter');
  }
  told(info: TestInfo, what: string, most: number): void {
    info.annotations.push({ type: 'presses', description: `${what}: ${this.count}` });
    console.log(`presses for ${what}: ${this.count}`);
    expect(this.count, what).toBeLessThanOrEqual(most);
    this.count = 0;
  }
}

const pageOf = async (address: string, setId: number): Promise<SetPage | null> => {
  const response = await fetch(`${address}/api/sets/${setId}`);
  return ((await response.json()) as { set: { page: SetPage | null } }).set.page;
};

/** An arrangement of the first photos of the demo's set, made as one makes it. */
async function newArrangement(page: Page, address: string, setId: number, title: string, photos = 4) {
  await page.goto(`${address}/sets/${setId}/arrange`);
  await arrangeFirst(page, title, photos);
  await saved(page);
}
const proofOf = (page: Page) => page.frameLocator('iframe[aria-hidden="false"]');

test('a page is put together: parts, texts, title, design, template; everything is taken back', async ({
  page,
  server,
  setId,
}) => {
  await keepFew(server, setId, FIRST_FIVE);
  await newArrangement(page, server.address, setId, 'Pots from this firing');
  await page.getByRole('link', { name: 'The page' }).click();
  const parts = page.getByRole('region', { name: 'On the page, in order' }).getByRole('listitem');
  // It begins as what follows from where photos stand.
  await expect(parts.filter({ hasText: 'Pots from this firing' })).toHaveCount(1);
  expect(await pageOf(server.address, setId)).toBeNull();
  const before = await parts.count();
  const put = async (name: string) => {
    await page.getByRole('button', { name: 'Put in…' }).click();
    await page.getByRole('menuitem', { name }).click();
  };
  await put('A heading');
  const says = page.getByRole('textbox', { name: 'What it says' });
  await says.fill('');
  await expect(page.getByRole('alert')).toContainText('A heading says something');
  await says.fill('Out of the kiln');
  await put('A text');
  await expect(parts).toHaveCount(before + 2);
  const text = page.getByRole('textbox', { name: /^Text \d+ on the page/ });
  await text.pressSequentially('We lit it at five.');
  await text.press('Control+A');
  await page.getByRole('button', { name: 'Strong' }).click();
  await page.getByRole('button', { name: 'Link…' }).click();
  await page.getByRole('textbox', { name: 'The link leads to' }).fill('javascript:alert(1)');
  await expect(page.getByRole('alert')).toContainText('can’t lead');
  await page.getByRole('textbox', { name: 'The link leads to' }).fill('../shop/');
  await page.keyboard.press('Enter');
  await saved(page);
  const proof = proofOf(page);
  await expect(proof.getByRole('heading', { level: 2, name: 'Out of the kiln' })).toBeVisible();
  await expect(proof.locator('a[href="../shop/"] strong')).toHaveText('We lit it at five.');
  expect(await axeFindings(page)).toEqual([]);

  // By keys to where it is to stand.
  await parts.nth(before).getByRole('button', { name: 'Move Out of the kiln' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/Out of the kiln is (?:picked up|over .*), at place/).first()).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText(`at place ${before} of ${before + 2}.`).first()).toBeAttached();
  await page.keyboard.press('Space');
  await expect(parts.nth(before - 1)).toContainText('Out of the kiln');

  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('Still warm');
  await page.getByRole('textbox', { name: /^Description/ }).fill('The autumn firing');
  await page.getByRole('textbox', { name: 'Folder on the site' }).fill('../up');
  await expect(page.getByRole('alert')).toContainText('Small letters');
  await page.getByRole('textbox', { name: 'Folder on the site' }).fill('firing');
  await page.getByRole('checkbox', { name: 'has a link home' }).check();
  await page.getByRole('radio', { name: /^Wide/ }).check();
  await page.getByRole('button', { name: 'dark', exact: true }).click();
  await saved(page);
  expect(await pageOf(server.address, setId)).toMatchObject({
    ...{
      title: 'Still warm',
      description: 'The autumn firing',
      folder: 'firing',
      design: 'wide',
      tone: 'dark',
    },
    home: { text: 'Home', address: '../' },
  });
  await expect(proof.getByRole('link', { name: 'Home' })).toBeVisible();
  await expect(proof.locator('body')).toHaveCSS('background-color', 'rgb(23, 24, 28)');

  // A file of one's own: a wrong one says why.
  await page.getByRole('radio', { name: /^Your file/ }).check();
  const file = page.getByLabel('HTML file', { exact: true });
  const template = (body: string) => ({
    name: 'ours.html',
    mimeType: 'text/html',
    buffer: Buffer.from(
      `<!doctype html><html lang="en"><head><title>T</title></head><body>${body}</body></html>`,
    ),
  });
  await file.setInputFiles(template('<p>Nothing marked</p>'));
  await expect(page.getByRole('alert')).toContainText('no marked spot');
  await file.setInputFiles(template('<h1>Ours</h1><main><!-- dusky: page --></main>'));
  await expect(proof.getByRole('heading', { level: 1, name: 'Ours' })).toBeVisible();
  await expect(proof.getByRole('heading', { level: 2, name: 'Out of the kiln' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(proof.getByRole('heading', { level: 1, name: 'Still warm' })).toBeVisible();

  // As it goes out, on a phone.
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await axeFindings(page)).toEqual([]);
  await page.goto(`${server.address}/preview/${setId}/`);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  expect(await axeFindings(page)).toEqual([]);
});

test('hover captions, pages of n, a first picture added, one moved, one taken out', async ({
  page,
  server,
  setId,
}, info) => {
  await newArrangement(page, server.address, setId, 'Counted');
  const presses = new Presses(page);
  const proof = proofOf(page);
  const pictures = page.getByRole('region', { name: 'In order' }).getByRole('listitem');
  const keep = page.getByRole('button', { name: 'Keep it so' });
  await presses.choose(page.getByLabel('Captions'), 'over the picture');
  await presses.click(keep);
  await expect(proof.locator('.dusky-over')).toBeVisible();
  const hovered = proof.locator('.dusky-over figure', { has: page.locator('figcaption') }).first();
  await hovered.hover();
  await expect(hovered.locator('figcaption')).toHaveCSS('opacity', '1');
  presses.told(info, 'hover captions', 3);

  await presses.click(page.getByRole('checkbox', { name: 'all of them' }));
  await presses.type(page.getByRole('textbox', { name: /^On a page/ }), '2');
  await presses.click(keep);
  await expect(proof.locator('.dusky-cells > li')).toHaveCount(2);
  await saved(page);
  await allMade(page);
  // The last file may bring the page anew just as it is turned.
  await expect(async () => {
    await proof.getByRole('link', { name: 'Page 2' }).click();
    await expect(proof.getByRole('link', { name: 'Page 2' })).toHaveAttribute('aria-current', 'page', {
      timeout: 5_000,
    });
  }).toPass();
  presses.told(info, 'pages of n', 4);
  // What is tried is shown on the page where one is.
  await page.getByLabel('Captions').selectOption('below');
  await expect(proof.locator('.dusky-over')).toHaveCount(0);
  await expect(proof.getByRole('link', { name: 'Page 2' })).toHaveAttribute('aria-current', 'page');
  await page.getByLabel('Captions').selectOption('over');
  await expect(proof.locator('.dusky-over')).toBeVisible();
  await proof.getByRole('link', { name: 'Page 1' }).click();
  await expect(proof.getByRole('link', { name: 'Page 1' })).toHaveAttribute('aria-current', 'page');

  const names = () => pictures.locator('b').allTextContents();
  await presses.click(page.getByRole('button', { name: 'Put in…' }));
  const sheet = page.getByRole('dialog', { name: 'Put photos in' });
  const offered = sheet.getByRole('checkbox').first();
  await presses.click(offered);
  await presses.click(sheet.getByRole('button', { name: 'Put 1 in' }));
  await expect(pictures).toHaveCount(5);
  const added = (await names())[4]!;
  await presses.click(pictures.nth(4).getByRole('checkbox'));
  await presses.click(page.getByRole('button', { name: 'To the front' }));
  await expect.poll(async () => (await names())[0]).toBe(added);
  presses.told(info, 'a first picture added later', 5);

  await presses.click(page.getByRole('button', { name: 'Down', exact: true }));
  await expect.poll(async () => (await names())[1]).toBe(added);
  presses.told(info, 'a picked picture moved by one', 1);
  await presses.click(page.getByRole('button', { name: 'Out', exact: true }));
  await expect(pictures).toHaveCount(4);
  presses.told(info, 'a picked picture taken out', 1);

  // What differs here alone: words, where it leads, and its crop.
  await pictures.first().getByTitle('What differs here alone').click();
  await page.getByRole('textbox', { name: 'Caption here' }).fill('Only on this page');
  await page.getByRole('textbox', { name: 'Leads to' }).fill('javascript:0');
  await expect(page.getByRole('alert')).toContainText('can’t lead');
  await page.getByRole('textbox', { name: 'Leads to' }).fill('/shop/');
  await page.getByRole('textbox', { name: 'Leads to' }).press('Enter');
  await expect(proof.getByText('Only on this page')).toBeAttached();
  await expect(proof.locator('a[href="/shop/"]')).toBeVisible();
  const crop = page.getByRole('application', { name: /^Crop here/ });
  await crop.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('+');
  await expect(page.getByText('Yours, here alone.')).toBeVisible();
  await page.getByRole('button', { name: 'As everywhere' }).click();
  await expect(page.getByText('As everywhere.')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
});

test('galleries: an index leads to other sets, and photos come from them', async ({
  page,
  server,
  setId,
}, info) => {
  const site = (await server.state(setId)).site.id;
  const made = await fetch(`${server.address}/api/sites/${site}/sets`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Beach finds' }),
  });
  const { id: other } = (await made.json()) as { id: number };
  await openFirst(server.address, other);
  const { rows } = await server.state(setId);
  const away = rows.slice(-2);
  await fetch(`${server.address}/api/sets/${other}/photos`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ photos: away.map(({ id }) => id) }),
  });
  await newArrangement(page, server.address, other, 'All galleries', 1);
  const presses = new Presses(page);
  await presses.click(page.getByRole('button', { name: 'Index', exact: true }));
  await presses.click(page.getByRole('button', { name: 'Keep it so' }));
  const { name } = (await server.state(setId)).set;
  await presses.choose(page.getByRole('combobox', { name: /^Another gallery/ }), name);
  presses.told(info, 'a sub-gallery', 4);
  const proof = proofOf(page);
  const link = proof.getByRole('link', { name: new RegExp(`^${name} 14 pictures`) });
  await expect(link).toHaveAttribute('href', `/preview/${setId}/`);
  await page.getByRole('textbox', { name: 'Text below it' }).fill('From the wheel to the fire');
  await expect(proof.getByText('From the wheel to the fire')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  // The cover came from the other set.
  await expect.poll(async () => (await server.state(other)).rows.length).toBe(3);
  // Another photo of that set, and one that is here already is not offered.
  await page.getByRole('button', { name: 'Put in…' }).click();
  const sheet = page.getByRole('dialog', { name: 'Put photos in' });
  await sheet.getByRole('combobox', { name: 'Photos of' }).selectOption({ label: name });
  await expect(sheet.getByRole('checkbox')).toHaveCount(12);
  await sheet.getByRole('checkbox', { name: 'Night at the kiln' }).check();
  await sheet.getByRole('button', { name: 'Put 1 in' }).click();
  await expect(page.getByRole('region', { name: 'In order' }).getByRole('listitem')).toHaveCount(3);
});

test('a feed has texts between its pictures; a hero’s words are measured, covered and read', async ({
  page,
  server,
  setId,
}) => {
  await keepFew(server, setId, FIRST_FIVE);
  await newArrangement(page, server.address, setId, 'Diary', 3);
  const proof = proofOf(page);
  const keep = page.getByRole('button', { name: 'Keep it so' });
  await page.getByRole('button', { name: 'Feed', exact: true }).click();
  await keep.click();
  await page.getByRole('button', { name: 'Another text' }).click();
  await page.getByRole('textbox', { name: 'Heading' }).fill('The first day');
  await page.getByRole('textbox', { name: /^Text 1 of Diary/ }).pressSequentially('Clay.');
  await page.getByRole('combobox', { name: /^Stands/ }).selectOption({ label: 'behind all pictures' });
  await expect(proof.locator('.dusky-cells > li').last().locator('h2')).toHaveText('The first day');
  await expect(proof.getByText('Clay.')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);

  await page.getByRole('button', { name: 'Rotating', exact: true }).click();
  await page.getByLabel('Words', { exact: true }).selectOption({ label: 'over it, with a button' });
  const covered = page.getByRole('textbox', { name: /^Behind them/ });
  await covered.fill('0');
  await covered.press('Enter');
  const legible = page.getByRole('region', { name: 'Words that can be read' });
  await expect(legible.getByText(/^Not everywhere: contrast/)).toBeVisible();
  await legible.getByRole('button', { name: /^Cover \d+ % behind them/ }).click();
  await expect(legible.getByText(/^Everywhere: contrast/)).toBeVisible();
  await keep.click();
  await saved(page);
  await allMade(page);
  // Axe computes no contrast over pictures: what was found is held against the pixels of the page that went out.
  const { slots } = (await server.state(setId)).site;
  const options = slots.find(({ id }) => id === 'diary')!.arranged!.options;
  expect(options).toMatchObject({ kind: 'rotating', texts: 'over' });
  expect('scrim' in options && options.scrim).toBeGreaterThan(0.1);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${server.address}/preview/${setId}/`);
  const words = page.locator('.dusky-worded .dusky-shown figcaption strong');
  await words.scrollIntoViewIfNeeded();
  const worst = await contrastSeen(page, words);
  expect(worst).toBeGreaterThan(4);
});

/** The contrast of white with the screen around letters: what shows when the letters are not there. */
async function contrastSeen(page: Page, words: Locator): Promise<number> {
  await words.evaluate((element) => ((element as HTMLElement).style.color = 'transparent'));
  const shot = await words.screenshot();
  return page.evaluate(
    async (bytes) => {
      const picture = await createImageBitmap(new Blob([new Uint8Array(bytes)]));
      const canvas = new OffscreenCanvas(picture.width, picture.height);
      const context = canvas.getContext('2d')!;
      context.drawImage(picture, 0, 0);
      const { data } = context.getImageData(0, 0, picture.width, picture.height);
      const linear = (code: number) =>
        code / 255 <= 0.04045 ? code / 255 / 12.92 : ((code / 255 + 0.055) / 1.055) ** 2.4;
      const all: number[] = [];
      for (let at = 0; at < data.length; at += 4)
        all.push(
          1.05 /
            (0.2126 * linear(data[at]!) +
              0.7152 * linear(data[at + 1]!) +
              0.0722 * linear(data[at + 2]!) +
              0.05),
        );
      return all.sort((a, b) => a - b)[Math.floor(all.length / 100)]!;
    },
    [...shot],
  );
}
