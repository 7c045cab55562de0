// Originals that take a photo's place: what is offered, what stood there before, and what nobody needs any more.
import {
  CommandError,
  isPhotoCommand,
  type Command,
  type KnownOriginals,
  type Offer,
  type OutputFormat,
} from '@dusky-otter/core';
import { Op, type Transaction } from 'sequelize';
import {
  EarlierOriginalModel,
  OfferModel,
  OriginalModel,
  PhotoModel,
  VariantModel,
} from '../database/models.ts';
import type { StoredVariants } from '../prepare/stored.ts';
import type { Vault } from '../vault/vault.ts';

/** Files of a set that may take a photo's place, oldest first. */
export async function offersOf(setId: number): Promise<Offer[]> {
  const found = await OfferModel.findAll({ where: { setId }, order: [['id', 'ASC']] });
  const originals = await OriginalModel.findAll({ where: { hash: found.map(({ hash }) => hash) } });
  const facts = new Map(originals.map((original) => [original.hash, original.facts]));
  return found.map(({ id, photoId, fileName, hash }) => ({
    id,
    photo: photoId,
    fileName,
    original: facts.get(hash)!,
  }));
}

/** Originals that commands may put in a photo's place: those offered for it, and those it had before. */
export async function replacementsIn(
  commands: readonly Command[],
  t: Transaction,
): Promise<(photoId: number) => KnownOriginals> {
  const named = commands.filter((command) => isPhotoCommand(command) && command.kind === 'original');
  if (named.length === 0) return () => () => undefined;
  const where = {
    photoId: named.map(({ photo }) => photo),
    hash: named.map((command) => command.original),
  };
  const [offered, earlier, originals] = await Promise.all([
    OfferModel.findAll({ where, transaction: t }),
    EarlierOriginalModel.findAll({ where, transaction: t }),
    OriginalModel.findAll({ where: { hash: where.hash }, transaction: t }),
  ]);
  const facts = new Map(originals.map((original) => [original.hash, original.facts]));
  const known = new Set([...offered, ...earlier].map(({ photoId, hash }) => `${photoId} ${hash}`));
  return (photoId) => (hash) => (known.has(`${photoId} ${hash}`) ? facts.get(hash) : undefined);
}

/**
 * Puts an original in a photo's place. What stood there stays, for undo and for whoever wants it back.
 * @throws CommandError where another photo of the site has it
 */
export async function putInPlace(
  photoId: number,
  { hash, fileName }: { hash: string; fileName: string },
  t: Transaction,
): Promise<void> {
  const photo = (await PhotoModel.findByPk(photoId, { transaction: t, lock: true }))!;
  const other = await PhotoModel.findOne({
    where: { siteId: photo.siteId, originalHash: hash, id: { [Op.ne]: photoId } },
    transaction: t,
  });
  if (other) throw new CommandError(`This picture stands in the site already, as “${other.fileName}”.`);
  await EarlierOriginalModel.bulkCreate(
    [...new Set([photo.originalHash, hash])].map((one) => ({ photoId, hash: one })),
    { ignoreDuplicates: true, transaction: t },
  );
  await photo.update({ originalHash: hash, fileName }, { transaction: t });
  await OfferModel.destroy({ where: { photoId, hash }, transaction: t });
}

/** All originals of photos, those that they had before too. */
export async function originalsOf(photos: readonly PhotoModel[], t?: Transaction): Promise<string[]> {
  const transaction = t ? { transaction: t } : {};
  const photoId = photos.map(({ id }) => id);
  const earlier = await EarlierOriginalModel.findAll({ where: { photoId }, ...transaction });
  const offered = await OfferModel.findAll({ where: { photoId }, ...transaction });
  return [
    ...new Set([
      ...photos.map(({ originalHash }) => originalHash),
      ...[...earlier, ...offered].map(({ hash }) => hash),
    ]),
  ];
}

/** Deletes those of some originals that no photo has, had, or is offered, with all that was made of them. */
export async function dropUnused(
  hashes: readonly string[],
  { vault, stored }: { vault: Vault; stored: StoredVariants },
): Promise<void> {
  for (const hash of hashes) {
    const used =
      (await PhotoModel.count({ where: { originalHash: hash } })) +
      (await EarlierOriginalModel.count({ where: { hash } })) +
      (await OfferModel.count({ where: { hash } }));
    if (used > 0) continue;
    for (const { key, format } of await VariantModel.findAll({ where: { originalHash: hash } })) {
      await stored.forget(key);
      await vault.removeFile(vault.variant(key, format as OutputFormat));
    }
    await OriginalModel.destroy({ where: { hash } });
    await vault.removeOriginal(hash);
  }
}
