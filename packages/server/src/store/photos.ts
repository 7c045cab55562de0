// Photos as they stand in a set: decisions of the photo, of the photo in the set, and its words in one language.
import type { Language, OriginalFacts, Photo, PhotoChange } from '@dusky-otter/core/contract';
import { NO_WORDS } from '@dusky-otter/core/words';
import { Op, type Transaction } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { MembershipModel, OriginalModel, PhotoModel } from '../database/models.ts';
import { placementsOf, writePlacements } from './placements.ts';
import type { ReadOptions } from './reading.ts';
import { wordsOfPhotos, writeWords } from './words.ts';

/** What was read of an original when it came, and since. */
const factsOf = ({ facts, shows }: OriginalModel): OriginalFacts => (shows ? { ...facts, shows } : facts);

/** Photos in a set follow each other by their positions; those with the same one by their ids. */
const IN_ORDER: [string, string][] = [
  ['position', 'ASC'],
  ['photoId', 'ASC'],
];

/**
 * Photos of a set in its order, binned ones too, or those of them that are asked for.
 * @param language of their words; what is not said in it is empty
 * @param reading who locks what hangs on photos holds these already
 */
export async function loadPhotos(
  setId: number,
  language: Language,
  only?: readonly number[],
  reading: ReadOptions = {},
): Promise<Photo[]> {
  const { transaction } = reading;
  const memberships = await MembershipModel.findAll({
    where: { setId, ...(only && { photoId: [...only] }) },
    order: IN_ORDER,
    ...reading,
  });
  const here = memberships.map(({ photoId }) => photoId);
  const photos = await PhotoModel.findAll({ where: { id: here }, order: [['id', 'ASC']], ...reading });
  const originals = await OriginalModel.findAll({
    where: { hash: photos.map(({ originalHash }) => originalHash) },
    ...(transaction && { transaction }),
  });
  const wordsById = await wordsOfPhotos(here, language, reading);
  const own = memberships.filter(({ follows }) => !follows).map(({ photoId }) => photoId);
  const placements = await placementsOf(setId, own, reading);
  const photoById = new Map(photos.map((photo) => [photo.id, photo]));
  const originalByHash = new Map(originals.map((original) => [original.hash, original]));
  return memberships.flatMap(({ photoId, position, follows, binned }) => {
    const photo = photoById.get(photoId);
    // It came between the two questions, or went: whoever changed it has it looked at again.
    if (!photo) return [];
    const original = originalByHash.get(photo.originalHash);
    if (!original) throw new Error(`Photo ${photoId} has no original.`);
    return [
      {
        id: photo.id,
        version: photo.version,
        fileName: photo.fileName,
        original: factsOf(original),
        frame: photo.frame,
        quality: photo.quality,
        words: wordsById.get(photoId) ?? NO_WORDS,
        placements: follows ? null : (placements.get(photoId) ?? []),
        position,
        binned,
        toRead: photo.toRead,
      },
    ];
  });
}

/** How many photos are read at once where all of a large set are gone through. */
const CHUNK = 400;

/** All photos of a set in its order, in parts: a large set is never in memory whole. */
export async function* photosInParts(
  setId: number,
  language: Language,
  only?: readonly number[],
): AsyncGenerator<Photo[]> {
  const all = await MembershipModel.findAll({
    where: { setId, ...(only && { photoId: [...only] }) },
    attributes: ['photoId'],
    order: IN_ORDER,
    raw: true,
  });
  for (let at = 0; at < all.length; at += CHUNK)
    yield loadPhotos(
      setId,
      language,
      all.slice(at, at + CHUNK).map(({ photoId }) => photoId),
    );
}

/**
 * Writes what changed of photos that are locked in a set, with their next versions: so many questions to the database
 * whether one photo changes or five hundred.
 * @param photos as they are after the change, with the versions that they had before it
 * @param language of their words
 */
export async function writePhotos(
  { id: setId, siteId }: { id: number; siteId: number },
  photos: readonly Photo[],
  changes: ReadonlyMap<number, PhotoChange>,
  language: Language,
  t: Transaction,
): Promise<void> {
  const changed = photos.filter(({ id }) => changes.has(id));
  const ofKind = (...parts: (keyof PhotoChange)[]) =>
    changed.filter(({ id }) => parts.some((part) => changes.get(id)![part] !== undefined));
  await writeWords(new Map(ofKind('words').map(({ id, words }) => [id, words])), language, t);
  const placed = ofKind('placements').map(({ id, placements }) => [id, placements] as const);
  await writePlacements(setId, new Map(placed), t);
  // Rows are written whole over those that are there: an update says one value for all.
  for (const part of inParts(ofKind('placements', 'position', 'binned')))
    await MembershipModel.bulkCreate(
      part.map(({ id, placements, position, binned }) => ({
        ...{ setId, photoId: id, position, binned },
        follows: placements === null,
      })),
      { transaction: t, updateOnDuplicate: ['position', 'binned', 'follows'] },
    );
  for (const part of inParts(ofKind('frame', 'quality', 'toRead', 'original', 'fileName')))
    await PhotoModel.bulkCreate(
      part.map(({ id, frame, quality, toRead, fileName, version, original }) => ({
        ...{ id, siteId, frame, quality, toRead, fileName, version },
        originalHash: original.hash,
      })),
      { transaction: t, updateOnDuplicate: ['frame', 'quality', 'toRead', 'fileName', 'originalHash'] },
    );
  for (const id of inParts(changed.map((photo) => photo.id)))
    await PhotoModel.increment('version', { where: { id }, transaction: t });
}

/** Sets that photos stand in, the bin counted too. */
export async function setsOf(photoIds: readonly number[]): Promise<Map<number, number[]>> {
  const sets = new Map<number, number[]>();
  for (const part of inParts(photoIds)) {
    const found = await MembershipModel.findAll({
      where: { photoId: part },
      attributes: ['setId', 'photoId'],
      raw: true,
    });
    for (const { setId, photoId } of found) sets.set(setId, [...(sets.get(setId) ?? []), photoId]);
  }
  return sets;
}

/** Versions that photos have now; of those that are there. */
export async function versionsOf(photoIds: readonly number[]): Promise<Map<number, number>> {
  const found = await PhotoModel.findAll({
    where: { id: [...photoIds] },
    attributes: ['id', 'version'],
    raw: true,
  });
  return new Map(found.map(({ id, version }) => [id, version]));
}

/** Photos of an original, in whichever site. */
export async function photosOfOriginal(hash: string): Promise<number[]> {
  const found = await PhotoModel.findAll({ where: { originalHash: hash }, attributes: ['id'] });
  return found.map(({ id }) => id);
}

/** Sets of a site in which a photo stands outside the bin. */
export async function standingIn(photoId: number): Promise<number[]> {
  const found = await MembershipModel.findAll({ where: { photoId, binned: false } });
  return found.map(({ setId }) => setId);
}

/** The last position of a set; null in an empty one. */
export const lastPosition = (setId: number): Promise<string | null> =>
  MembershipModel.max<string | null, MembershipModel>('position', { where: { setId } });

/** Photos of a site that stand under other ids with one of these originals, by hash. */
export async function photosWith(
  siteId: number,
  hashes: readonly string[],
  t: Transaction,
): Promise<Map<string, { id: number; fileName: string }>> {
  const found = await PhotoModel.findAll({
    where: { siteId, originalHash: { [Op.in]: [...hashes] } },
    transaction: t,
  });
  return new Map(found.map(({ originalHash, id, fileName }) => [originalHash, { id, fileName }]));
}
