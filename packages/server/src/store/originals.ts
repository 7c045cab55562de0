// Originals: their facts, those that photos had before or are offered, and what was made of them.
import type { Offer, OriginalFacts, ShownLine } from '@dusky-otter/core/contract';
import type { Transaction } from 'sequelize';
import type { ViewHashes } from '../codec/protocol.ts';
import {
  EarlierOriginalModel,
  OfferModel,
  OriginalModel,
  PhotoModel,
  VariantModel,
} from '../database/models.ts';
import type { InTransaction } from './reading.ts';

/** What is known of an original, or null. */
export const factsOf = async (hash: string): Promise<OriginalFacts | null> =>
  (await OriginalModel.findByPk(hash))?.facts ?? null;

/** Facts of originals by their hashes. */
export async function factsBy(
  hashes: readonly string[],
  options: InTransaction = {},
): Promise<Map<string, OriginalFacts>> {
  const found = await OriginalModel.findAll({ where: { hash: [...hashes] }, ...options });
  return new Map(found.map(({ hash, facts }) => [hash, facts]));
}

/** Keeps what was read of an original. */
export async function writeOriginal(facts: OriginalFacts, views: ViewHashes | null): Promise<void> {
  await OriginalModel.upsert({ hash: facts.hash, facts, views });
}

/** SHA-256 of an original's views; null where they are not known. */
export const viewsOf = async (hash: string): Promise<ViewHashes | null> =>
  (await OriginalModel.findByPk(hash))?.views ?? null;

export async function writeViews(hash: string, views: ViewHashes): Promise<void> {
  await OriginalModel.update({ views }, { where: { hash } });
}

/** An original in which nobody has looked for words yet, or null. */
export const nextUnread = (): Promise<{ hash: string; facts: OriginalFacts } | null> =>
  OriginalModel.findOne({ where: { shows: null }, order: [['hash', 'ASC']] });

/** One of a hash, as long as nobody has looked for words in it. */
export const unread = (hash: string): Promise<{ hash: string; facts: OriginalFacts } | null> =>
  OriginalModel.findOne({ where: { hash, shows: null } });

/** Keeps the words that an original shows. */
export async function writeShown(hash: string, shows: ShownLine[]): Promise<void> {
  await OriginalModel.update({ shows }, { where: { hash } });
}

/** Files of a set that may take a photo's place, oldest first. */
export async function offersOf(setId: number): Promise<Offer[]> {
  const found = await OfferModel.findAll({ where: { setId }, order: [['id', 'ASC']] });
  const facts = await factsBy(found.map(({ hash }) => hash));
  return found.flatMap(({ id, photoId, fileName, hash }) => {
    const original = facts.get(hash);
    // One that was put away between the two questions is offered no more.
    return original ? [{ id, photo: photoId, fileName, original }] : [];
  });
}

export const offerCount = (setId: number): Promise<number> => OfferModel.count({ where: { setId } });

/** All originals of photos, those that they had before or are offered too. */
export async function originalsOf(photos: readonly PhotoModel[], t: Transaction): Promise<string[]> {
  const where = { photoId: photos.map(({ id }) => id) };
  const earlier = await EarlierOriginalModel.findAll({ where, transaction: t });
  const offered = await OfferModel.findAll({ where, transaction: t });
  return [
    ...new Set([
      ...photos.map(({ originalHash }) => originalHash),
      ...[...earlier, ...offered].map(({ hash }) => hash),
    ]),
  ];
}

/** Of some originals those that a photo has, had, or is offered. */
export async function usedOf(hashes: readonly string[], t: Transaction): Promise<Set<string>> {
  const where = { hash: [...hashes] };
  const photos = await PhotoModel.findAll({ where: { originalHash: [...hashes] }, transaction: t });
  const earlier = await EarlierOriginalModel.findAll({ where, transaction: t });
  const offered = await OfferModel.findAll({ where, transaction: t });
  return new Set([
    ...photos.map(({ originalHash }) => originalHash),
    ...[...earlier, ...offered].map(({ hash }) => hash),
  ]);
}

/** Files that were made of originals: key and format of each. */
export const variantsOfOriginals = (hashes: readonly string[], t: Transaction): Promise<VariantModel[]> =>
  VariantModel.findAll({ where: { originalHash: [...hashes] }, transaction: t });
