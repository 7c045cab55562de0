// Empties the bin of a set for good: its photos leave the set, and those that stand in no other are deleted with their
// originals, which may say where they were taken.
import { isPhotoCommand, type Command } from '@dusky-otter/core/edits';
import type { Transaction } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { EditModel, MembershipModel, PhotoModel } from '../database/models.ts';
import { originalsOf } from '../store/originals.ts';
import { dropPlacements } from '../store/placements.ts';
import type { Vault } from '../vault/vault.ts';
import type { Changes, SetWork } from './changes.ts';
import { changeThatDrops } from './dropping.ts';

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

/** @returns ids of the photos that leave the set, and originals of those that stand nowhere else */
async function takeOut(work: SetWork): Promise<{ ids: number[]; hashes: string[] }> {
  const { t, set } = work;
  const binned = { setId: set.id, binned: true };
  const standing = await MembershipModel.findAll({ where: binned, transaction: t });
  // Held: of two sets that empty their bins at once the second sees what the first has made of it.
  const photos = await work.photos(standing.map(({ photoId }) => photoId));
  const ids = [...photos.keys()];
  if (ids.length === 0) return { ids, hashes: [] };
  for (const photoId of inParts(ids))
    await MembershipModel.destroy({ where: { setId: set.id, photoId }, transaction: t });
  await dropPlacements(set.id, ids, t);
  await forgetIn(set.id, new Set(ids), t);
  const elsewhere = await MembershipModel.findAll({ where: { photoId: ids }, transaction: t });
  const used = new Set(elsewhere.map(({ photoId }) => photoId));
  const alone = [...photos.values()].filter(({ id }) => !used.has(id));
  const hashes = await originalsOf(alone, t);
  await PhotoModel.destroy({ where: { id: alone.map(({ id }) => id) }, transaction: t });
  return { ids, hashes };
}

/** Deletes for good. @returns ids of the photos that left the set @throws ProblemError no-such-set */
export const emptyBin = (changes: Changes, vault: Vault, setId: number): Promise<number[]> =>
  changeThatDrops(changes, vault, setId, async (work) => {
    const { ids, hashes } = await takeOut(work);
    return { answer: ids, effects: { sets: [setId], photos: ids, left: [setId], offers: [setId] }, hashes };
  });
