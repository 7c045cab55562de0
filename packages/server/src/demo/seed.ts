// Unpacks the demo into an empty database: Gullmoor Pottery with one set in different states of readiness.
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { DEFAULT_POLICY, type Command, type SlotId, type Words } from '@dusky-otter/core';
import type { Parts } from '../parts.ts';
import { EditModel, SetModel, SiteModel } from '../database/models.ts';

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

/** The demo's set while it is not whole: a new one in an empty database, or one left by an interrupted start. */
async function openDemoSet(scenario: Scenario): Promise<SetModel | null> {
  if ((await SiteModel.count()) > 0) return SetModel.findOne({ where: { version: UNPACKING } });
  const site = await SiteModel.create({ name: scenario.site, policy: DEFAULT_POLICY });
  return SetModel.create({ siteId: site.id, name: scenario.set, slots: scenario.slots, version: UNPACKING });
}

function decisionsOf(photo: number, demo: DemoPhoto): Command[] {
  const commands: Command[] = [{ kind: 'words', photo, words: demo.words }];
  if (demo.focal) {
    const [x, y] = demo.focal;
    commands.push({ kind: 'focal', photo, focal: { x, y, confirmed: true } });
  }
  if (demo.slots) commands.push({ kind: 'slots', photo, slots: demo.slots });
  return commands;
}

/** Seeds when the database is empty, or goes on where an interrupted start left off. */
export async function seedDemo(parts: Parts): Promise<void> {
  const { demoDir } = parts.config;
  const scenario = JSON.parse(await readFile(join(demoDir, 'scenario.json'), 'utf8')) as Scenario;
  const set = await openDemoSet(scenario);
  if (!set) return;
  const taken = await Promise.all(
    scenario.photos.map(async (demo) => {
      const stream = createReadStream(join(demoDir, demo.file));
      const result = await parts.takeIn.add(set.id, { fileName: basename(demo.file), stream });
      if (result.kind === 'refused') throw new Error(`Demo photo ${demo.file}: ${result.refusal.sentence}`);
      return { demo, id: result.row.id };
    }),
  );
  const commands = taken.flatMap(({ demo, id }) => decisionsOf(id, demo));
  await parts.edits.perform(set.id, { label: 'Unpack the demo', commands }, { photos: {} }, 'demo');
  // The demo is where work starts: there is nothing to take back yet.
  await EditModel.destroy({ where: { setId: set.id } });
  await set.update({ version: UNPACKING + 1 });
}
