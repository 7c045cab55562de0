// Many windows, and sets that are longer than what is shown at once.
import sharp from 'sharp';
import { expect, openFirst, saved, test } from './application.ts';

test('nine windows of one browser hear of each other, and the ninth answers as the first does', async ({
  context,
  server,
  setId,
}) => {
  const windows = [];
  for (let n = 0; n < 9; n++) {
    const page = await context.newPage();
    await page.goto(`${server.address}/sets/${setId}/describe`);
    await expect(page.getByLabel('Alt text of GM_0418.JPG')).toBeVisible();
    windows.push(page);
  }
  const last = windows.at(-1)!;
  await last.getByLabel('Alt text of GM_0418.JPG').fill('A green vase, seen from nine windows.');
  await saved(last);
  for (const page of windows)
    await expect(page.getByLabel('Alt text of GM_0418.JPG')).toHaveValue(
      'A green vase, seen from nine windows.',
    );
  // One that goes takes nothing from the others.
  await windows[0]!.close();
  await last.getByLabel('Alt text of GM_0418.JPG').fill('Eight are left.');
  await saved(last);
  await expect(windows[1]!.getByLabel('Alt text of GM_0418.JPG')).toHaveValue('Eight are left.');
});

test('an arrangement of photos beyond the first two hundred shows them, and is put in order whole', async ({
  page,
  server,
}) => {
  const post = async (path: string, body: unknown, type = 'application/json') => {
    const response = await fetch(`${server.address}${path}`, {
      method: 'POST',
      headers: { 'content-type': type },
      body: body instanceof Buffer ? new Uint8Array(body) : JSON.stringify(body),
    });
    expect(response.ok, path).toBe(true);
    return response.json() as Promise<{ id: number }>;
  };
  const { id: site } = await post('/api/sites', { name: 'Gullmoor Pottery' });
  const { id: set } = await post(`/api/sites/${site}/sets`, { name: 'Shelf after shelf' });
  await openFirst(server.address, set);
  // They are looked at only: nothing is made of them meanwhile.
  await fetch(`${server.address}/api/sets/${set}/preparation`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: '{"paused":true}',
  });
  const MANY = 206;
  for (let n = 0; n < MANY; n += 4)
    await Promise.all(
      [0, 1, 2, 3].map(async (k) => {
        if (n + k >= MANY) return;
        const background = { r: n, g: 60 * k, b: 99 };
        const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background } })
          .png()
          .toBuffer();
        await post(
          `/api/sets/${set}/files?name=tile-${String(n + k).padStart(3, '0')}.png`,
          bytes,
          'application/octet-stream',
        );
      }),
    );
  const { rows } = await server.state(set);
  expect(rows).toHaveLength(MANY);
  const late = rows.slice(-3);
  const edit = async (commands: object[]) => {
    const { rows: now, set: own, site: of } = await server.state(set);
    await post(`/api/sets/${set}/edits`, {
      ...{ label: 'x', commands, token: crypto.randomUUID(), window: 'before-the-test', since: 0 },
      seen: {
        photos: Object.fromEntries(now.map(({ id, version }) => [id, version])),
        ...{ set: own.version, site: of.version },
      },
    });
  };
  await page.goto(`${server.address}/sets/${set}/arrange`);
  await page.getByRole('button', { name: 'New arrangement' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('The last shelf');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page).toHaveURL(/\/arrange\/the-last-shelf$/);
  await saved(page);
  const placements = (on: boolean) =>
    on ? [{ slot: 'the-last-shelf', link: '', words: {}, crops: {} }] : [];
  await edit(
    rows.map((row) => ({ kind: 'placements', photo: row.id, placements: placements(late.includes(row)) })),
  );
  await page.reload();
  const pictures = page.getByRole('region', { name: 'In order' }).getByRole('listitem');
  await expect(pictures.locator('b')).toHaveText(late.map(({ fileName }) => fileName));
  await expect(page.frameLocator('iframe[aria-hidden="false"]').locator('.dusky-set li')).toHaveCount(3);
  // All of them: the list shows a part, and an order is that of all.
  await edit(rows.map((row) => ({ kind: 'placements', photo: row.id, placements: placements(true) })));
  await expect(page.getByText(`The first 200 of ${MANY} pictures are listed`)).toBeVisible();
  await page.getByRole('checkbox', { name: `Pick ${rows[0]!.fileName}` }).check();
  await page.getByRole('button', { name: 'To the end' }).click();
  await saved(page);
  const { site: after } = await server.state(set);
  const order = after.slots.find(({ id }) => id === 'the-last-shelf')!.arranged!.order!;
  expect([order.length, new Set(order).size]).toEqual([MANY, MANY]);
  expect(order.at(-1)).toBe(rows[0]!.id);
  await page.getByRole('button', { name: 'List 6 more' }).click();
  await expect(pictures).toHaveCount(MANY);
  await expect(pictures.last().locator('b')).toHaveText(rows[0]!.fileName);
});
