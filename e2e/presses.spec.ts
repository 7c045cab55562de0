// What building a page costs in clicks and presses: a gallery of 24 in twelves, a hero of four with words and links, and a
// feed with a text and a film.
import type { Locator, Page } from '@playwright/test';
import sharp from 'sharp';
import { drop, expect, saved, test, trayOf } from './application.ts';

test.use({ serverOf: 'presses' });

/** A plain photo, each of another shade. */
const photo = (shade: number): Promise<Buffer> =>
  sharp({
    create: { width: 600, height: 400, channels: 3, background: { r: shade, g: 120, b: 90 } },
  })
    .jpeg()
    .toBuffer();

/** Clicks and presses beyond the texts that are typed. */
const MOST = 70;

class Hand {
  count = 0;
  constructor(private readonly page: Page) {}
  async click(what: Locator, modifiers: ('Shift' | 'Control')[] = []): Promise<void> {
    this.count += 1;
    await what.click({ modifiers });
  }
  async press(key: string): Promise<void> {
    this.count += 1;
    await this.page.keyboard.press(key);
  }
  /** Texts themselves are not counted. */
  async type(text: string): Promise<void> {
    await this.page.keyboard.insertText(text);
  }
  /** Opened and chosen. */
  async choose(select: Locator, value: string): Promise<void> {
    this.count += 2;
    await select.selectOption(value);
  }
}

async function make(page: Page, hand: Hand, title: string): Promise<void> {
  await hand.click(page.getByRole('button', { name: 'New arrangement' }));
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await hand.type(title);
  await hand.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

test('a gallery, a hero and a feed take few of them', async ({ page, server }, info) => {
  const sites = (await (
    await fetch(`${server.address}/api/sites`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"name":"Gullmoor Pottery"}',
    })
  ).json()) as { id: number };
  const made = await fetch(`${server.address}/api/sites/${sites.id}/sets`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"name":"Winter glazes"}',
  });
  const { id } = (await made.json()) as { id: number };
  // What is built is counted, not what is made of it meanwhile.
  await fetch(`${server.address}/api/sets/${id}/preparation`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: '{"paused":true}',
  });
  await page.goto(`${server.address}/sets/${id}/arrange`);
  const files = await Promise.all(
    Array.from({ length: 24 }, async (_, n) => ({
      name: `pot-${String(n + 1).padStart(2, '0')}.jpg`,
      bytes: await photo(n * 10 + 5),
      type: 'image/jpeg',
    })),
  );
  await drop(page, files);
  const tray = trayOf(page);
  await expect(tray).toHaveCount(24);
  const hand = new Hand(page);
  const keep = () => hand.click(page.getByRole('button', { name: 'Keep it so' }));
  const kind = (name: string) => hand.click(page.getByRole('button', { name, exact: true }));
  const back = () => hand.click(page.getByRole('link', { name: 'Back to the table' }));

  // The gallery: all of them, square, twelve a page.
  await make(page, hand, 'All pots');
  await hand.choose(page.getByRole('combobox', { name: 'Shape' }), '1:1');
  await hand.click(page.getByRole('checkbox', { name: 'all of them' }));
  const perPage = page.getByRole('textbox', { name: 'On a page' });
  await hand.click(perPage);
  await hand.press('Control+a');
  await hand.type('12');
  await hand.press('Enter');
  await keep();
  await saved(page);
  await back();

  // The hero: four of them, with words and links, from field to field.
  await hand.click(tray.nth(0));
  for (const n of [3, 7, 12]) await hand.click(tray.nth(n), ['Control']);
  await make(page, hand, 'Welcome');
  await kind('Rotating');
  await keep();
  await saved(page);
  const before = hand.count;
  await hand.click(page.getByRole('textbox', { name: /^Words of pot-01/ }));
  for (let n = 0; n < 4; n += 1) {
    if (n > 0) await hand.press('Tab');
    await hand.type(`Pot ${n + 1}\nFrom the winter firing`);
    await hand.press('Tab');
    await hand.type(`../pot-${n + 1}/`);
  }
  const aPicture = (hand.count - before) / 4;
  await saved(page);
  await back();

  // The feed: two of them, a text between, the second a film's poster.
  await hand.click(tray.nth(4));
  await hand.click(tray.nth(5), ['Control']);
  await make(page, hand, 'Day by day');
  await kind('Feed');
  await keep();
  await hand.click(page.getByRole('button', { name: 'Another text' }));
  await hand.click(page.getByRole('textbox', { name: 'Heading' }));
  await hand.type('The second day');
  await hand.click(
    page
      .getByRole('region', { name: 'In order' })
      .getByRole('button', { name: /pot-06/ })
      .last(),
  );
  await hand.click(page.getByRole('textbox', { name: 'Leads to' }));
  await hand.type('films/throwing.webm');
  await saved(page);

  const { site, set, rows } = await server.state(id);
  const optionsOf = (name: string) => site.slots.find((slot) => slot.name === name)!.arranged!.options;
  expect(optionsOf('All pots')).toMatchObject({ kind: 'grid', shape: '1:1', perPage: 12 });
  expect(optionsOf('Welcome')).toMatchObject({ kind: 'rotating' });
  expect(optionsOf('Day by day')).toMatchObject({ kind: 'feed', between: [{ heading: 'The second day' }] });
  expect(set.slots).toEqual(['all-pots']);
  const hero = rows.flatMap(({ placements }) => placements?.filter(({ slot }) => slot === 'welcome') ?? []);
  expect(hero.map(({ words, link }) => [words.title, words.caption, link])).toEqual(
    [1, 2, 3, 4].map((n) => [`Pot ${n}`, 'From the winter firing', `../pot-${n}/`]),
  );
  const film = rows.flatMap(
    ({ placements }) => placements?.filter(({ link }) => link.endsWith('.webm')) ?? [],
  );
  expect(film).toMatchObject([{ slot: 'day-by-day' }]);
  info.annotations.push({ type: 'presses', description: `${hand.count}, ${aPicture} a picture of the hero` });
  console.log(`clicks and presses: ${hand.count}; ${aPicture} a picture of the hero`);
  expect(aPicture).toBeLessThanOrEqual(2);
  expect(hand.count).toBeLessThanOrEqual(MOST);
});
