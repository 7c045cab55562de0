// Sets: what is decided on them, their refused files, the names that went out, and how far a window's undo reaches.
import type { EditDepth, PhotoSet, Refusal, SetPlaces } from '@dusky-otter/core/contract';
import { setPlacesOf } from '@dusky-otter/core/plan';
import { Op, type Transaction, type WhereOptions } from 'sequelize';
import { EditModel, PublishedNameModel, RefusalModel, SetModel } from '../database/models.ts';
import { isDatabaseAway, ProblemError } from '../problems.ts';
import { openSlotsOf } from './placements.ts';
import type { InTransaction, ReadOptions } from './reading.ts';

/** A set as it is stored. */
export type SetRow = SetModel;

/** What `body` reads of a set. @throws ProblemError set-unreadable where what is stored makes no sense */
export async function readSet<T>(body: () => Promise<T>): Promise<T> {
  try {
    return await body();
  } catch (error) {
    if (error instanceof ProblemError || isDatabaseAway(error)) throw error;
    throw new ProblemError('set-unreadable', undefined, {}, error);
  }
}

/** @throws ProblemError no-such-set */
export async function findSet(setId: number, reading: ReadOptions = {}): Promise<SetModel> {
  const set = await SetModel.findByPk(setId, reading);
  if (!set) throw new ProblemError('no-such-set');
  return set;
}

/** Where the photos of a set that was read are seen. */
export const setPlacesIn = async ({ id, page }: SetRow): Promise<SetPlaces> =>
  setPlacesOf({ slots: await openSlotsOf(id), page: page ?? null });

/** The same of a set that was not read. @throws ProblemError no-such-set */
export const readSetPlaces = async (setId: number): Promise<SetPlaces> => setPlacesIn(await findSet(setId));

/** Ids of all sets. */
export const allSets = async (): Promise<number[]> =>
  (await SetModel.findAll({ attributes: ['id'], order: [['id', 'ASC']] })).map(({ id }) => id);

/** Ids of the sets of a site. */
export const setsOfSite = async (siteId: number): Promise<number[]> =>
  (await SetModel.findAll({ where: { siteId }, attributes: ['id'] })).map(({ id }) => id);

/** Of some ids those that sets have. */
export const knownSets = async (ids: readonly number[]): Promise<number[]> =>
  (await SetModel.findAll({ where: { id: [...ids] }, attributes: ['id'] })).map(({ id }) => id);

/** Rows of a site's sets in the order in which they were made. @param where narrows them down */
export const setsIn = (
  siteId: number,
  where: { archived?: boolean; id?: number[] } = {},
): Promise<SetModel[]> => SetModel.findAll({ where: { siteId, ...where }, order: [['id', 'ASC']] });

/** A set at a version, or null. */
export const setAtVersion = (version: number): Promise<SetModel | null> =>
  SetModel.findOne({ where: { version } });

export async function photoSetOf(set: SetModel, options: InTransaction = {}): Promise<PhotoSet> {
  const { id, siteId, name, arranged, rehearsed, handedOver, archived, version, page } = set;
  const slots = await openSlotsOf(id, options);
  return { id, siteId, name, slots, arranged, rehearsed, handedOver, archived, version, page: page ?? null };
}

/** When something was changed last in the sets of a site: a page hangs on its places and rules, too. */
export async function changedAt(siteId: number): Promise<Date> {
  const sets = await SetModel.findAll({ where: { siteId }, attributes: ['id', 'workedAt'] });
  const edited = await EditModel.max<Date | null, EditModel>('updatedAt', {
    where: { setId: sets.map(({ id }) => id) },
  });
  const times = [...sets.map(({ workedAt }) => workedAt), edited && new Date(edited)];
  return new Date(Math.max(0, ...times.map((time) => time?.getTime() ?? 0)));
}

/** Speaking names of a set that have gone out, each with its photo. */
export async function publishedNames(setId: number): Promise<Record<string, number>> {
  const found = await PublishedNameModel.findAll({ where: { setId } });
  return Object.fromEntries(found.map(({ name, photoId }) => [name, photoId]));
}

/** Notes names that go out now. One that is somebody's already stays theirs. */
export async function writePublishedNames(
  setId: number,
  names: ReadonlyMap<number, string>,
  t: Transaction,
): Promise<void> {
  await PublishedNameModel.bulkCreate(
    [...names].map(([photoId, name]) => ({ setId, name, photoId })),
    { ignoreDuplicates: true, transaction: t },
  );
}

export async function refusalsOf(setId: number): Promise<Refusal[]> {
  const found = await RefusalModel.findAll({ where: { setId }, order: [['id', 'ASC']] });
  return found.map(({ id, fileName, bytes, code, sentence }) => ({ id, fileName, bytes, code, sentence }));
}

export const refusalCount = (setId: number): Promise<number> => RefusalModel.count({ where: { setId } });

/** A window, and the newest edit that there was when it opened the set: what is older is everybody's to take back. */
export interface Looking {
  window: string;
  since: number;
}

/** Edits that a window may take back: its own, and those from before it came. */
export const undoable = (setId: number, { window, since }: Looking): WhereOptions => ({
  setId,
  undone: false,
  [Op.or]: [{ window }, { id: { [Op.lte]: since } }],
});

/** Edits that a window took back and may do again. */
export const redoable = (setId: number, { window }: Looking): WhereOptions => ({
  setId,
  undone: true,
  // What was taken back before windows had names is everybody's to do again.
  undoneWindow: [window, ''],
});

/** Id of the newest edit of a set, 0 where there is none. */
export const newestEdit = async (setId: number): Promise<number> =>
  (await EditModel.max<number | null, EditModel>('id', { where: { setId } })) ?? 0;

/** How far a window's undo and redo reach, and when the set was last saved. */
export async function depthOf(setId: number, looking: Looking): Promise<EditDepth> {
  const [back, again] = [undoable(setId, looking), redoable(setId, looking)];
  const [undo, redo, newest, next, saved] = await Promise.all([
    EditModel.count({ where: back }),
    EditModel.count({ where: again }),
    EditModel.findOne({ where: back, order: [['id', 'DESC']], attributes: ['label'] }),
    EditModel.findOne({ where: again, order: [['id', 'ASC']], attributes: ['label'] }),
    EditModel.max<Date | null, EditModel>('updatedAt', { where: { setId } }),
  ]);
  return {
    undo,
    redo,
    undoLabel: newest?.label ?? null,
    redoLabel: next?.label ?? null,
    savedAt: saved ? new Date(saved).toISOString() : null,
  };
}
