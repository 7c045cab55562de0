// The running application for end-to-end tests: server, database, and what tests ask of pages again and again.
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test as base, type Page } from '@playwright/test';
import type { Policy, Words } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { firstPlaces } from '../packages/core/src/reading/index.ts';
import { startServer, type ServerProcess } from '../packages/server/src/testing/process.ts';
import { ownDatabase } from '../packages/server/src/testing/database.ts';

interface OfTest {
  setId: number;
  modern: Policy['modern'];
}

/**
 * Each test gets a demo of its own: no test sees what another did. The server is shared by all spec files, so that the
 * demo's photos are encoded once; a spec that must begin with an empty application says so: test.use({ serverOf: … }).
 * Its site serves WebP, which takes a third of AVIF's time, but where AVIF is the subject: test.use({ modern: 'avif' }).
 */
export const test = base.extend<OfTest, { serverOf: string; server: ServerProcess }>({
  serverOf: ['all', { option: true, scope: 'worker' }],
  modern: ['webp', { option: true }],
  server: [
    async ({ serverOf }, use) => {
      const database = await ownDatabase();
      const dataDir = await mkdtemp(join(tmpdir(), `otter-e2e-${serverOf}-`));
      const server = await startServer({ DATABASE_URL: database.url, DATA_DIR: dataDir, SEED_DEMO: '0' });
      await use(server);
      await server.end('SIGTERM');
      await database.drop();
      await rm(dataDir, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 300_000 },
  ],
  setId: async ({ server, modern }, use) => {
    const response = await fetch(`${server.address}/api/demo`, { method: 'POST' });
    const { id } = (await response.json()) as { id: number };
    const { site } = await server.state(id);
    if (modern !== site.policy.modern)
      await editBefore(server, id, [{ kind: 'site', change: { policy: { ...site.policy, modern } } }]);
    await use(id);
  },
});

export { expect };

/** An edit by another window, before the test begins. */
export async function editBefore(server: ServerProcess, setId: number, commands: Command[]): Promise<void> {
  const { rows, set, site } = await server.state(setId);
  const response = await fetch(`${server.address}/api/sets/${setId}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      label: 'before the test',
      commands,
      seen: {
        photos: Object.fromEntries(rows.map(({ id, version }) => [id, version])),
        set: set.version,
        site: site.version,
      },
      token: crypto.randomUUID(),
      window: 'before-the-test',
      since: 0,
    }),
  });
  expect(response.status).toBe(200);
}

/**
 * Puts all photos of the demo's set but a few into the bin: what changes for all of them is made anew for those alone.
 * @param files names of those that stay
 */
export async function keepFew(server: ServerProcess, setId: number, files: readonly string[]): Promise<void> {
  const { rows } = await server.state(setId);
  const gone = rows.filter(({ fileName }) => !files.includes(fileName));
  expect(rows.length - gone.length).toBe(files.length);
  await editBefore(
    server,
    setId,
    gone.map(({ id: photo }) => ({ kind: 'bin', photo, binned: true })),
  );
}

/** The first photos of the demo's set. */
export const FIRST_FIVE = [
  ...['DSC00198.JPG', 'GM_0418.JPG', 'GM_0412.JPG', 'DSC00307.JPG'],
  'IMG-20260822-203118.jpg',
] as const;

export const rowOf = (page: Page, name: string) => page.getByRole('row').filter({ hasText: name });

/** Words of a set's photos as the server has them, by photo. */
export const wordsOf = async (address: string, setId: number): Promise<Map<number, Words>> => {
  const response = await fetch(`${address}/api/sets/${setId}/photos?count=200`);
  const { photos } = (await response.json()) as { photos: { id: number; words: Words }[] };
  return new Map(photos.map(({ id, words }) => [id, words]));
};

/** Resolves when the header's ring says that every version is made. */
export async function allMade(page: Page): Promise<void> {
  await page.waitForFunction(() => {
    const bar = document.querySelector('header [role="progressbar"]');
    return bar !== null && bar.getAttribute('aria-valuenow') === bar.getAttribute('aria-valuemax');
  });
}

/** Resolves when everything that was changed is confirmed by the server: what is typed is sent, and nothing is on its way. */
export async function saved(page: Page): Promise<void> {
  await page.evaluate(() => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  });
  await expect(page.locator('[data-pending]')).toHaveAttribute('data-pending', '0');
}

/** Drops files on the window, as a hand does. */
export async function drop(
  page: Page,
  files: { name: string; bytes: Buffer; type: string }[],
): Promise<void> {
  const data = files.map(({ name, bytes, type }) => ({ name, type, base64: bytes.toString('base64') }));
  const transfer = await page.evaluateHandle((list) => {
    const result = new DataTransfer();
    for (const { name, type, base64 } of list) {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      result.items.add(new File([bytes], name, { type }));
    }
    return result;
  }, data);
  await page.dispatchEvent('#root > div', 'drop', { dataTransfer: transfer });
}

const axePath = createRequire(import.meta.url).resolve('axe-core');

/** Rules that hang on colours; all others find the same by day and by dusk. */
const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/** What axe finds on a page, on the application's screens by day and by dusk; an empty list is what is wanted. */
export async function axeFindings(page: Page): Promise<string[]> {
  // Evaluated, not inserted as a script: the page's own security policy stays as it is.
  await page.evaluate(await readFile(axePath, 'utf8'));
  return page.evaluate(async (colourRules) => {
    const { axe } = window as unknown as {
      axe: {
        run: (options?: { runOnly: string[] }) => Promise<{
          violations: { id: string; nodes: { html: string; failureSummary: string }[] }[];
        }>;
      };
    };
    const findings = async (theme: string, options?: { runOnly: string[] }) =>
      (await axe.run(options)).violations.map(
        ({ id, nodes }) =>
          `${theme}, ${id}: ${nodes.map((n) => `${n.html.slice(0, 160)} ${n.failureSummary}`).join(' | ')}`,
      );
    const root = document.documentElement;
    const { theme } = root.dataset;
    const found = await findings(theme ?? 'page');
    if (theme === undefined) return found;
    const other = theme === 'dusk' ? 'day' : 'dusk';
    root.dataset.theme = other;
    // Colours that change over time are those that they become.
    for (const animation of document.getAnimations())
      if (animation instanceof CSSTransition) animation.finish();
    found.push(...(await findings(other, { runOnly: colourRules })));
    root.dataset.theme = theme;
    return found;
  }, COLOUR_RULES);
}

/** Opens the text column and the grid in a set that was just made. */
export async function openFirst(address: string, setId: number): Promise<void> {
  const response = await fetch(`${address}/api/sets/${setId}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(firstPlaces(['column', 'grid'], crypto.randomUUID())),
  });
  expect(response.status).toBe(200);
}

/** Photos of the set as the Arrange stop shows them beside the places. */
export const trayOf = (page: Page) =>
  page.getByRole('listbox', { name: 'All photos of the set' }).getByRole('option');

/** Makes an arrangement of the first photos of the set, from the Arrange stop. */
export async function arrangeFirst(page: Page, title: string, photos: number): Promise<void> {
  const tray = trayOf(page);
  await tray.first().click();
  await tray.nth(photos - 1).click({ modifiers: ['Shift'] });
  await expect(page.getByRole('toolbar', { name: `${photos} picked` })).toBeVisible();
  await page.getByRole('button', { name: 'New arrangement' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(title);
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}
