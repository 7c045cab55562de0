// Two writers who know nothing of each other do whatever comes to their minds, at the same time, in two sets of one site.
// However they meet: no photo stands nowhere, no original belongs to nobody, what is counted is what there is, and every
// file that is wanted is made.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { chance } from '@dusky-otter/core/chance';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import { firstFrame } from '@dusky-otter/core/geometry';
import sharp from 'sharp';
import {
  EarlierOriginalModel,
  MembershipModel,
  OfferModel,
  OriginalModel,
  PhotoModel,
} from '../database/models.ts';
import { Ledgers } from '../ledger/ledgers.ts';
import type { SetLedger } from '../ledger/set-ledger.ts';
import { ProblemError } from '../problems.ts';
import { offersOf } from '../store/originals.ts';
import { findSet } from '../store/sets.ts';
import { testServer, type TestServer } from '../testing/server.ts';
import { emptyBin } from './bin.ts';

/** How often two writers meet, and what each does then; SCHEDULES and SEED try more, and others. */
const SCHEDULES = Number(process.env.SCHEDULES ?? 60);
const ACTS = 3;
/** How long files may take to be made, in ms: far longer than on any machine. */
const LONGEST = Number(process.env.LONGEST ?? 120_000);
/** Files that come and go: few, so that they come again. */
const FILES = 6;

let server: TestServer;
let sets: number[];
let files: { name: string; bytes: Buffer }[];
beforeAll(async () => {
  server = await testServer();
  sets = [server.setId, await server.newSet('Second')];
  files = await Promise.all(
    Array.from({ length: FILES }, async (_, n) => {
      const background = { r: 40 * n, g: 255 - 30 * n, b: 90 };
      const create = { width: 24 + n, height: 18, channels: 3 as const, background };
      // Two have one name: the second is offered for the first.
      return { name: `photo-${n % 4}.png`, bytes: await sharp({ create }).png().toBuffer() };
    }),
  );
  // Few files of each photo: what matters is whether they are made.
  for (const setId of sets)
    await server.edit({ commands: [{ kind: 'set', change: { slots: ['grid'] } }] }, setId);
});
afterAll(() => server.close());

type Random = () => number;
const one = <T>(list: readonly T[], random: Random): T | undefined =>
  list[Math.floor(random() * list.length)];

const standing = async (setId: number) =>
  (await MembershipModel.findAll({ where: { setId }, raw: true })).map(({ photoId }) => photoId);

/** An edit on what there is now. */
async function edit(
  setId: number,
  window: string,
  commandOf: (photo: PhotoModel) => Command,
  random: Random,
) {
  const photoId = one(await standing(setId), random);
  const photo = photoId === undefined ? null : await PhotoModel.findByPk(photoId);
  if (!photo) return;
  const seen = { photos: { [photo.id]: photo.version }, set: (await findSet(setId)).version };
  const sent = { label: 'edit', commands: [commandOf(photo)], seen, window, token: randomUUID() };
  await server.parts.edits.perform(setId, sent, 'editor');
}

type Act = (setId: number, window: string, random: Random) => Promise<unknown>;

const takeIn: Act = async (setId, _, random) => {
  const { name, bytes } = one(files, random)!;
  await server.add(name, bytes, setId);
};
const bin: Act = (setId, window, random) =>
  edit(setId, window, ({ id: photo }) => ({ kind: 'bin', photo, binned: random() < 0.8 }), random);

const ACTS_OF_WRITERS: Record<string, Act> = {
  takeIn,
  takeInAgain: takeIn,
  write: (setId, window, random) => {
    const alt = `Alt ${Math.floor(random() * 1000)}`;
    const command = ({ id: photo }: PhotoModel): Command => ({
      ...{ kind: 'words', photo, language: 'en', words: { alt } },
    });
    return edit(setId, window, command, random);
  },
  frame: (setId, window, random) =>
    edit(
      setId,
      window,
      ({ id: photo }) => ({ kind: 'focal', photo, focal: { x: random(), y: 0.5, confirmed: true } }),
      random,
    ),
  place: (setId, window, random) => {
    const slots = random() < 0.5 ? ['half', 'grid'] : ['column'];
    const placements = placementsFor({ placements: [] }, slots);
    return edit(setId, window, ({ id: photo }) => ({ kind: 'placements', photo, placements }), random);
  },
  undo: (setId, window) => server.parts.edits.undo(setId, { window, since: 0 }),
  redo: (setId, window) => server.parts.edits.redo(setId, { window, since: 0 }),
  borrow: async (setId, _, random) => {
    const photo = one(await standing(sets.find((other) => other !== setId)!), random);
    if (photo !== undefined) await server.parts.takeIn.importPhotos(setId, [photo]);
  },
  bin,
  binMore: bin,
  empty: (setId) => emptyBin(server.parts.changes, server.parts.vault, setId),
  replace: async (setId, window, random) => {
    const offer = one(await offersOf(setId), random);
    if (!offer) return;
    const photo = await PhotoModel.findByPk(offer.photo);
    if (!photo) return;
    const { hash, attention } = offer.original;
    const command: Command = {
      ...{ kind: 'original', photo: photo.id, original: hash, fileName: offer.fileName },
      ...{ frame: firstFrame(attention), toRead: true },
    };
    const seen = { photos: { [photo.id]: photo.version } };
    const sent = { label: 'replaced', commands: [command], seen, window, token: randomUUID() };
    await server.parts.edits.perform(setId, sent, 'editor');
  },
  places: (setId, window, random) => {
    const slots = random() < 0.5 ? ['grid'] : ['grid', 'half'];
    return findSet(setId).then(({ version }) =>
      server.parts.edits.perform(
        setId,
        {
          ...{ label: 'places', window, token: randomUUID(), seen: { photos: {}, set: version } },
          commands: [{ kind: 'set', change: { slots } }],
        },
        'editor',
      ),
    );
  },
  handOver: (setId) =>
    server.app
      .inject({ method: 'POST', url: `/api/sets/${setId}/hand-over/publish` })
      .then(({ statusCode }) => {
        if (statusCode >= 500) throw new Error(`A hand-over answered ${statusCode}.`);
      }),
};

/** What may be answered to somebody whom another was in the way of. */
const EXPECTED = new Set(['stale', 'nothing-to-undo', 'nothing-to-redo', 'changed-since', 'impossible-edit']);
EXPECTED.add('no-such-photo').add('no-such-file');

async function write(setId: number, window: string, random: Random, done: string[]): Promise<void> {
  for (let n = 0; n < ACTS; n++) {
    const name = one(Object.keys(ACTS_OF_WRITERS), random)!;
    done.push(`${window} ${name}`);
    try {
      await ACTS_OF_WRITERS[name]!(setId, window, random);
    } catch (error) {
      if (!(error instanceof ProblemError) || !EXPECTED.has(error.code)) throw error;
    }
  }
}

/** What is wrong with what is stored, in sentences. */
async function wrong(): Promise<string[]> {
  const { vault, ledgers, sites, stored } = server.parts;
  const found: string[] = [];
  const photos = await PhotoModel.findAll();
  const members = new Set((await MembershipModel.findAll()).map(({ photoId }) => photoId));
  for (const { id } of photos) if (!members.has(id)) found.push(`Photo ${id} is in no set.`);
  const used = new Set([
    ...photos.map(({ originalHash }) => originalHash),
    ...(await EarlierOriginalModel.findAll()).map(({ hash }) => hash),
    ...(await OfferModel.findAll()).map(({ hash }) => hash),
  ]);
  const originals = (await OriginalModel.findAll()).map(({ hash }) => hash);
  for (const hash of originals) {
    if (!used.has(hash)) found.push(`Original ${hash} belongs to nobody.`);
    if (!(await vault.has(vault.original(hash)))) found.push(`Original ${hash} has no file.`);
  }
  for (const folder of await readdir(join(vault.root, 'originals')))
    for (const hash of await readdir(join(vault.root, 'originals', folder)))
      if (!originals.includes(hash)) found.push(`File ${hash} is no original.`);
  if ((await vault.setAsides()).length > 0) found.push('An original is set aside for good.');
  const anew = new Ledgers(sites, {
    of: (key) => stored.bytesOf(key) ?? null,
    improved: () => false,
    saved: (key) => stored.savedOf(key),
  });
  for (const setId of sets) {
    const [kept, fresh] = [await ledgers.get(setId), await anew.get(setId)];
    // What the thorough pass has come to is no wish.
    const wishes = ({ progress: { wanted, made, failed } }: SetLedger) => [wanted, made, failed];
    expect(wishes(kept)).toEqual(wishes(fresh));
    expect(kept.counts).toEqual(fresh.counts);
    expect(kept.all).toEqual(fresh.all);
    for (const { id } of fresh.all) expect(kept.speaking(id)).toBe(fresh.speaking(id));
  }
  return found;
}

/** Resolves when every file that is wanted is made; nothing is looked for that was not looked for already. */
async function settled(): Promise<void> {
  const { preparer, hub, ledgers } = server.parts;
  // Ledgers are made anew beside everything else: what waits for its turn has it before this.
  for (const setId of sets) await ledgers.update(setId, []);
  const isDone = () =>
    sets.every((setId) => {
      const { wanted, made, failed } = preparer.progressOf(setId);
      return made + failed >= wanted;
    });
  if (isDone()) return;
  await new Promise<void>((done, fail) => {
    const said = () => sets.map((setId) => preparer.progressOf(setId));
    // Nothing takes a hundredth of this: what is not made by then is never made.
    const tooLong = setTimeout(() => fail(new Error(`Never made: ${JSON.stringify(said())}`)), LONGEST);
    const stop = hub.listen(sets, {
      send: () => {
        if (isDone()) {
          clearTimeout(tooLong);
          stop();
          done();
        }
        return true;
      },
      cut: () => undefined,
    });
  });
}

test(`${SCHEDULES} meetings of two writers end in one state`, async () => {
  const seed = Number(process.env.SEED ?? 24);
  const tried = new Set<string>();
  for (let n = 0; n < SCHEDULES; n++) {
    const done: string[] = [];
    const writers = ['ann', 'bea'].map((window, at) =>
      write(sets[(n + at) % 2 === 0 ? 0 : at]!, window, chance(seed * 1000 + n * 2 + at).next, done),
    );
    await Promise.all(writers);
    await settled();
    expect({ n, done, wrong: await wrong() }).toEqual({ n, done, wrong: [] });
    for (const act of done) tried.add(act.split(' ')[1]!);
  }
  expect([...tried].sort()).toEqual(Object.keys(ACTS_OF_WRITERS).sort());
}, 600_000);
