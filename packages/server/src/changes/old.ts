// Edits are kept for undo, and for whoever changes something on what they saw long ago; not for ever.
import { Op } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { EditModel, SetModel, TouchModel } from '../database/models.ts';

/** Edits of a set that can always be taken back, and how long the others can, in ms. */
const KEPT_EDITS = 1_000;
const KEPT_FOR_MS = 60 * 24 * 3600 * 1000;

/**
 * Removes edits that are older than two months and not among the newest thousand of their set. What they changed stays.
 * A window that was open for longer, and types on what it saw then, is no longer told who was there in between.
 * @returns how many went
 */
export async function forgetOldEdits(now: Date, kept = KEPT_EDITS, keptFor = KEPT_FOR_MS): Promise<number> {
  let gone = 0;
  for (const { id: setId } of await SetModel.findAll({ attributes: ['id'] })) {
    const [oldestKept] = await EditModel.findAll({
      where: { setId },
      order: [['id', 'DESC']],
      offset: kept - 1,
      limit: 1,
      attributes: ['id'],
    });
    if (!oldestKept) continue;
    const old = await EditModel.findAll({
      where: {
        setId,
        id: { [Op.lt]: oldestKept.id },
        updatedAt: { [Op.lt]: new Date(now.getTime() - keptFor) },
      },
      attributes: ['id'],
    });
    for (const ids of inParts(old.map(({ id }) => id))) {
      await TouchModel.destroy({ where: { editId: ids } });
      gone += await EditModel.destroy({ where: { id: ids } });
    }
  }
  return gone;
}
