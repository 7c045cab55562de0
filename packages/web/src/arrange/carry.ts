// Carries photos between places, as edits: each is one act, with its order where the place has one of its own.
import { arrangementIn, movedBefore } from '@dusky-otter/core/arrange';
import type { Photo, SlotId } from '@dusky-otter/core/contract';
import { positionBetween, type Command } from '@dusky-otter/core/edits';
import { photosOf } from '../editing/photos.ts';
import { moveOver, putInto, takeOut, type SetOnSite } from '../editing/placing.ts';
import { edit, idsUnder } from '../server/state.ts';
import { arrangementCommands } from './edits.ts';
import { actOf, neighboursOf, type Carried } from './shelves.ts';

/** Who stands in a place, in its order, as far as it is known. */
export type Members = (slot: SlotId) => readonly number[] | undefined;

/** The order of an arrangement with photos that go before another one; none where the place follows the set's order. */
function orderIn({ site }: SetOnSite, { to, ids, before }: Carried, members: Members): Command[] {
  const slot = site.slots.find(({ id }) => id === to);
  const arrangement = slot && arrangementIn(slot);
  const here = to === null ? undefined : members(to);
  if (!arrangement || !here) return [];
  const added = ids.filter((id) => !here.includes(id));
  // Behind all is where they come by themselves.
  if (before === null && !arrangement.order && added.length === ids.length) return [];
  return arrangementCommands(site, { ...arrangement, order: movedBefore([...here, ...added], ids, before) });
}

/** Positions in the set's order for photos of a place that shows some of them. */
async function positionsIn(setId: number, carried: Carried, here: readonly number[]): Promise<Command[]> {
  const { ids: all } = await idsUnder('all');
  const { ahead, behind } = neighboursOf(all, here, carried);
  const beside = await photosOf(
    setId,
    [ahead, behind].filter((id) => id !== null),
  );
  const positionOf = (one: number | null) => beside.find(({ id }) => id === one)?.position ?? null;
  const until = positionOf(behind);
  let position = positionOf(ahead);
  return here
    .filter((id) => carried.ids.includes(id))
    .map((photo): Command => {
      position = positionBetween(position, until);
      return { kind: 'position', photo, position };
    });
}

const said = (photos: readonly Photo[]): string =>
  photos.length === 1 ? 'photo' : `${photos.length} photos`;

/** @throws whatever keeps photos from being read */
export async function carry(where: SetOnSite, carried: Carried, members: Members): Promise<void> {
  const { from, to, ids } = carried;
  const setId = where.set.id;
  const act = actOf(carried);
  if (act === 'nothing') return;
  const photos = await photosOf(setId, ids);
  switch (act) {
    case 'put':
      return putInto(photos, where, to!, orderIn(where, carried, members));
    case 'move':
      return moveOver(photos, where, { from: from!, to: to! }, orderIn(where, carried, members));
    case 'out':
      return takeOut(photos, where, from!);
    case 'order': {
      const here = members(to!) ?? [];
      if (movedBefore(here, ids, carried.before).join() === here.join()) return;
      const own = orderIn(where, carried, members);
      const slot = where.site.slots.find(({ id }) => id === to);
      if (own.length > 0) edit(`order of ${slot!.name}`, own);
      // A plain place shows its photos in the order of the set.
      else edit(`place of ${said(photos)} in the order of the set`, await positionsIn(setId, carried, here));
    }
  }
}
