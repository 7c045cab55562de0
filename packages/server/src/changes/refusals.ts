// Files that could not be taken in, each with its reason, until an editor has read it.
import type { Refusal } from '@dusky-otter/core/contract';
import { RefusalModel } from '../database/models.ts';
import type { Changes } from './changes.ts';

/** Keeps why a file was refused. The same file refused twice needs one row. */
export const refuse = (changes: Changes, setId: number, refusal: Omit<Refusal, 'id'>): Promise<Refusal> =>
  changes.inSet(setId, async ({ t }) => {
    await RefusalModel.destroy({ where: { setId, fileName: refusal.fileName }, transaction: t });
    const { id } = await RefusalModel.create({ setId, ...refusal }, { transaction: t });
    return { answer: { id, ...refusal }, effects: { refusals: [setId] } };
  });

/** Forgets the refused files of a set, or one of them. */
export const forgetRefusals = (
  changes: Changes,
  setId: number,
  which: { id?: number } = {},
): Promise<undefined> =>
  changes.inSet<undefined>(setId, async ({ t }) => {
    await RefusalModel.destroy({ where: { setId, ...which }, transaction: t });
    return { answer: undefined, effects: { refusals: [setId] } };
  });
