// Empties the bin of a set for good: its photos leave the set, and those that stand in no other are deleted with their
// originals, which may say where they were taken.
import { isPhotoCommand, type Command } from '@dusky-otter/core';
import type { Sequelize, Transaction } from 'sequelize';
import {
  ArrangementModel,
  EditModel,
  MembershipModel,
  OriginalModel,
  PhotoModel,
  PlacementModel,
  VariantModel,
} from '../database/models.ts';
import type { OutputFormat } from '@dusky-otter/core';
import type { StoredVariants } from '../prepare/stored.ts';
import type { Vault } from '../vault/vault.ts';
import { findSet } from './sets.ts';

/** Edits can't bring back what is gone: its commands leave the history, and edits of nothing else with them. */
async function forgetIn(setId: number, gone: ReadonlySet<number>, t: Transaction): Promise<void> {
  const left = (commands: Command[]) => commands.filter((c) => !isPhotoCommand(c) || !gone.has(c.photo));
  for (const edit of await EditModel.findAll({ where: { setId }, transaction: t })) {
    const [commands, inverse] = [left(edit.commands), left(edit.inverse)];
    if (commands.length === edit.commands.length) continue;
    if (commands.length === 0) await edit.destroy({ transaction: t });
    else await edit.update({ commands, inverse }, { transaction: t, silent: true });
  }
}

/**
 * Deletes for good. Rows go first: a crash in between leaves files that nobody knows, never a photo without its file.
 * @returns ids of the photos that left the set
 * @throws ProblemError no-such-set
 */
export async function emptyBin(
  sequelize: Sequelize,
  vault: Vault,
  stored: StoredVariants,
  setId: number,
): Promise<number[]> {
  const { photoIds, originals } = await sequelize.transaction(async (t) => {
    await findSet(setId, { transaction: t, lock: true });
    const binned = await MembershipModel.findAll({ where: { setId, binned: true }, transaction: t });
    const ids = binned.map(({ photoId }) => photoId);
    await MembershipModel.destroy({ where: { setId, photoId: ids }, transaction: t });
    const lists = await ArrangementModel.findAll({ where: { setId }, transaction: t });
    const arrangementId = lists.map((list) => list.id);
    await PlacementModel.destroy({ where: { arrangementId, photoId: ids }, transaction: t });
    await forgetIn(setId, new Set(ids), t);
    const elsewhere = await MembershipModel.findAll({ where: { photoId: ids }, transaction: t });
    const used = new Set(elsewhere.map(({ photoId }) => photoId));
    const alone = ids.filter((id) => !used.has(id));
    const photos = await PhotoModel.findAll({ where: { id: alone }, transaction: t });
    await PhotoModel.destroy({ where: { id: alone }, transaction: t });
    const hashes = photos.map(({ originalHash }) => originalHash);
    const kept = await PhotoModel.findAll({ where: { originalHash: hashes }, transaction: t });
    const keptHashes = new Set(kept.map(({ originalHash }) => originalHash));
    return { photoIds: ids, originals: hashes.filter((hash) => !keptHashes.has(hash)) };
  });
  for (const hash of originals) {
    for (const { key, format } of await VariantModel.findAll({ where: { originalHash: hash } })) {
      await stored.forget(key);
      await vault.removeFile(vault.variant(key, format as OutputFormat));
    }
    await OriginalModel.destroy({ where: { hash } });
    await vault.removeOriginal(hash);
  }
  return photoIds;
}
