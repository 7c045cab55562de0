// Photos that a command acts on, wherever they stand in the list.
import { rowAt } from '../server/hooks.ts';
import { client, photoQuery } from '../server/state.ts';

/** Photos as they are shown; those that are not read yet are read for it. */
export const photosOf = async (setId: number, ids: readonly number[]) =>
  Promise.all(
    ids.map(async (id) => {
      await client.query({ ...photoQuery(setId, id), staleTime: 'static' });
      return rowAt(setId, id)!;
    }),
  );
