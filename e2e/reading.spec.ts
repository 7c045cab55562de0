// The reading preview beside Chromium's own accessibility tree of the same page: titles, menus, heroes, galleries, a zoom.
import type { CDPSession, Page } from '@playwright/test';
import { allMade, editBefore, expect, saved, test } from './application.ts';

interface Heard {
  role: string;
  name: string;
}

/** Roles that are compared one by one; groups and regions are, where they have a name. */
const HEARD = ['image', 'link', 'heading', 'button', 'navigation'];

/** What is heard of a page with names, in the order of Chromium's accessibility tree. */
async function treeOf(client: CDPSession): Promise<Heard[]> {
  const { nodes } = (await client.send('Accessibility.getFullAXTree')) as {
    nodes: {
      nodeId: string;
      ignored: boolean;
      role?: { value: string };
      name?: { value: string };
      description?: { value: string };
      childIds?: string[];
    }[];
  };
  const byId = new Map(nodes.map((node) => [node.nodeId, node]));
  const found: Heard[] = [];
  const walk = (id: string) => {
    const node = byId.get(id);
    if (!node) return;
    const role = node.role?.value ?? '';
    const said = [node.name?.value, node.description?.value].filter(Boolean).join(', ');
    const name = said.replace(/\s+/g, ' ').trim();
    if (!node.ignored && HEARD.includes(role)) found.push({ role, name });
    else if (!node.ignored && ['region', 'group'].includes(role) && name !== '')
      found.push({ role: 'group', name });
    for (const child of node.childIds ?? []) walk(child);
  };
  walk(nodes[0]!.nodeId);
  return found;
}

/** The same from the reading preview. */
const previewOf = (page: Page): Promise<Heard[]> =>
  page.locator('section[aria-labelledby="read-aloud"] li').evaluateAll((items, known) => {
    const groups = ['group', 'region', 'carousel', 'slide'];
    return items.flatMap((item) => {
      const role = (item.querySelector(':scope > span')?.textContent ?? '').split(' ')[0]!;
      const name = item.querySelector(':scope > b')?.textContent ?? '';
      if (known.includes(role)) return [{ role, name }];
      return groups.includes(role) ? [{ role: 'group', name }] : [];
    });
  }, HEARD);

test('what Chromium’s accessibility tree holds of the page is what the reading preview says', async ({
  page,
  server,
  setId,
}) => {
  const { rows } = await server.state(setId);
  await page.goto(`${server.address}/sets/${setId}/describe/${rows[5]!.id}`);
  await allMade(page);
  // A link with a window of its own among them.
  await page.getByRole('button', { name: 'links' }).click();
  await page.getByRole('textbox', { name: 'Leads to' }).fill('/guide');
  await page.getByRole('checkbox', { name: /new window/ }).check();
  await saved(page);
  await page.goto(`${server.address}/sets/${setId}/reading`);
  await expect(page.locator('section[aria-labelledby="read-aloud"] li').first()).toBeVisible();
  const said = await previewOf(page);
  expect(said.filter(({ role }) => role === 'image').length).toBeGreaterThan(10);
  await page.goto(`${server.address}/preview/${setId}/index.html`);
  const client = await page.context().newCDPSession(page);
  const heard = await treeOf(client);
  expect(heard).toEqual(said);
  expect(heard.find(({ role }) => role === 'link')!.name).toContain('opens in a new window');
});

test('it says of a hero, a gallery, a zoom and the site’s menu what Chromium’s tree holds, buttons too', async ({
  page,
  server,
}) => {
  const demo = await fetch(`${server.address}/api/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ pages: true }),
  });
  const { id } = (await demo.json()) as { id: number };
  const { site } = await server.state(id);
  await editBefore(server, id, [{ kind: 'site', change: { policy: { ...site.policy, modern: 'webp' } } }]);
  const sites = (await (await fetch(`${server.address}/api/sites`)).json()) as {
    sets: { id: number; name: string }[];
  }[];
  const { sets } = sites.find((one) => one.sets.some((set) => set.id === id))!;
  const buttons: number[] = [];
  for (const name of ['Home page', 'Shop']) {
    const set = sets.find((one) => one.name === name)!.id;
    await page.goto(`${server.address}/sets/${set}/arrange`);
    await allMade(page);
    await page.goto(`${server.address}/preview/${set}/index.html`);
    const heard = await treeOf(await page.context().newCDPSession(page));
    buttons.push(heard.filter(({ role }) => role === 'button').length);
    await page.goto(`${server.address}/sets/${set}/reading`);
    await expect.poll(() => previewOf(page), name).toEqual(heard);
  }
  expect(buttons[0]).toBeGreaterThanOrEqual(6);
});
