// Unpacks the demo into an empty database: Gullmoor Pottery with one set in different states of readiness.
import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { placementsFor, type Command, type SlotId, type Words } from '@dusky-otter/core';
import type { Parts } from '../parts.ts';
import { EditModel, PhotoModel, SetModel, SiteModel } from '../database/models.ts';
import { makeSet } from '../sets/photos.ts';
import { makeSite } from '../sites/site-book.ts';

interface DemoPhoto {
  file: string;
  /** Confirmed focal point; where it is missing the guess stays a guess. */
  focal?: [number, number];
  slots?: SlotId[];
  words: Partial<Words>;
}

interface Scenario {
  site: string;
  set: string;
  slots: SlotId[];
  photos: DemoPhoto[];
}

/** A set that is still being unpacked has this version, so that a start after a crash goes on with it. */
const UNPACKING = 0;

const half = () => SetModel.findOne({ where: { version: UNPACKING } });

async function newDemoSet({ sequelize }: Parts, scenario: Scenario): Promise<SetModel> {
  const site = await makeSite(scenario.site);
  const values = { siteId: site.id, name: scenario.set, arranged: true, version: UNPACKING };
  return makeSet(sequelize, values, scenario.slots);
}

function decisionsOf(photo: number, demo: DemoPhoto): Command[] {
  const commands: Command[] = [{ kind: 'words', photo, language: 'en', words: demo.words }];
  if (demo.focal) {
    const [x, y] = demo.focal;
    commands.push({ kind: 'focal', photo, focal: { x, y, confirmed: true } });
  }
  if (demo.slots) {
    const placements = placementsFor({ placements: [] }, demo.slots);
    commands.push({ kind: 'placements', photo, placements });
  }
  return commands;
}

const scenarioOf = async ({ demoDir }: Parts['config']): Promise<Scenario> =>
  JSON.parse(await readFile(join(demoDir, 'scenario.json'), 'utf8')) as Scenario;

/** At start: goes on where an interrupted one left off; into an empty database only where that was asked for. */
export async function seedDemo(parts: Parts, { unasked }: { unasked: boolean }): Promise<void> {
  const begun = await half();
  if (!begun && !(unasked && (await SiteModel.count()) === 0)) return;
  const scenario = await scenarioOf(parts.config);
  await unpack(parts, scenario, begun ?? (await newDemoSet(parts, scenario)));
}

let running: Promise<number> | null = null;

/** When an editor asks for it: one demo, however often the button is pressed. @returns the id of its set */
export function demoOnRequest(parts: Parts): Promise<number> {
  running ??= (async () => {
    const scenario = await scenarioOf(parts.config);
    const set = (await half()) ?? (await newDemoSet(parts, scenario));
    await unpack(parts, scenario, set);
    await parts.preparer.reconcileSoon(set.id);
    return set.id;
  })().finally(() => {
    running = null;
  });
  return running;
}

async function unpack(parts: Parts, scenario: Scenario, set: SetModel): Promise<void> {
  const { demoDir } = parts.config;
  const taken = await Promise.all(
    scenario.photos.map(async (demo) => {
      const stream = createReadStream(join(demoDir, demo.file));
      const result = await parts.takeIn.add(set.id, { fileName: basename(demo.file), stream });
      if ('photoId' in result) return { demo, id: result.photoId };
      const why = result.kind === 'refused' ? result.refusal.sentence : 'there is another of its name.';
      throw new Error(`Demo photo ${demo.file}: ${why}`);
    }),
  );
  const commands = taken.flatMap(({ demo, id }) => decisionsOf(id, demo));
  const found = await PhotoModel.findAll({ where: { id: taken.map(({ id }) => id) } });
  const seen = { photos: Object.fromEntries(found.map(({ id, version }) => [id, version])) };
  const edit = { label: 'Unpack the demo', commands, seen, token: randomUUID(), window: 'unpacking' };
  const outcome = await parts.edits.perform(set.id, edit, 'demo');
  await parts.aftermath.photos(outcome.photoIds);
  // The demo is where work starts: there is nothing to take back yet.
  await EditModel.destroy({ where: { setId: set.id } });
  await SetModel.update({ version: UNPACKING + 1 }, { where: { id: set.id } });
}
