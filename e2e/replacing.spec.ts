// Another picture in a photo's place; and drawings that go out as drawings, drawn by the browser.
import { readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import sharp from 'sharp';
import { allMade, axeFindings, drop, expect, openFirst, rowOf, saved, test } from './application.ts';

const DEMO = resolve(import.meta.dirname, '../demo');
const photo = (file: string, width: number, height: number) =>
  sharp(join(DEMO, 'photos', file))
    .rotate()
    .resize(width, height)
    .jpeg()
    .toBuffer();

test('a file of a name that is there is offered, compared, put in its place and taken back', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/gather`);
  const row = rowOf(page, 'GM_0412.JPG');
  await expect(row).toContainText('3300 × 2200');
  await drop(page, [
    { name: 'GM_0412.JPG', bytes: await photo('GM_0412.JPG', 1200, 800), type: 'image/jpeg' },
  ]);
  const offers = page.getByRole('region', { name: 'Files that may take a photo’s place' });
  await expect(offers.getByRole('list', { name: 'What would change' })).toContainText(
    /1200 × 800 px, \d+ kB; before, 3300 × 2200 px/,
  );
  await expect(offers).toContainText('The same ratio, 3:2.');
  await expect(offers).toContainText('Text column 3:2 becomes soft on dense screens, 240 px short.');
  await expect(page.getByRole('link', { name: /^Gather/ })).toContainText('1 to decide');
  await expect(page.getByRole('button', { name: /^All/ })).toHaveText(/14$/);
  expect(await axeFindings(page)).toEqual([]);
  // Nothing is lost by going away.
  await page.reload();
  await offers.getByRole('button', { name: 'Put it in its place' }).click();
  await expect(offers).toHaveCount(0);
  await expect(row).toContainText('1200 × 800');
  await expect(row).toContainText('Bowls in rows on the drying shelf');
  await expect(row).toContainText('Replaced: read again');
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute(
    'title',
    /picture of Drying shelf replaced/,
  );
  await row.getByRole('button', { name: 'They hold' }).click();
  await expect(row).not.toContainText('Replaced');
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toContainText('Replaced: read again');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toContainText('3300 × 2200');
  await expect(row).not.toContainText('Replaced');
});

test('a file is chosen at the bench to take the photo’s place; what can’t is said', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/frame`);
  await rowOf(page, 'GM_0412.JPG').getByRole('button', { name: 'Open GM_0412.JPG' }).click();
  await expect(page.locator('[data-stage]')).toBeVisible();
  const choose = async (name: string, buffer: Buffer) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Replace the picture of GM_0412.JPG' }).click();
    await (await chooser).setFiles({ name, mimeType: 'image/jpeg', buffer });
  };
  // One that stands in the set under another name.
  await choose('copy.jpg', await readFile(join(DEMO, 'photos/DSC00198.JPG')));
  await expect(page.getByText('This picture stands in the site already, as “DSC00198.JPG”.')).toBeVisible();
  await page.getByRole('button', { name: 'Put away' }).click();
  await choose('tall.jpg', await photo('GM_0418.JPG', 1000, 1500));
  const offer = page.getByRole('region', { name: 'A file that may take this photo’s place' });
  await expect(offer).toContainText('Another ratio: 2:3 after 3:2.');
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await axeFindings(page)).toEqual([]);
  await offer.getByRole('button', { name: 'Put it in its place' }).click();
  await expect(offer).toHaveCount(0);
  await expect(page.getByText('○ Focal point is a guess')).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: 'Back to the table' }).click();
  await expect(rowOf(page, 'tall.jpg')).toContainText('Drying shelf');
});

test('a drawing goes out as one: the page shows it as wide as its place, and draws it like the codec', async ({
  page,
  server,
}) => {
  const post = (path: string, body: object) =>
    fetch(server.address + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    }).then((response) => response.json() as Promise<{ id: number }>);
  const { id: site } = await post('/api/sites', { name: 'Gullmoor Pottery' });
  const { id: set } = await post(`/api/sites/${site}/sets`, { name: 'Logos' });
  await openFirst(server.address, set);
  await page.goto(`${server.address}/sets/${set}/gather`);
  const bytes = await readFile(join(DEMO, 'special/logo-gullmoor.svg'));
  await drop(page, [{ name: 'logo.svg', bytes, type: 'image/svg+xml' }]);
  await expect(rowOf(page, 'logo.svg')).toBeVisible();
  await allMade(page);
  const errors: string[] = [];
  page.on('console', (message) => /polic/i.test(message.text()) && errors.push(message.text()));
  await page.goto(`${server.address}/preview/${set}/index.html`);
  const drawings = page.locator('figure img');
  await expect(drawings.first()).toBeVisible();
  const seen = await drawings.evaluateAll(async (list) => {
    const images = list as HTMLImageElement[];
    for (const img of images) img.loading = 'eager';
    await Promise.all(images.map((img) => img.decode()));
    return images.map((img) => ({
      src: img.currentSrc,
      file: img.currentSrc.split('/').at(-1)!,
      width: img.getBoundingClientRect().width,
      told: Number(img.getAttribute('width')),
      ratio: img.naturalWidth / img.naturalHeight,
      height: Number(img.getAttribute('height')),
    }));
  });
  expect(seen.length).toBeGreaterThan(0);
  for (const { file, width, told, ratio, height } of seen) {
    expect(file).toMatch(/^logo-[\w-]+\.[0-9a-f]{8}\.svg$/);
    expect(width).toBeCloseTo(told, 0);
    expect(ratio).toBeCloseTo(told / height, 2);
  }
  expect(errors).toEqual([]);
  // The browser's drawing of the file beside the one that the tests of the codec compare with bitmaps.
  const shot = await drawings.first().screenshot();
  const { data, info } = await sharp(shot).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const file = Buffer.from(await (await fetch(seen[0]!.src)).arrayBuffer());
  const own = await sharp(file)
    .flatten({ background: '#fff' })
    .resize(info.width, info.height, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer();
  const ground = [...data.subarray(0, 3)];
  let apart = 0;
  for (let n = 0; n < own.length; n += 3) {
    // What is not ground in one must not be ground in the other.
    const isInk = (pixels: Buffer, of: readonly number[]) =>
      Math.max(...[0, 1, 2].map((c) => Math.abs(pixels[n + c]! - of[c]!))) > 60;
    if (isInk(data, ground) !== isInk(own, [255, 255, 255])) apart += 1;
  }
  expect(apart / (own.length / 3)).toBeLessThan(0.03);
});
