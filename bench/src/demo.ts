// The demo photos as the application has them: facts, focal points and the slots where they stand.
import { openIn } from '@dusky-otter/core/plan';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, readdir, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { Photo, PlanContext, SetPlaces, SlotId } from '@dusky-otter/core/contract';
import { placementsFor, positions } from '@dusky-otter/core/edits';
import { firstFrame } from '@dusky-otter/core/geometry';
import { DEFAULT_DEVICES, SHIPPED_SLOTS } from '@dusky-otter/core/slots';
import { DEFAULT_POLICY } from '@dusky-otter/core/weight';
import { NO_WORDS } from '@dusky-otter/core/words';
import { ROOT } from './report.ts';

interface DemoPhoto {
  file: string;
  focal?: [number, number];
  slots?: SlotId[];
}

interface Scenario {
  slots: SlotId[];
  photos: DemoPhoto[];
}

export interface DemoSet {
  setPlaces: SetPlaces;
  /** Those of the demo's set, then the other demo photos at the set's slots. */
  photos: (Photo & { path: string; inSet: boolean })[];
}

/** A site as it begins. */
export const FIRST_CONTEXT: PlanContext = {
  slots: SHIPPED_SLOTS,
  devices: DEFAULT_DEVICES,
  policy: DEFAULT_POLICY,
  languages: ['en'],
};

const DEMO = join(ROOT, 'demo');

/** What is read of a file when it is taken in. @throws RefusedError */
export async function inspected(path: string): Promise<Photo['original']> {
  const { inspect } = await import('../../packages/server/dist/codec/inspect.js');
  const folder = await mkdtemp(join(tmpdir(), 'otter-bench-views-'));
  const bytes = await readFile(path);
  const { facts } = await inspect({
    kind: 'inspect',
    path,
    hash: createHash('sha256').update(bytes).digest('hex'),
    bytes: (await stat(path)).size,
    limitPixels: 1e8,
    incoming: folder,
    views: { row: join(folder, 'row.webp'), bench: join(folder, 'bench.webp') },
  });
  return facts;
}

/** Inspects all demo photos. */
export async function demoSet(): Promise<DemoSet> {
  const scenario = JSON.parse(await readFile(join(DEMO, 'scenario.json'), 'utf8')) as Scenario;
  const others = (await readdir(join(DEMO, 'photos')))
    .sort()
    .map((name) => `photos/${name}`)
    .filter((file) => !scenario.photos.some((photo) => photo.file === file));
  const all = [...scenario.photos, ...others.map((file): DemoPhoto => ({ file }))];
  const keys = positions(all.length);
  const photos: DemoSet['photos'] = [];
  for (const [id, { file, focal, slots }] of all.entries()) {
    const path = join(DEMO, file);
    const original = await inspected(path);
    const [x, y] = focal ?? [original.attention.x, original.attention.y];
    photos.push({
      id,
      version: 1,
      fileName: basename(file),
      original,
      frame: { ...firstFrame({ x, y }), focal: { x, y, confirmed: focal !== undefined } },
      quality: {},
      words: NO_WORDS,
      placements: placementsFor({ placements: null }, slots ?? null),
      position: keys[id]!,
      binned: false,
      toRead: false,
      path,
      inSet: id < scenario.photos.length,
    });
  }
  return { setPlaces: openIn(...scenario.slots), photos };
}
