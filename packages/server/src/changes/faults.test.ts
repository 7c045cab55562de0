// What happens at the worst moment: answers that are lost, acts that meet, files that come while they go.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Slot } from '@dusky-otter/core/contract';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import { EditModel, MembershipModel, OriginalModel, PhotoModel, TouchModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';
import { publishedNames } from '../store/sets.ts';
import { stateOfSet } from '../store/state-of-set.ts';
import { copiesOf } from '../testing/copies.ts';
import { holdNextReading, loseCommits, statementsIn } from '../testing/faults.ts';
import { photoWithSquare, testServer, WINDOW, type TestServer, type WholeRow } from '../testing/server.ts';
import { emptyBin } from './bin.ts';
import { settleAside } from './dropping.ts';
import { keepPlan } from './plans.ts';
import { publish } from './publishing.ts';

let server: TestServer;
let id: number;
let count = 0;
const SINCE = 0;
const looking = { window: WINDOW, since: SINCE };

/** A picture that nobody had before. */
const picture = () => photoWithSquare(80, 60 + count++, { x: 0.5, y: 0.5 });
async function added(name: string, setId?: number): Promise<number> {
  const result = await server.add(name, await picture(), setId);
  if (result.kind !== 'new') throw new Error(result.kind);
  return result.photo.id;
}
const row = async (photo = id): Promise<WholeRow> =>
  (await server.state()).rows.find((one) => one.id === photo)!;
const say = (title: string, photo = id): Command => ({
  kind: 'words',
  photo,
  language: 'en',
  words: { title },
});
const frame = (x: number): Command => ({ kind: 'focal', photo: id, focal: { x, y: 0.5, confirmed: true } });
const bin = (photo = id): Command => ({ kind: 'bin', photo, binned: true });

beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.begin();
  id = await added('bay.jpg');
});

describe('an answer to COMMIT that is lost', () => {
  test('takes back one edit, not two', async () => {
    for (const x of [0.2, 0.4]) await server.edit({ commands: [frame(x)] });
    const lost = loseCommits(server.parts.sequelize);
    const { status } = await server.step('undo');
    expect([status, lost.left, (await row()).frame.focal.x]).toEqual([200, 0, 0.2]);
    loseCommits(server.parts.sequelize, 2);
    await server.step('redo');
    expect((await row()).frame.focal.x).toBe(0.4);
  });
  test('leaves a new file new, and one photo of it', async () => {
    const lost = loseCommits(server.parts.sequelize);
    const result = await server.add('wharf.jpg', await picture());
    expect([result.kind, lost.left]).toEqual(['new', 0]);
    expect((await server.state()).rows).toHaveLength(2);
  });
  test('carries out an edit once, and what follows from it', async () => {
    loseCommits(server.parts.sequelize);
    const { status, body } = await server.edit({ commands: [say('Once')] });
    expect([status, body.rows[0]!.words.title]).toEqual([200, 'Once']);
    expect(await EditModel.count({ where: { setId: server.setId } })).toBe(1);
    expect((await server.parts.ledgers.get(server.setId)).standing(id)!.name).toBe('Once');
  });
  test('deletes what was in a bin, its file as well', async () => {
    const { hash } = (await row()).original;
    await server.edit({ commands: [bin()] });
    loseCommits(server.parts.sequelize);
    expect(await emptyBin(server.parts.changes, server.parts.vault, server.setId)).toEqual([id]);
    const { vault } = server.parts;
    expect([await vault.has(vault.original(hash)), await vault.setAsides()]).toEqual([false, []]);
  });
});

describe('an act that is sent twice', () => {
  test('is carried out once: a second click of a window that heard nothing takes back nothing more', async () => {
    for (const x of [0.2, 0.4]) await server.edit({ commands: [frame(x)] });
    const undo = () =>
      server.app.inject({
        method: 'POST',
        url: `/api/sets/${server.setId}/undo`,
        payload: { ...looking, token: 'one-click' },
      });
    expect((await Promise.all([undo(), undo()])).map(({ statusCode }) => statusCode)).toEqual([200, 200]);
    expect((await row()).frame.focal.x).toBe(0.2);
  });
});

test('a photo that is changed while its set is counted anew is counted as it is then', async () => {
  const { ledgers, preparer } = server.parts;
  preparer.pause(server.setId, true);
  await ledgers.get(server.setId);
  const { reached, open } = holdNextReading();
  const counted = preparer.reconcile(server.setId);
  await reached;
  const edited = server.edit({ commands: [say('Changed meanwhile')] });
  // It is stored while the ledger is still being made of what was there before.
  while ((await EditModel.count({ where: { setId: server.setId } })) === 0) await new Promise(setImmediate);
  open();
  await Promise.all([counted, edited]);
  expect(ledgers.all.get(server.setId)!.standing(id)!.name).toBe('Changed meanwhile');
});

describe('a photo of two sets', () => {
  let second: number;
  beforeEach(async () => {
    second = await server.newSet('Second');
    await server.parts.takeIn.importPhotos(second, [id]);
  });
  test('is deleted when both empty their bins at once, with its original', async () => {
    const { vault, changes } = server.parts;
    for (let round = 0; round < 8; round++) {
      const { hash } = (await PhotoModel.findByPk(id).then((photo) =>
        OriginalModel.findByPk(photo!.originalHash),
      ))!;
      await MembershipModel.update({ binned: true }, { where: { photoId: id } });
      await Promise.all([server.setId, second].map((setId) => emptyBin(changes, vault, setId)));
      expect([await PhotoModel.findByPk(id), await OriginalModel.findByPk(hash)]).toEqual([null, null]);
      expect(await vault.has(vault.original(hash))).toBe(false);
      id = await added(`again-${round}.jpg`);
      await server.parts.takeIn.importPhotos(second, [id]);
    }
  });
  test('says to others what a plan said of it', async () => {
    const { version, fileName } = await row();
    const third = await server.newSet('Third');
    const planned = { fileName, hash: '', words: { alt: 'The bay' }, places: null, line: 2, problem: null };
    await keepPlan(server.parts.changes, third, [planned]);
    await server.parts.takeIn.importPhotos(third, [id]);
    expect([(await row()).words.alt, (await row()).version]).toEqual(['The bay', version + 1]);
    expect(await TouchModel.count({ where: { entity: 'photo', entityId: id, part: 'words.en.alt' } })).toBe(
      1,
    );
    const words = { ...say('x'), words: { alt: 'Something else' } } as Command;
    const stale = await server.edit({ commands: [words], seen: { photos: { [id]: version } } });
    expect([stale.status, stale.body.code]).toEqual([409, 'stale']);
  });
});

test('a file that comes again while its photo is deleted is there afterwards', async () => {
  const { vault, changes } = server.parts;
  for (let round = 0; round < 8; round++) {
    const bytes = await picture();
    const first = await server.add(`kiln-${round}.jpg`, bytes);
    if (first.kind !== 'new') throw new Error(first.kind);
    await MembershipModel.update({ binned: true }, { where: { photoId: first.photo.id } });
    const [, again] = await Promise.all([
      emptyBin(changes, vault, server.setId),
      server.add(`kiln-${round}.jpg`, bytes),
    ]);
    if (!('photo' in again)) throw new Error(again.kind);
    const { hash } = again.photo.original;
    expect(await PhotoModel.count({ where: { originalHash: hash } })).toBe(1);
    expect([await vault.hasWhole(hash), await vault.setAsides()]).toEqual([true, []]);
  }
});

test('what a crash left aside comes back where it is known, and is deleted where it is not', async () => {
  const { vault } = server.parts;
  const { hash } = (await row()).original;
  const unknown = 'f'.repeat(64);
  await vault.setAside(hash);
  await writeFile(join(vault.root, 'aside', unknown), 'nobody’s');
  expect(await vault.has(vault.original(hash))).toBe(false);
  await settleAside(vault, await vault.setAsides());
  expect([await vault.hasWhole(hash), await vault.setAsides()]).toEqual([true, []]);
  expect(await vault.has(vault.original(unknown))).toBe(false);
});

describe('a hand-over', () => {
  test('is not noted over what was changed while its files were made', async () => {
    const { changes } = server.parts;
    const { siteId } = (await server.state()).set;
    const state = await stateOfSet(server.setId, siteId);
    const names = new Map([[id, 'old-name']]);
    await server.edit({ commands: [say('New name')] });
    const late = publish(changes, server.setId, { names, state, isWhole: true });
    await expect(late).rejects.toMatchObject({ code: 'changed-meanwhile' });
    expect([(await server.state()).set.handedOver, await publishedNames(server.setId)]).toEqual([false, {}]);
  });
  test('is made anew of what was changed, and noted then', async () => {
    await server.prepared();
    const { preparer, vault } = server.parts;
    const real = vault.verified.bind(vault);
    let meanwhile: Promise<unknown> | null = null;
    vault.verified = async (...asked) => {
      await (meanwhile ??= server.edit({ commands: [say('New name')] }));
      return real(...asked);
    };
    const url = `/api/sets/${server.setId}/hand-over/publish`;
    const { statusCode } = await server.app.inject({ method: 'POST', url });
    vault.verified = real;
    expect([statusCode, (await server.state()).set.handedOver]).toEqual([204, true]);
    expect(await publishedNames(server.setId)).toEqual({ 'new-name': id });
    expect(preparer.progressOf(server.setId).failed).toBe(0);
  });
});

describe('what is asked of the database', () => {
  const step = (direction: 'undo' | 'redo') => server.parts.edits[direction](server.setId, looking);
  /** Statements of an edit, of undoing it and of doing it again, for so many photos. */
  async function statements(photos: number[], commandOf: (photo: number, n: number) => Command) {
    const { sequelize } = server.parts;
    const commands = photos.map(commandOf);
    const counts = [await statementsIn(sequelize, () => server.edit({ commands }))];
    for (const direction of ['undo', 'redo'] as const)
      counts.push(await statementsIn(sequelize, () => step(direction)));
    return counts;
  }
  const KINDS: Record<string, (photo: number, n: number) => Command> = {
    words: (photo, n) => say(`Title ${n}`, photo),
    'a focal point': (photo, n) => ({ ...frame(n / 1000), photo }) as Command,
    placements: (photo) => ({
      kind: 'placements',
      photo,
      placements: placementsFor({ placements: [] }, ['hero', 'grid', 'half']),
    }),
    'the order': (photo, n) => ({
      kind: 'position',
      photo,
      position: `b${n.toString(36).padStart(4, '0')}1`,
    }),
    'the bin': (photo) => bin(photo),
  };
  let ids: number[];
  beforeEach(async () => {
    server.parts.preparer.pause(server.setId, true);
    ids = await copiesOf(id, server.setId, 300);
    await server.parts.settle({ photos: ids });
  });
  test.each(Object.entries(KINDS))('of %s is as much for 300 photos as for ten', async (_, commandOf) => {
    const few = await statements(ids.slice(0, 10), commandOf);
    const many = await statements(ids, commandOf);
    expect(many.map((n, i) => n - few[i]!).filter((more) => more > 2)).toEqual([]);
    // What is undone is known: nothing is asked beside it.
    expect(Math.max(...many.slice(1))).toBeLessThanOrEqual(36);
  });
});

describe('a change of a site', () => {
  /** Ledgers that are made anew while `body` runs, and until nothing follows from it any more. */
  async function madeAnew(body: () => Promise<unknown>): Promise<number> {
    const { ledgers, preparer } = server.parts;
    await ledgers.get(server.setId);
    const inside = ledgers as unknown as { make: (setId: number) => Promise<unknown> };
    const real = inside.make.bind(ledgers);
    let made = 0;
    inside.make = (setId) => {
      made++;
      return real(setId);
    };
    await body();
    inside.make = real;
    await preparer.reconcile(server.setId);
    return made;
  }
  /** Changes the first place; asks nothing before that. */
  let place: (change: Partial<Slot>) => Promise<unknown>;
  beforeEach(async () => {
    const state = await server.state();
    const slot = state.site.slots.find((one) => one.id === 'hero')!;
    const seen = { photos: {}, site: state.site.version };
    place = (change) =>
      server.edit({ seen, commands: [{ kind: 'slot', slot: 'hero', value: { ...slot, ...change } }] });
  });
  test('plans nothing anew for a text', async () => {
    expect(await madeAnew(() => place({ name: 'The first picture', hint: 'As wide as the window' }))).toBe(0);
    expect((await server.state()).site.slots.find((one) => one.id === 'hero')!.name).toBe(
      'The first picture',
    );
  });
  test('plans once for several changes that come while it plans', async () => {
    server.parts.preparer.pause(server.setId, true);
    const made = await madeAnew(async () => {
      const { reached, open } = holdNextReading();
      await place({ budget: 80_000 });
      await reached;
      for (const budget of [70_000, 60_000, 50_000]) await place({ budget });
      open();
      await server.parts.preparer.reconcile(server.setId);
    });
    expect(made).toBe(2);
  });
});

test('what a change throws is no change', async () => {
  const { changes } = server.parts;
  const broken = changes.inSet<undefined>(server.setId, async ({ set, t }) => {
    await set.update({ name: 'Half done' }, { transaction: t });
    throw new ProblemError('impossible-edit');
  });
  await expect(broken).rejects.toThrow(ProblemError);
  expect((await server.state()).set.name).toBe('Test set');
});

test('photos are held before originals, by whoever changes both', async () => {
  const { changes } = server.parts;
  const { hash } = (await row()).original;
  const wrong = changes.inSet<undefined>(server.setId, async (work) => {
    await work.originals([hash]);
    await work.photos([id]);
    return { answer: undefined, effects: {} };
  });
  await expect(wrong).rejects.toThrow('Photos are held before originals.');
});
