// Unpacks the demo into an empty database: Gullmoor Pottery with one set in different states of readiness.
import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { placementsFor, type Command, type SlotId } from '@dusky-otter/core';
import type { Parts } from '../parts.ts';
import { EditModel, PhotoModel, SetModel, SiteModel } from '../database/models.ts';
import { makeSet } from '../sets/photos.ts';
import { makeSite } from '../sites/site-book.ts';
import { pageCommands, type DemoPages, type DemoPhoto } from './pages.ts';

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

const half = () => SetModel.findOne({ where: { version: UNPACKING } });

/** Makes the demo's site with the set that the application is learnt on, and nothing in it yet. */
async function begin({ sequelize }: Parts, scenario: Scenario): Promise<number> {
  const site = await makeSite(scenario.site);
  const values = { siteId: site.id, name: scenario.set, arranged: true, version: UNPACKING };
  await makeSet(sequelize, values, scenario.slots);
  return site.id;
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

async function dataOf<T>({ demoDir }: Parts['config'], name: string): Promise<T> {
  return JSON.parse(await readFile(join(demoDir, name), 'utf8')) as T;
}
const scenarioOf = (config: Parts['config']) => dataOf<Scenario>(config, 'scenario.json');
const pagesOf = async (config: Parts['config']) =>
  (await dataOf<{ sets: DemoPages[] }>(config, 'pages.json')).sets;

/** At start: goes on where an interrupted one left off; into an empty database only where that was asked for. */
export async function seedDemo(parts: Parts, { unasked }: { unasked: boolean }): Promise<void> {
  const begun = await half();
  if (!begun && !(unasked && (await SiteModel.count()) === 0)) return;
  const [scenario, pages] = [await scenarioOf(parts.config), await pagesOf(parts.config)];
  await unpackSite(parts, begun?.siteId ?? (await begin(parts, scenario)), scenario, pages);
}

let running: Promise<number> | null = null;

/**
 * When an editor asks for it: one demo, however often the button is pressed.
 * @param whole with the site's pages, not only the set that they are learnt on
 * @returns the id of its first set
 */
export function demoOnRequest(parts: Parts, whole: boolean): Promise<number> {
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
  parts: Parts,
  siteId: number,
  scenario: Scenario,
  pages: readonly DemoPages[],
): Promise<number[]> {
  const begun = await SetModel.findAll({ where: { siteId }, attributes: ['name'] });
  // All are there before the first is filled: as long as one is empty, the demo is not whole.
  for (const { name } of pages)
    if (!begun.some((set) => set.name === name))
      await makeSet(parts.sequelize, { siteId, name, arranged: true, version: UNPACKING }, []);
  const sets = await SetModel.findAll({ where: { siteId }, order: [['id', 'ASC']] });
  const byName = new Map(sets.map((set) => [set.name, set.id]));
  for (const set of sets) {
    if (set.version !== UNPACKING) continue;
    const own = pages.find(({ name }) => name === set.name);
    await unpack(parts, set, own?.photos ?? scenario.photos, (photos) =>
      own ? pageCommands(own, { photos, sets: byName }) : [],
    );
  }
  return sets.map(({ id }) => id);
}

/** @param more what is done beside what is decided for each photo, by the ids of the photos */
async function unpack(
  parts: Parts,
  set: SetModel,
  photos: readonly Placed[],
  more: (ids: ReadonlyMap<string, number>) => Command[],
): Promise<void> {
  const { demoDir } = parts.config;
  const taken = await Promise.all(
    photos.map(async (demo) => {
      const stream = createReadStream(join(demoDir, demo.file));
      const result = await parts.takeIn.add(set.id, { fileName: basename(demo.file), stream });
      if ('photoId' in result) return { demo, id: result.photoId };
      const why = result.kind === 'refused' ? result.refusal.sentence : 'there is another of its name.';
      throw new Error(`Demo photo ${demo.file}: ${why}`);
    }),
  );
  const commands = [
    ...taken.flatMap(({ demo, id }) => decisionsOf(id, demo)),
    ...more(new Map(taken.map(({ demo, id }) => [demo.file, id]))),
  ];
  const found = await PhotoModel.findAll({ where: { id: taken.map(({ id }) => id) } });
  const { version: site } = await parts.sites.get(set.siteId);
  const seen = {
    photos: Object.fromEntries(found.map(({ id, version }) => [id, version])),
    set: (await SetModel.findByPk(set.id))!.version,
    site,
  };
  const edit = { label: 'Unpack the demo', commands, seen, token: randomUUID(), window: 'unpacking' };
  const outcome = await parts.edits.perform(set.id, edit, 'demo');
  await parts.aftermath.settle(set.id, outcome);
  // The demo is where work starts: there is nothing to take back yet.
  await EditModel.destroy({ where: { setId: set.id } });
  await SetModel.update({ version: UNPACKING + 1 }, { where: { id: set.id } });
}
