// Pages of other sets that a change makes others: what was looked at there, or handed over, is no longer what there is.
import type { SiteDecisions } from '@dusky-otter/core/contract';
import type { SiteCommand } from '@dusky-otter/core/edits';
import { placesOn } from '@dusky-otter/core/plan';
import { Op, type Transaction } from 'sequelize';
import { SetModel } from '../database/models.ts';

/** What of a site its pages don't show. */
const UNSEEN: readonly string[] = ['name', 'archived', 'terms'] satisfies (keyof SiteDecisions)[];

/** True for what its pages don't show. */
export const isUnseen = (change: Partial<SiteDecisions>): boolean =>
  Object.keys(change).every((key) => UNSEEN.includes(key));

/** Whether a set's page, which may not have been made yet, is another one by a command. */
function changes({ page }: SetModel, command: SiteCommand): boolean {
  if (command.kind === 'slot') return !page || placesOn(page).includes(command.slot);
  return !isUnseen(command.change);
}

/**
 * Notes that pages of a site are others now.
 * @param which of its sets
 * @returns those that were thought to be done; the site or all its sets are held
 */
export async function outdate(
  siteId: number,
  t: Transaction,
  which: (set: SetModel) => boolean,
): Promise<number[]> {
  const done = { [Op.or]: [{ rehearsed: true }, { handedOver: true }] };
  const found = await SetModel.findAll({ where: { siteId, ...done }, transaction: t, lock: true });
  const ids = found.filter(which).map(({ id }) => id);
  if (ids.length > 0)
    await SetModel.update({ rehearsed: false, handedOver: false }, { where: { id: ids }, transaction: t });
  return ids;
}

/** The same for commands on the site, which is held for a change. @param but a set that is left as it is */
export const outdateBy = (
  siteId: number,
  t: Transaction,
  commands: readonly SiteCommand[],
  but?: number,
): Promise<number[]> =>
  outdate(siteId, t, (set) => set.id !== but && commands.some((command) => changes(set, command)));
