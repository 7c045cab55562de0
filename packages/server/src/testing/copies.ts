// For tests: many photos without as many files, as rows that are made from one that was taken in.
import { positions } from '@dusky-otter/core/edits';
import { MembershipModel, OriginalModel, PhotoModel } from '../database/models.ts';
import { PhotoWordsModel } from '../database/words-models.ts';

/** Puts copies of a photo into a set, each with an original of its own that no file is of. @returns their ids */
export async function copiesOf(photoId: number, setId: number, count: number): Promise<number[]> {
  const { siteId, originalHash, frame, quality } = (await PhotoModel.findByPk(photoId))!;
  const { facts, views } = (await OriginalModel.findByPk(originalHash))!;
  const hashes = Array.from({ length: count }, (_, n) => (photoId * 1e6 + n).toString(16).padStart(64, '0'));
  await OriginalModel.bulkCreate(hashes.map((hash) => ({ hash, facts: { ...facts, hash }, views })));
  await PhotoModel.bulkCreate(
    hashes.map((hash, n) => ({
      ...{ siteId, frame, quality, originalHash: hash, version: 1, toRead: false },
      fileName: `copy-${n}.jpg`,
    })),
  );
  const photos = await PhotoModel.findAll({ where: { originalHash: hashes }, order: [['id', 'ASC']] });
  const ids = photos.map(({ id }) => id);
  const places = positions(count);
  await MembershipModel.bulkCreate(
    ids.map((id, n) => ({ setId, photoId: id, position: places[n]!, follows: true, binned: false })),
  );
  const words = (await PhotoWordsModel.findOne({ where: { photoId } }))!;
  await PhotoWordsModel.bulkCreate(
    ids.map((photoId, n) => ({ ...words.toJSON<object>(), photoId, title: `Copy ${n}` })),
  );
  return ids;
}
