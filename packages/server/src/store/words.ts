// Words of photos, by language.
import type { Language, Words } from '@dusky-otter/core/contract';
import { NO_WORDS } from '@dusky-otter/core/words';
import type { Transaction } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { PhotoWordsModel } from '../database/words-models.ts';
import type { ReadOptions } from './reading.ts';

const FIELDS = Object.keys(NO_WORDS) as (keyof Words)[];

const saidIn = (said: PhotoWordsModel): Words => ({
  ...(Object.fromEntries(FIELDS.map((field) => [field, said[field]])) as unknown as Words),
  kept: said.kept ?? {},
});

/** Words of photos in one language, of those that have some in it. */
export async function wordsOfPhotos(
  photoIds: readonly number[],
  language: Language,
  reading: ReadOptions = {},
): Promise<Map<number, Words>> {
  const found = await PhotoWordsModel.findAll({ where: { photoId: [...photoIds], language }, ...reading });
  return new Map(found.map((said) => [said.photoId, saidIn(said)]));
}

/** Writes words of photos in one language whole. */
export async function writeWords(
  words: ReadonlyMap<number, Words>,
  language: Language,
  t: Transaction,
): Promise<void> {
  for (const part of inParts([...words]))
    await PhotoWordsModel.bulkCreate(
      part.map(([photoId, said]) => ({ photoId, language, ...said })),
      { transaction: t, updateOnDuplicate: FIELDS },
    );
}
