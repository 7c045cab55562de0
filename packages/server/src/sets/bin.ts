// Empties the bin of a set for good: its photos leave the set, and those that stand in no other are deleted with their
// originals, which may say where they were taken.
import { isPhotoCommand, type Command } from '@dusky-otter/core';
import type { Sequelize, Transaction } from 'sequelize';
import {
  ArrangementModel,
  EditModel,
  MembershipModel,
  PhotoModel,
  PlacementModel,
} from '../database/models.ts';
import type { StoredVariants } from '../prepare/stored.ts';
import type { Vault } from '../vault/vault.ts';
import { dropUnused, originalsOf } from './originals.ts';
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
    const hashes = await originalsOf(photos, t);
    await PhotoModel.destroy({ where: { id: alone }, transaction: t });
    return { photoIds: ids, originals: hashes };
  });
  await dropUnused(originals, { vault, stored });
  return photoIds;
}
