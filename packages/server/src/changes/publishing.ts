// What goes out: names belong to their photos from then on, and the set is handed over.
import { ProblemError } from '../problems.ts';
import { writePublishedNames } from '../store/sets.ts';
import { stateOfSet } from '../store/state-of-set.ts';
import type { Changes } from './changes.ts';

export interface Published {
  /** Speaking names by photo. */
  names: ReadonlyMap<number, string>;
  /** What was decided when they were read; see `stateOfSet`. */
  state: string;
  /** All photos of the set went out. */
  isWhole: boolean;
  /** Photos among them that are another set's, each with that. */
  guests?: ReadonlyMap<number, number>;
}

/**
 * Notes what goes out, unless something was changed since it was read: making files may take minutes.
 * @throws ProblemError changed-meanwhile: then nothing is noted
 */
export const publish = (
  changes: Changes,
  setId: number,
  { names, state, isWhole, guests = new Map() }: Published,
): Promise<undefined> =>
  changes.inSet<undefined>(
    setId,
    async ({ t, set, site }) => {
      if ((await stateOfSet(setId, site.id, t)) !== state) throw new ProblemError('changed-meanwhile');
      const sets = [...new Set([setId, ...guests.values()])];
      for (const of of sets) {
        const own = [...names].filter(([photo]) => (guests.get(photo) ?? setId) === of);
        await writePublishedNames(of, new Map(own), t);
      }
      const isNew = isWhole && !set.handedOver;
      if (isNew) await set.update({ handedOver: true }, { transaction: t });
      return { answer: undefined, effects: { names: sets, ...(isNew && { sets: [setId] }) } };
    },
    { forSets: guests.size > 0 },
  );
