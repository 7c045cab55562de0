// Where photos of a set stand: the places that are open to all, and placements that photos have of their own.
import type { Placement, SlotId } from '@dusky-otter/core/contract';
import type { Transaction } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { OpenSlotModel, PlacementModel } from '../database/models.ts';
import type { InTransaction, ReadOptions } from './reading.ts';

/** Places in which the photos of a set stand that have no placements of their own. */
export async function openSlotsOf(setId: number, options: InTransaction = {}): Promise<SlotId[]> {
  const open = await OpenSlotModel.findAll({ where: { setId }, order: [['rank', 'ASC']], ...options });
  return open.map(({ slot }) => slot);
}

/** Opens these places of a set, and closes all others. */
export async function writeOpenSlots(setId: number, slots: readonly SlotId[], t: Transaction): Promise<void> {
  await OpenSlotModel.destroy({ where: { setId }, transaction: t });
  await OpenSlotModel.bulkCreate(
    slots.map((slot, rank) => ({ setId, slot, rank })),
    { transaction: t },
  );
}

/** Placements that photos have of their own in a set, by photo. */
export async function placementsOf(
  setId: number,
  photoIds: readonly number[],
  reading: ReadOptions = {},
): Promise<Map<number, Placement[]>> {
  const placements = new Map<number, Placement[]>();
  if (photoIds.length === 0) return placements;
  const found = await PlacementModel.findAll({
    where: { setId, photoId: [...photoIds] },
    order: [['rank', 'ASC']],
    ...reading,
  });
  for (const { photoId, slot, link, words, crops, others, captions } of found)
    placements.set(photoId, [
      ...(placements.get(photoId) ?? []),
      { slot, link, words, crops, ...(others && { others }), ...(captions && { captions }) },
    ]);
  return placements;
}

/** Writes placements of photos in a set in place of those they had; null for none. */
export async function writePlacements(
  setId: number,
  placements: ReadonlyMap<number, readonly Placement[] | null>,
  t: Transaction,
): Promise<void> {
  const ids = [...placements.keys()];
  for (const photoId of inParts(ids))
    await PlacementModel.destroy({ where: { setId, photoId }, transaction: t });
  const rows = [...placements].flatMap(([photoId, own]) =>
    (own ?? []).map((placement, rank) => ({
      setId,
      photoId,
      rank,
      others: null,
      captions: null,
      ...placement,
    })),
  );
  for (const part of inParts(rows)) await PlacementModel.bulkCreate(part, { transaction: t });
}

/** Photos are no longer in a set. */
export async function dropPlacements(
  setId: number,
  photoIds: readonly number[],
  t: Transaction,
): Promise<void> {
  for (const photoId of inParts(photoIds))
    await PlacementModel.destroy({ where: { setId, photoId }, transaction: t });
}
