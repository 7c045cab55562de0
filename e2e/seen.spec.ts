// What editors see beside the work itself: where they are, what is next, what is wrong, on any screen.
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import type { Page } from '@playwright/test';
import { allMade, axeFindings, drop, expect, rowOf, saved, test } from './application.ts';

const photo = (shade: number, width = 1200, height = 900) =>
  sharp({ create: { width, height, channels: 3, background: { r: shade, g: 120, b: 90 } } })
    .jpeg()
    .toBuffer();

async function newSet(page: Page, address: string, name: string): Promise<void> {
  await page.goto(address);
  await page.getByRole('button', { name: 'New set' }).first().click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Drop photos anywhere on this window' })).toBeVisible();
}

test('each stop says its own name, next step and page title; its count is its own', async ({
  page,
  server,
  setId,
}) => {
  const stops = [
    ['gather', 'Gather photos', 'Add photos'],
    ['frame', 'Frame photos', 'Next crop to confirm'],
    ['weigh', 'Weigh files', 'Next that needs care'],
    ['describe', 'Describe photos', 'Next without words'],
    ['arrange', 'Arrange photos', 'Add photos'],
    ['rehearse', 'Rehearse the page', 'The page is right'],
    ['hand-over', 'Hand over files', 'Download the files'],
  ] as const;
  for (const [stop, heading, next] of stops) {
    await page.goto(`${server.address}/sets/${setId}/${stop}`);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(heading);
    await expect(page.locator('.btn-main')).toHaveText(next);
    await expect(page).toHaveTitle(`${heading} · Kiln diary, autumn firing · Dusky Otter`);
  }
  await page.goto(`${server.address}/sets/${setId}/frame`);
  await page.getByRole('button', { name: 'Next crop to confirm' }).click();
  await expect(page.getByText('○ Focal point is a guess')).toBeVisible();
});

test('Arrange, Rehearse and Hand over are done by their work, and undone by a change', async ({
  page,
  server,
  setId,
}) => {
  expect(setId).toBeGreaterThan(0);
  await newSet(page, server.address, 'Done by work');
  await drop(page, [{ name: 'a.jpg', bytes: await photo(60), type: 'image/jpeg' }]);
  await expect(rowOf(page, 'a.jpg')).toBeVisible();
  const stop = (name: string) => page.getByRole('link', { name: new RegExp(`^${name}`) });
  await expect(stop('Arrange')).toContainText('1 left not begun');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(stop('Arrange')).toContainText('done');
  await allMade(page);
  await stop('Rehearse').click();
  await page.getByRole('button', { name: 'The page is right' }).click();
  await expect(stop('Rehearse')).toContainText('done');
  await stop('Hand over').click();
  await page.getByRole('button', { name: 'Download the files' }).click();
  const download = page.waitForEvent('download');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Download/ })
    .click();
  await download;
  await expect(stop('Hand over')).toContainText('out done');
  await stop('Describe').click();
  await page.getByLabel('Alt text of a.jpg').fill('A brown tile.');
  await saved(page);
  await expect(stop('Hand over')).toContainText('not begun');
  await expect(stop('Rehearse')).toContainText('not begun');
  await expect(stop('Arrange')).toContainText('done');
});

test('a mistyped address says so, with the way on', async ({ page, server, setId }) => {
  for (const path of ['/nowhere', `/sets/${setId}/ponder`]) {
    const response = await page.goto(`${server.address}${path}`);
    expect(response!.status()).toBe(path === '/nowhere' ? 404 : 200);
    await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible();
    expect(await axeFindings(page), path).toEqual([]);
    await page.getByRole('link', { name: 'Sites and sets' }).click();
    await expect(page.getByRole('heading', { name: 'Gullmoor Pottery' }).first()).toBeVisible();
  }
});

test('finding knows words, not scattered letters, and actions by name', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(rowOf(page, 'Bay at dusk')).toBeVisible();
  const open = async (text: string) => {
    await page.getByRole('button', { name: 'Find a photo or action' }).click();
    await page.getByPlaceholder('Find a photo, a place, or what you want to do').fill(text);
    return page.getByRole('option');
  };
  // The letters of "btd" stand in "Bay at dusk"; the word does not.
  await expect(await open('btd')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect((await open('dusk bay')).first()).toContainText('Bay at dusk');
  await page.keyboard.press('Escape');
  await expect((await open('zip')).first()).toContainText('Download as ZIP');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Download as ZIP' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect((await open('keys')).first()).toContainText('Keys of this screen');
});

test('eight refused files need one press', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  const files = Array.from({ length: 8 }, (_, i) => ({
    name: `note-${i}.jpg`,
    bytes: Buffer.from(`note ${i}`),
    type: 'image/jpeg',
  }));
  await drop(page, files);
  const list = page.getByRole('list', { name: 'Files on their way' });
  await expect(list.getByText('not taken in')).toHaveCount(8);
  await expect(page.getByRole('link', { name: /^Gather/ })).toContainText('14, 8 refused');
  await list.getByRole('button', { name: 'Put all away' }).click();
  await expect(list).toBeHidden();
  await page.reload();
  await expect(rowOf(page, 'Bay at dusk')).toBeVisible();
  await expect(list).toBeHidden();
});

test('the foot never acts on what the filter hides', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  const foot = page.locator('footer');
  await rowOf(page, 'Bay at dusk').getByText(/ × /).first().click();
  await rowOf(page, 'GM_0418.JPG')
    .getByText(/ × /)
    .first()
    .click({ modifiers: ['Control'] });
  await expect(foot).toContainText('2 selected');
  await page.getByRole('button', { name: /^Need words/ }).click();
  await expect(foot).toContainText('1 selected, 1 more hidden by the filter');
  await foot.getByRole('button', { name: 'Put into bin' }).click();
  await expect(page.getByRole('button', { name: 'All 13' })).toBeVisible();
  await page.getByRole('button', { name: 'All 13' }).click();
  await expect(rowOf(page, 'Bay at dusk')).toBeVisible();
  await expect(rowOf(page, 'GM_0418.JPG')).toBeHidden();
  // Shift reaches from where one is when its anchor went out of sight.
  await rowOf(page, 'Bay at dusk').getByText(/ × /).first().click();
  await page.getByRole('button', { name: /^Need words/ }).click();
  await rowOf(page, 'Plate on slate')
    .getByText(/ × /)
    .first()
    .click({ modifiers: ['Shift'] });
  await expect(foot).toContainText('1 selected');
});

test('the bin is emptied for good, after one more question', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await rowOf(page, 'Drying shelf').getByText(/ × /).first().click();
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Bin 1' }).click();
  await page.getByRole('button', { name: 'Empty the bin' }).click();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Keep them' }).click();
  await page.getByRole('button', { name: 'Empty the bin' }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByText('1 photo deleted for good.')).toBeVisible();
  await expect(page.getByText('The bin is empty.')).toBeVisible();
  expect((await server.state(setId)).rows).toHaveLength(13);
});

test('a title of any length is one edit, however often it is saved; the photo can be edited on', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/describe`);
  const title = rowOf(page, 'GM_0418.JPG').getByLabel('Title, and file name');
  const before = (await server.state(setId)).edits.undo;
  // Each pause is an autosave of its own.
  for (const text of ['A long', ` story${' of glaze'.repeat(40)}`, ' and fire']) {
    await title.press('End');
    await page.keyboard.insertText(text);
    await expect
      .poll(
        async () =>
          (await server.state(setId)).rows.find((row) => row.fileName === 'GM_0418.JPG')!.words.title,
      )
      .toContain(text.trim());
  }
  await saved(page);
  expect((await server.state(setId)).edits.undo).toBe(before + 1);
  await page.getByLabel('Alt text of GM_0418.JPG').fill('A green vase.');
  await saved(page);
  expect((await server.state(setId)).edits.undo).toBe(before + 2);
});

test('what a check moves into the long description has a field, and reaches the page', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/describe`);
  const row = rowOf(page, 'Drying shelf');
  const first =
    'Bowls in rows on the drying shelf, most of them sea green or white, with three jugs behind them.';
  const rest =
    'On the floor stand two buckets of glaze, a broom, and a tray of broken pieces that wait to be thrown away.';
  await row.getByLabel('Alt text of GM_0412.JPG').fill(`${first} ${rest}`);
  await row.getByRole('button', { name: 'Mend' }).click();
  await expect(row.getByLabel('Alt text of GM_0412.JPG')).toHaveValue(first);
  await expect(row.getByLabel('Long description, folded below the photo')).toHaveValue(`${first} ${rest}`);
  await saved(page);
  await allMade(page);
  const html = await (await fetch(`${server.address}/preview/${setId}/index.html`)).text();
  expect(html).toContain('<summary>Description of “Drying shelf”</summary>');
  expect(html).toContain(rest);
});

test('Weigh says quality and difference of a file as soon as it is made', async ({ page, server, setId }) => {
  expect(setId).toBeGreaterThan(0);
  await newSet(page, server.address, 'Weighed at once');
  await page.getByRole('link', { name: /^Weigh/ }).click();
  await drop(page, [{ name: 'tile.jpg', bytes: await photo(77), type: 'image/jpeg' }]);
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(rowOf(page, 'tile.jpg')).toContainText(/Visible difference \d\.\d\d at most, of 2 allowed\./);
  await allMade(page);
  const said = async () => /\d+ of \d+ files.*/.exec(await rowOf(page, 'tile.jpg').innerText())![0];
  const live = await said();
  await page.reload();
  await allMade(page);
  expect(await said()).toBe(live);
});

test('the rehearsed page is not shown anew for every file that is made', async ({ page, server, setId }) => {
  expect(setId).toBeGreaterThan(0);
  await newSet(page, server.address, 'Calm preview');
  const made = await Promise.all([40, 90, 140, 190].map((shade) => photo(shade, 2600, 1800)));
  await drop(
    page,
    made.map((bytes, i) => ({ name: `calm-${i}.jpg`, bytes, type: 'image/jpeg' })),
  );
  await page.getByRole('button', { name: 'Take it' }).click();
  for (const i of [0, 1, 2, 3]) await expect(rowOf(page, `calm-${i}.jpg`)).toBeVisible();
  let loads = 0;
  page.on('request', (request) => {
    if (request.url().endsWith('/index.html') && request.url().includes('/preview/')) loads += 1;
  });
  await page.getByRole('link', { name: /^Rehearse/ }).click();
  await allMade(page);
  await expect(page.frameLocator('iframe').locator('img').first()).toBeVisible();
  // Once when it was opened, once when everything was there.
  expect(loads).toBeGreaterThan(0);
  expect(loads).toBeLessThanOrEqual(2);
});

for (const [name, viewport] of [
  ['on a phone', { width: 390, height: 800 }],
  ['zoomed to 200 %', { width: 640, height: 400 }],
] as const) {
  test(`nothing disappears ${name}: download, copy, undo, and where one is`, async ({
    page,
    server,
    setId,
  }) => {
    await page.setViewportSize(viewport);
    await page.goto(`${server.address}/sets/${setId}/hand-over`);
    await expect(page.getByRole('link', { name: /^Hand over/ })).toBeInViewport();
    const foot = page.locator('footer');
    for (const action of ['Copy markup', 'Download'])
      await foot.getByRole('button', { name: action }).click({ trial: true });
    const alt = page.getByLabel('Alt text of GM_0418.JPG');
    await page.goto(`${server.address}/sets/${setId}/describe`);
    await expect(page.getByRole('link', { name: /^Describe/ })).toBeInViewport();
    await alt.scrollIntoViewIfNeeded();
    await alt.fill('A green vase.');
    await saved(page);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(alt).toHaveValue('');
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      viewport.width,
    );
  });
}

test('the handed-over page is not wider than a window with a scroll bar', async ({ server, setId }) => {
  // Browsers under test hide scroll bars; this one shows them, and they take room.
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    ignoreDefaultArgs: ['--hide-scrollbars'],
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1000, height: 700 } });
    await page.goto(`${server.address}/sets/${setId}/gather`);
    await allMade(page);
    await page.goto(`${server.address}/preview/${setId}/index.html`);
    const { inner, client, scroll, hero, grid } = await page.evaluate(() => ({
      inner: window.innerWidth,
      client: document.documentElement.clientWidth,
      scroll: document.documentElement.scrollWidth,
      hero: document.querySelector('.dusky-in-hero img')!.getBoundingClientRect().width,
      grid: new Set(
        [...document.querySelectorAll('.dusky-in-grid')].map((figure) =>
          Math.round(figure.getBoundingClientRect().top),
        ),
      ).size,
    }));
    expect(inner - client).toBeGreaterThan(5);
    expect([scroll, hero]).toEqual([client, client]);
    expect(grid).toBeGreaterThan(1);
  } finally {
    await browser.close();
  }
});
