// Another original takes a photo's place. What stood there stays, for undo and for whoever wants it back.
import { CommandError, isPhotoCommand, type Command, type KnownOriginals } from '@dusky-otter/core/edits';
import { Op, type Transaction } from 'sequelize';
import { EarlierOriginalModel, OfferModel, type PhotoModel } from '../database/models.ts';
import { factsBy } from '../store/originals.ts';
import { photosWith } from '../store/photos.ts';
import type { Work } from './changes.ts';

/** Originals that commands may put in a photo's place: those offered for it, and those it had before. They are held. */
export async function replacementsIn(
  commands: readonly Command[],
  work: Work,
): Promise<(photoId: number) => KnownOriginals> {
  const named = commands.filter((command) => isPhotoCommand(command) && command.kind === 'original');
  if (named.length === 0) return () => () => undefined;
  const { t } = work;
  const hashes = named.map((command) => command.original);
  const where = { photoId: named.map(({ photo }) => photo), hash: hashes };
  await work.originals(hashes);
  const offered = await OfferModel.findAll({ where, transaction: t });
  const earlier = await EarlierOriginalModel.findAll({ where, transaction: t });
  const facts = await factsBy(hashes, { transaction: t });
  const known = new Set([...offered, ...earlier].map(({ photoId, hash }) => `${photoId} ${hash}`));
  return (photoId) => (hash) => (known.has(`${photoId} ${hash}`) ? facts.get(hash) : undefined);
}

/**
 * Notes originals that photos had and get, and that they are offered no more.
 * @param replaced photos that are held, as they were, with the hash that each has from now on
 * @returns sets in which they were offered
 * @throws CommandError where another photo of the site has it
 */
export async function noteReplaced(
  siteId: number,
  replaced: readonly { photo: PhotoModel; hash: string }[],
  t: Transaction,
): Promise<number[]> {
  if (replaced.length === 0) return [];
  const hashOf = new Map(replaced.map(({ photo, hash }) => [photo.id, hash]));
  if (new Set(hashOf.values()).size !== hashOf.size)
    throw new CommandError('One file can take the place of one photo.');
  const standing = await photosWith(siteId, [...hashOf.values()], t);
  for (const [hash, { id, fileName }] of standing)
    if (hashOf.get(id) !== hash)
      throw new CommandError(`This picture stands in the site already, as “${fileName}”.`);
  await EarlierOriginalModel.bulkCreate(
    replaced.flatMap(({ photo, hash }) =>
      [...new Set([photo.originalHash, hash])].map((one) => ({ photoId: photo.id, hash: one })),
    ),
    { ignoreDuplicates: true, transaction: t },
  );
  const taken = [...hashOf].map(([photoId, hash]) => ({ photoId, hash }));
  const offers = await OfferModel.findAll({ where: { [Op.or]: taken }, transaction: t });
  await OfferModel.destroy({ where: { id: offers.map(({ id }) => id) }, transaction: t });
  return [...new Set(offers.map(({ setId }) => setId))];
}
