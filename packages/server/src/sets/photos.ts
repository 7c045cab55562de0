// Reads and writes photos of a set: decisions of the photo, of the photo in the set, and its words in one language.
import {
  NO_WORDS,
  type Language,
  type OriginalFacts,
  type Photo,
  type PhotoChange,
  type Placement,
  type Words,
} from '@dusky-otter/core';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import {
  ArrangementModel,
  MembershipModel,
  OriginalModel,
  PhotoModel,
  PlacementModel,
  SetModel,
} from '../database/models.ts';
import { PhotoWordsModel } from '../database/words-models.ts';
import { putInPlace } from './originals.ts';

export type Reading = { transaction?: Transaction; lock?: boolean };

const FIELDS = Object.keys(NO_WORDS) as (keyof Words)[];

const saidIn = (said: PhotoWordsModel): Words => ({
  ...(Object.fromEntries(FIELDS.map((field) => [field, said[field]])) as unknown as Words),
  kept: said.kept ?? {},
});

/** What was read of an original when it came, and since. */
const factsOf = ({ facts, shows }: OriginalModel): OriginalFacts => (shows ? { ...facts, shows } : facts);

/** A photo's words in one language, locked; what is not said in it is empty. */
export async function wordsIn(photoId: number, language: Language, t: Transaction): Promise<Words> {
  const said = await PhotoWordsModel.findOne({ where: { photoId, language }, transaction: t, lock: true });
  return said ? saidIn(said) : NO_WORDS;
}

/** Words of photos in one language, of those that have some in it. */
export async function wordsOfPhotos(
  photoIds: readonly number[],
  language: Language,
): Promise<Map<number, Words>> {
  const found = await PhotoWordsModel.findAll({ where: { photoId: [...photoIds], language } });
  return new Map(found.map((said) => [said.photoId, saidIn(said)]));
}

export async function writeWords(
  photoId: number,
  language: Language,
  words: Words,
  t: Transaction,
): Promise<void> {
  await PhotoWordsModel.upsert({ photoId, language, ...words }, { transaction: t });
}

/** Spots that photos have of their own in the lists of a set, by photo. */
async function spotsOf(
  setId: number,
  photoIds: readonly number[],
  options: Reading,
): Promise<Map<number, Placement[]>> {
  const spots = new Map<number, Placement[]>();
  if (photoIds.length === 0) return spots;
  const lists = await ArrangementModel.findAll({ where: { setId, kind: 'list' }, ...options });
  const slotOf = new Map(lists.map(({ id, options: { slot } }) => [id, slot]));
  const placements = await PlacementModel.findAll({
    where: { arrangementId: [...slotOf.keys()], photoId: [...photoIds] },
    order: [['id', 'ASC']],
    ...options,
  });
  for (const { photoId, arrangementId, link, words, crops } of placements) {
    const spot = { slot: slotOf.get(arrangementId)!, link, words, crops };
    spots.set(photoId, [...(spots.get(photoId) ?? []), spot]);
  }
  return spots;
}

/**
 * Photos of a set in its order, binned ones too, or those of them that are asked for.
 * @param language of their words; what is not said in it is empty
 */
export async function loadPhotos(
  setId: number,
  language: Language,
  only?: readonly number[],
  options: Reading = {},
): Promise<Photo[]> {
  const memberships = await MembershipModel.findAll({
    where: { setId, ...(only && { photoId: [...only] }) },
    order: [
      ['position', 'ASC'],
      ['photoId', 'ASC'],
    ],
    ...options,
  });
  const ids = memberships.map(({ photoId }) => photoId);
  // In the order of ids: whoever locks several photos locks them in the same order as everybody else.
  const photos = await PhotoModel.findAll({ where: { id: ids }, order: [['id', 'ASC']], ...options });
  const originals = await OriginalModel.findAll({
    where: { hash: photos.map(({ originalHash }) => originalHash) },
    ...(options.transaction && { transaction: options.transaction }),
  });
  const words = await PhotoWordsModel.findAll({ where: { photoId: ids, language }, ...options });
  const own = memberships.filter(({ follows }) => !follows).map(({ photoId }) => photoId);
  const spots = await spotsOf(setId, own, options);
  const photoById = new Map(photos.map((photo) => [photo.id, photo]));
  const originalByHash = new Map(originals.map((original) => [original.hash, original]));
  const wordsById = new Map(words.map((said) => [said.photoId, saidIn(said)]));
  return memberships.map(({ photoId, position, follows, binned }) => {
    const photo = photoById.get(photoId)!;
    return {
      id: photo.id,
      version: photo.version,
      fileName: photo.fileName,
      original: factsOf(originalByHash.get(photo.originalHash)!),
      frame: photo.frame,
      quality: photo.quality,
      words: wordsById.get(photoId) ?? NO_WORDS,
      placements: follows ? null : (spots.get(photoId) ?? []),
      position,
      binned,
      toRead: photo.toRead,
    };
  });
}

/** How many photos are read at once where all of a large set are gone through. */
const CHUNK = 400;

/** All photos of a set in its order, in parts: a large set is never in memory whole. */
export async function* photosInParts(setId: number, language: Language): AsyncGenerator<Photo[]> {
  const all = await MembershipModel.findAll({
    where: { setId },
    attributes: ['photoId'],
    order: [
      ['position', 'ASC'],
      ['photoId', 'ASC'],
    ],
    raw: true,
  });
  for (let at = 0; at < all.length; at += CHUNK)
    yield loadPhotos(
      setId,
      language,
      all.slice(at, at + CHUNK).map(({ photoId }) => photoId),
    );
}

/** The plain list of a set for a place; made where there is none yet. */
export async function listFor(
  set: Pick<SetModel, 'id' | 'siteId'>,
  slot: string,
  t: Transaction,
): Promise<ArrangementModel> {
  const shortName = `set-${set.id}-${slot}`;
  const where = { siteId: set.siteId, shortName };
  const found = await ArrangementModel.findOne({ where, transaction: t, lock: true });
  if (found) return found;
  return ArrangementModel.create(
    { ...where, setId: set.id, title: slot, kind: 'list', options: { slot }, open: false, version: 1 },
    { transaction: t },
  );
}

/** Makes a set whose lists for these places are open: both or neither. */
export const makeSet = (
  sequelize: Sequelize,
  values: { siteId: number; name: string; version: number; arranged?: boolean; workedAt?: Date },
  slots: readonly string[],
): Promise<SetModel> =>
  sequelize.transaction(async (transaction) => {
    const set = await SetModel.create(values, { transaction });
    for (const slot of slots)
      await (await listFor(set, slot, transaction)).update({ open: true }, { transaction });
    return set;
  });

async function writeSpots(
  set: SetModel,
  photoId: number,
  placements: readonly Placement[] | null,
  t: Transaction,
): Promise<void> {
  const lists = await ArrangementModel.findAll({ where: { setId: set.id, kind: 'list' }, transaction: t });
  await PlacementModel.destroy({
    where: { photoId, arrangementId: lists.map(({ id }) => id) },
    transaction: t,
  });
  for (const { slot, link, words, crops } of placements ?? []) {
    const { id: arrangementId } = await listFor(set, slot, t);
    await PlacementModel.create(
      { arrangementId, photoId, position: null, link, words, crops },
      { transaction: t },
    );
  }
}

/** Writes what is decided on a photo itself. */
async function writeOwn(
  id: number,
  { frame, quality, toRead, original, fileName }: PhotoChange,
  t: Transaction,
): Promise<void> {
  const own = {
    ...(frame && { frame }),
    ...(quality && { quality }),
    ...(toRead !== undefined && { toRead }),
  };
  if (Object.keys(own).length > 0) await PhotoModel.update(own, { where: { id }, transaction: t });
  if (original && fileName !== undefined) await putInPlace(id, { hash: original.hash, fileName }, t);
}

/** Writes what is decided on a photo in a set, the bin apart. */
async function writeHere(
  set: SetModel,
  id: number,
  { placements, position }: PhotoChange,
  t: Transaction,
): Promise<void> {
  if (placements !== undefined) await writeSpots(set, id, placements, t);
  const here = {
    ...(placements !== undefined && { follows: placements === null }),
    ...(position !== undefined && { position }),
  };
  if (Object.keys(here).length > 0)
    await MembershipModel.update(here, { where: { setId: set.id, photoId: id }, transaction: t });
}

/** Writes what changed of photos in a set, and their next versions. Thousands may go into the bin at once. */
export async function writePhotos(
  set: SetModel,
  language: Language,
  changes: ReadonlyMap<number, PhotoChange>,
  t: Transaction,
): Promise<void> {
  if (changes.size === 0) return;
  const binned = { true: [] as number[], false: [] as number[] };
  for (const [id, change] of changes) {
    await writeOwn(id, change, t);
    if (change.words) await writeWords(id, language, change.words, t);
    await writeHere(set, id, change, t);
    if (change.binned !== undefined) binned[`${change.binned}`].push(id);
  }
  for (const put of [true, false]) {
    const where = { setId: set.id, photoId: binned[`${put}`] };
    if (where.photoId.length > 0) await MembershipModel.update({ binned: put }, { where, transaction: t });
  }
  await PhotoModel.increment('version', { where: { id: [...changes.keys()] }, transaction: t });
}

/** Sets that photos stand in, the bin counted too. */
export async function setsOf(photoIds: readonly number[]): Promise<Map<number, number[]>> {
  const found = await MembershipModel.findAll({
    where: { photoId: { [Op.in]: [...photoIds] } },
    attributes: ['setId', 'photoId'],
    raw: true,
  });
  const sets = new Map<number, number[]>();
  for (const { setId, photoId } of found) sets.set(setId, [...(sets.get(setId) ?? []), photoId]);
  return sets;
}
