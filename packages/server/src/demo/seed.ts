// Unpacks the demo into an empty database: Gullmoor Pottery with one set in different states of readiness.
import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { SlotId } from '@dusky-otter/core/contract';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import type { Parts } from '../parts.ts';
import { beginHere, makeSet, makeSite } from '../changes/sites.ts';
import { versionsOf } from '../store/photos.ts';
import { findSet, setAtVersion, setsIn } from '../store/sets.ts';
import { allSites } from '../store/sites.ts';
import { pageCommands, type DemoPages, type DemoPhoto } from './pages.ts';

/** What unpacking needs of the server. */
export type DemoParts = Pick<Parts, 'changes' | 'config' | 'edits' | 'preparer' | 'sites' | 'takeIn'>;

interface Placed extends DemoPhoto {
  slots?: SlotId[];
}

interface Scenario {
  site: string;
  set: string;
  slots: SlotId[];
  photos: Placed[];
}

/** A set that is still being unpacked has this version, so that a start after a crash goes on with it. */
const UNPACKING = 0;

const half = () => setAtVersion(UNPACKING);

/** Makes the demo's site with the set that the application is learnt on, and nothing in it yet. */
async function begin({ changes }: DemoParts, scenario: Scenario): Promise<number> {
  const siteId = await makeSite(changes, scenario.site);
  await makeSet(changes, { siteId, name: scenario.set, arranged: true, version: UNPACKING }, scenario.slots);
  return siteId;
}

function decisionsOf(photo: number, { words, focal, slots }: Placed): Command[] {
  const commands: Command[] = words ? [{ kind: 'words', photo, language: 'en', words }] : [];
  if (focal) {
    const [x, y] = focal;
    commands.push({ kind: 'focal', photo, focal: { x, y, confirmed: true } });
  }
  if (slots)
    commands.push({ kind: 'placements', photo, placements: placementsFor({ placements: [] }, slots) });
  return commands;
}

async function dataOf<T>({ demoDir }: DemoParts['config'], name: string): Promise<T> {
  return JSON.parse(await readFile(join(demoDir, name), 'utf8')) as T;
}
const scenarioOf = (config: DemoParts['config']) => dataOf<Scenario>(config, 'scenario.json');
const pagesOf = async (config: DemoParts['config']) =>
  (await dataOf<{ sets: DemoPages[] }>(config, 'pages.json')).sets;

/** At start: goes on where an interrupted one left off; into an empty database only where that was asked for. */
export async function seedDemo(parts: DemoParts, { unasked }: { unasked: boolean }): Promise<void> {
  const begun = await half();
  if (!begun && !(unasked && (await allSites()).length === 0)) return;
  const [scenario, pages] = [await scenarioOf(parts.config), await pagesOf(parts.config)];
  await unpackSite(parts, begun?.siteId ?? (await begin(parts, scenario)), scenario, pages);
}

let running: Promise<number> | null = null;
/** Photos that were taken in, of all that the demo has. */
let progress = { done: 0, of: 0 };

/** How far unpacking is, or null while nothing is unpacked. */
export const demoProgress = (): { done: number; of: number } | null => (running ? { ...progress } : null);

/**
 * When an editor asks for it: one demo, however often the button is pressed.
 * @param whole with the site's pages, not only the set that they are learnt on
 * @returns the id of its first set
 */
export function demoOnRequest(parts: DemoParts, whole: boolean): Promise<number> {
  running ??= (async () => {
    const scenario = await scenarioOf(parts.config);
    const pages = whole ? await pagesOf(parts.config) : [];
    const siteId = (await half())?.siteId ?? (await begin(parts, scenario));
    const sets = await unpackSite(parts, siteId, scenario, pages);
    for (const id of sets) await parts.preparer.reconcileSoon(id);
    return sets[0]!;
  })().finally(() => {
    running = null;
  });
  return running;
}

/** Fills the demo's sets that are not whole yet. @returns the ids of all that the site has */
async function unpackSite(
  parts: DemoParts,
  siteId: number,
  scenario: Scenario,
  pages: readonly DemoPages[],
): Promise<number[]> {
  const begun = await setsIn(siteId);
  // All are there before the first is filled: as long as one is empty, the demo is not whole.
  for (const { name } of pages)
    if (!begun.some((set) => set.name === name))
      await makeSet(parts.changes, { siteId, name, arranged: true, version: UNPACKING }, []);
  const sets = await setsIn(siteId);
  const byName = new Map(sets.map((set) => [set.name, set.id]));
  const photosFor = (name: string) => pages.find((page) => page.name === name)?.photos ?? scenario.photos;
  const empty = sets.filter(({ version }) => version === UNPACKING);
  progress = { done: 0, of: empty.reduce((sum, { name }) => sum + photosFor(name).length, 0) };
  for (const set of empty) {
    const own = pages.find(({ name }) => name === set.name);
    await unpack(parts, { id: set.id, siteId }, photosFor(set.name), (photos) =>
      own ? pageCommands(own, { photos, sets: byName }) : [],
    );
  }
  return sets.map(({ id }) => id);
}

/** @param more what is done beside what is decided for each photo, by the ids of the photos */
async function unpack(
  parts: DemoParts,
  set: { id: number; siteId: number },
  photos: readonly Placed[],
  more: (ids: ReadonlyMap<string, number>) => Command[],
): Promise<void> {
  const { demoDir } = parts.config;
  const taken = await Promise.all(
    photos.map(async (demo) => {
      const stream = createReadStream(join(demoDir, demo.file));
      const result = await parts.takeIn.add(set.id, { fileName: basename(demo.file), stream });
      progress.done++;
      if ('photoId' in result) return { demo, id: result.photoId };
      const why = result.kind === 'refused' ? result.refusal.sentence : 'there is another of its name.';
      throw new Error(`Demo photo ${demo.file}: ${why}`);
    }),
  );
  const commands = [
    ...taken.flatMap(({ demo, id }) => decisionsOf(id, demo)),
    ...more(new Map(taken.map(({ demo, id }) => [demo.file, id]))),
  ];
  const { version: site } = await parts.sites.get(set.siteId);
  const seen = {
    photos: Object.fromEntries(await versionsOf(taken.map(({ id }) => id))),
    set: (await findSet(set.id)).version,
    site,
  };
  const edit = { label: 'Unpack the demo', commands, seen, token: randomUUID(), window: 'unpacking' };
  await parts.edits.perform(set.id, edit, 'demo');
  await beginHere(parts.changes, set.id, UNPACKING + 1);
}
