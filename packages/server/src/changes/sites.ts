// New sites and sets, and what is decided on a site.
import type { Policy, Site, Slot } from '@dusky-otter/core/contract';
import { applyToSite, type SiteCommand } from '@dusky-otter/core/edits';
import { plansAlike } from '@dusky-otter/core/plan';
import type { Transaction } from 'sequelize';
import { EditModel, SetModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';
import { writeOpenSlots } from '../store/placements.ts';
import { dropPlace, insertSite, writePlace, writeSite } from '../store/sites.ts';
import type { Changes } from './changes.ts';
import { outdateBy } from './outdated.ts';

/** Makes a site with the places that ship. @returns its id */
export const makeSite = (changes: Changes, name: string, policy?: Policy): Promise<number> =>
  changes.anew((t) => insertSite(name, t, policy));

export interface NewSet {
  siteId: number;
  name: string;
  version: number;
  arranged?: boolean;
  workedAt?: Date;
}

/** Makes a set in which these places are open, none at first: both or neither. @returns its id */
export const makeSet = (changes: Changes, values: NewSet, slots: readonly string[] = []): Promise<number> =>
  changes.inSite(values.siteId, async ({ t }) => {
    const set = await SetModel.create({ ...values }, { transaction: t });
    await writeOpenSlots(set.id, slots, t);
    return { answer: set.id, effects: {} };
  });

const isArrangement =
  (slot: string) =>
  ({ id, arranged }: Slot): boolean =>
    id === slot && arranged !== undefined;

/**
 * Carries out a command on a site that is held.
 * @returns the site as it is then, and the command that takes it back
 * @throws CommandError
 */
export async function carryOutOnSite(
  site: Site,
  command: SiteCommand,
  t: Transaction,
): Promise<{ site: Site; inverse: SiteCommand }> {
  const { site: after, inverse } = applyToSite(site, command);
  if (command.kind === 'slot') {
    const { slot, value } = command;
    if (value) await writePlace(site.id, value, !site.slots.some(({ id }) => id === slot), t);
    else await dropPlace(site.id, slot, t);
  }
  const gone =
    command.kind === 'slot' && command.value === null && site.slots.some(isArrangement(command.slot))
      ? [command.slot]
      : [];
  const written = {
    ...after,
    retired: [...new Set([...(site.retired ?? []), ...gone])],
    version: site.version + 1,
  };
  await writeSite(written, t);
  return { site: written, inverse };
}

/**
 * What is decided on a site where no set of it is open.
 * @param seen the version that it was decided on, where that matters
 * @throws ProblemError no-such-site, impossible-edit, stale
 */
export const changeSite = (
  changes: Changes,
  siteId: number,
  command: SiteCommand,
  seen?: number,
): Promise<undefined> =>
  changes.inSite<undefined>(siteId, async ({ t, site }) => {
    if (seen !== undefined && seen !== site.version) throw new ProblemError('stale');
    const { site: after } = await carryOutOnSite(site, command, t);
    const sets = await outdateBy(siteId, t, [command]);
    return { answer: undefined, effects: { sets, site: { id: siteId, plans: !plansAlike(site, after) } } };
  });

/** A set as it is now is where work starts: there is nothing to take back yet. @param version of the set from now on */
export const beginHere = (changes: Changes, setId: number, version: number): Promise<undefined> =>
  changes.inSet<undefined>(setId, async ({ t, set }) => {
    await EditModel.destroy({ where: { setId }, transaction: t });
    await set.update({ version }, { transaction: t });
    return { answer: undefined, effects: {} };
  });
