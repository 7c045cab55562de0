// Ways in: photos dropped on the first screen or pasted, a window that is left while files wait, and the finder as people
// ask it.
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { drop, expect, rowOf, test } from './application.ts';

test.use({ serverOf: 'ways-in' });

/** A small picture of one colour. */
async function picture(name: string, background: string) {
  const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background } })
    .jpeg()
    .toBuffer();
  return { name, bytes, type: 'image/jpeg' };
}

/** Pastes a file as browsers do: as the clipboard's. */
async function paste(page: Page, { name, bytes, type }: Awaited<ReturnType<typeof picture>>): Promise<void> {
  await page.evaluate(
    ({ name: called, base64, type: kind }) => {
      const data = new DataTransfer();
      const letters = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      data.items.add(new File([letters], called, { type: kind }));
      document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    },
    { name, base64: bytes.toString('base64'), type },
  );
}

test('photos dropped on the empty first screen begin a site and a set; later ones are asked where they belong', async ({
  page,
  server,
}) => {
  await page.goto(server.address);
  await expect(page.getByRole('heading', { name: /From a batch of photos/ })).toBeVisible();
  await drop(page, [await picture('first.jpg', '#a33')]);
  await expect(page).toHaveURL(/\/gather$/);
  await expect(rowOf(page, 'first.jpg')).toBeVisible();
  await page.getByRole('link', { name: 'My site' }).click();
  await drop(page, [await picture('second.jpg', '#3a3'), await picture('third.jpg', '#33a')]);
  const sheet = page.getByRole('dialog', { name: 'Where do 2 files belong?' });
  await sheet.getByRole('button', { name: /^Photos of/ }).click();
  await expect(rowOf(page, 'third.jpg')).toBeVisible();
  await expect(rowOf(page, 'first.jpg')).toBeVisible();
  // A picture that was copied on a screen has no name of its own.
  await paste(page, await picture('image.png', '#333'));
  await expect(rowOf(page, 'pasted-')).toBeVisible();
  await page.getByRole('link', { name: 'My site' }).click();
  await page.getByRole('link', { name: /^\d+ places?$/ }).click();
  await expect(page.getByRole('heading', { name: 'Places' })).toBeVisible();
});

test('leaving while files wait is asked about; afterwards it is said which did not arrive', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  // A server that never answers.
  await page.route('**/files?**', () => undefined);
  await drop(page, await Promise.all(['a', 'b', 'c', 'd'].map((name) => picture(`${name}.jpg`, '#777'))));
  await expect(page.getByText('Waits for its turn')).toBeVisible();
  // Browsers ask only who has done something with the page.
  await page
    .getByRole('grid')
    .or(page.getByRole('table'))
    .first()
    .click({ position: { x: 4, y: 4 } });
  const asked = page.waitForEvent('dialog');
  const left = page.reload();
  const dialog = await asked;
  expect(dialog.type()).toBe('beforeunload');
  await dialog.accept();
  await left;
  await expect(page.getByText('4 files did not arrive')).toBeVisible();
  await expect(page.getByText(/a\.jpg, b\.jpg, c\.jpg, d\.jpg\. Add them again/)).toBeVisible();
  await page.getByRole('button', { name: 'Put away' }).click();
  await page.reload();
  await expect(page.locator('[data-row]').first()).toBeVisible();
  await expect(page.getByText('4 files did not arrive')).toHaveCount(0);
});

test('a name that a file brings stands with no caption before somebody says so', async ({
  page,
  server,
  setId,
}) => {
  const xmp = `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/" photoshop:Credit="Ida Gullmoor"/></rdf:RDF></x:xmpmeta>`;
  const named = async (name: string, background: string) => ({
    name,
    type: 'image/jpeg',
    bytes: await sharp({ create: { width: 700, height: 500, channels: 3, background } })
      .withXmp(xmp)
      .jpeg()
      .toBuffer(),
  });
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  await drop(page, [await named('jug.jpg', '#245'), await named('urn.jpg', '#542')]);
  await expect(page.getByText('2 files bring a name: Ida Gullmoor')).toBeVisible();
  const credits = async () => {
    const { rows } = await server.state(setId);
    return rows.filter(({ fileName }) => /^(jug|urn)/.test(fileName)).map(({ words }) => words.credit);
  };
  expect(await credits()).toEqual(['', '']);
  await page.getByRole('button', { name: 'Show it with the captions' }).click();
  await expect.poll(credits).toEqual(['Ida Gullmoor', 'Ida Gullmoor']);
  await expect(page.getByText('2 files bring a name')).toHaveCount(0);
});

test('the finder answers jobs with their steps and the way, finds rules, places and sets, and says that it looks', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  const find = async (text: string) => {
    await page.keyboard.press('/');
    await page.getByPlaceholder('Find a photo, a place, or what you want to do').fill(text);
    return page.getByRole('option');
  };
  await (await find('why is this one too heavy')).filter({ hasText: 'Why is this photo too heavy?' }).click();
  await expect(page.getByRole('region', { name: 'Why is this photo too heavy?' })).toContainText('Ways out');
  await page.getByRole('button', { name: 'Go there' }).click();
  await expect(page).toHaveURL(/\/weigh$/);
  await expect((await find('German')).filter({ hasText: 'Rule: Languages' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect((await find('publish')).filter({ hasText: 'Download as ZIP' })).toBeVisible();
  await page.keyboard.press('Escape');
  await (await find('thumbnail grid')).first().click();
  await expect(page).toHaveURL(/\/places$/);
  await expect(page.getByRole('region', { name: 'Drawing of the place' })).toBeVisible();
  // While photos are looked for, nothing is said to be missing.
  let answer: () => void = () => undefined;
  await page.route('**/found?**', async (route) => {
    await new Promise<void>((done) => (answer = done));
    await route.continue();
  });
  await find('zzyzx');
  await expect(page.getByText('Looking through the photos…')).toBeVisible();
  answer();
  await expect(page.getByText('Nothing of that name.')).toBeVisible();
});

test('the keys that are listed are those of the screen', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(
    keys.getByRole('heading', { level: 2 }).filter({ hasText: /at the|on the|Every/i }),
  ).toHaveText(['Everywhere', 'On the worktable']);
  await page.keyboard.press('Escape');
  await page.goto(`${server.address}/sets/${setId}/reading`);
  await page.getByRole('heading', { name: 'How the page is heard' }).waitFor();
  await page.keyboard.press('?');
  await expect(keys).toContainText('back to where you came from');
  await expect(keys).not.toContainText('On the worktable');
});
