// Reads sets and their rows: decisions from the database, the plan from the core, and what is stored of it.
import {
  planPhoto,
  rowVariant,
  type EditDepth,
  type Photo,
  type PhotoRow,
  type PhotoSet,
  type Refusal,
  type SetSummary,
  type StoredFacts,
} from '@dusky-otter/core';
import type { Transaction } from 'sequelize';
import {
  EditModel,
  MembershipModel,
  OriginalModel,
  PhotoModel,
  PublishedNameModel,
  RefusalModel,
  SetModel,
  SiteModel,
} from '../database/models.ts';
import { isDatabaseAway, ProblemError } from '../problems.ts';

/** What is known of a wanted variant beyond its plan. */
export interface VariantStates {
  get(key: string): StoredFacts | undefined;
  failureOf(key: string): string | null;
  /** What became of an original on the disk, as a sentence; null where it is what it was. */
  lossOf(hash: string): string | null;
}

type InTransaction = { transaction?: Transaction };

/** @throws Error where what is stored of a set is no set */
function readableOrThrow({ slots }: SetModel): void {
  if (!Array.isArray(slots)) throw new Error('The places of the set are no list.');
}

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
export async function findSet(
  setId: number,
  options: InTransaction & { lock?: boolean } = {},
): Promise<SetModel> {
  const set = await SetModel.findByPk(setId, options);
  if (!set) throw new ProblemError('no-such-set');
  return set;
}

export async function findSite(set: SetModel): Promise<SiteModel> {
  const site = await SiteModel.findByPk(set.siteId);
  if (!site) throw new ProblemError('no-such-set');
  return site;
}

function photoOf(membership: MembershipModel, photo: PhotoModel, original: OriginalModel): Photo {
  return {
    id: photo.id,
    version: photo.version,
    fileName: photo.fileName,
    original: original.facts,
    focal: photo.focal,
    crops: photo.crops,
    words: photo.words,
    slots: membership.slots,
    binned: membership.binned,
  };
}

/** The photos of a set in order, binned ones too, or those of them that are asked for. */
export async function loadPhotos(
  setId: number,
  only?: readonly number[],
  options: InTransaction = {},
): Promise<Photo[]> {
  const where = { setId, ...(only && { photoId: [...only] }) };
  const memberships = await MembershipModel.findAll({ where, order: [['position', 'ASC']], ...options });
  const photos = await PhotoModel.findAll({ where: { id: memberships.map((m) => m.photoId) }, ...options });
  const originals = await OriginalModel.findAll({
    where: { hash: photos.map((p) => p.originalHash) },
    ...options,
  });
  const photoById = new Map(photos.map((photo) => [photo.id, photo]));
  const originalByHash = new Map(originals.map((original) => [original.hash, original]));
  return memberships.map((membership) => {
    const photo = photoById.get(membership.photoId)!;
    return photoOf(membership, photo, originalByHash.get(photo.originalHash)!);
  });
}

/** Photos as rows of the worktable: with every wanted variant and what is stored of it. */
export async function rowsOf(
  set: SetModel,
  photos: readonly Photo[],
  states: VariantStates,
): Promise<PhotoRow[]> {
  const { policy } = await findSite(set);
  return photos.map((photo) => {
    const variants = planPhoto(photo, set.slots, policy).map((planned) =>
      rowVariant(planned, states.get(planned.key), states.failureOf(planned.key)),
    );
    const damage = states.lossOf(photo.original.hash) ?? photo.original.damage;
    return { ...photo, original: { ...photo.original, damage }, variants };
  });
}

export async function photoSetOf(set: SetModel): Promise<PhotoSet> {
  const members = await MembershipModel.findAll({ where: { setId: set.id }, order: [['position', 'ASC']] });
  const { policy } = await findSite(set);
  return {
    id: set.id,
    name: set.name,
    slots: set.slots,
    arranged: set.arranged,
    rehearsed: set.rehearsed,
    handedOver: set.handedOver,
    version: set.version,
    policy,
    order: members.map((m) => m.photoId),
    published: await publishedNames(set.id),
  };
}

/** Speaking names of a set that have gone out, each with its photo. */
export async function publishedNames(setId: number): Promise<Record<string, number>> {
  const found = await PublishedNameModel.findAll({ where: { setId } });
  return Object.fromEntries(found.map(({ name, photoId }) => [name, photoId]));
}

/** Notes names that go out now. One that is somebody's already stays theirs. */
export async function publishNames(setId: number, names: ReadonlyMap<number, string>): Promise<void> {
  await PublishedNameModel.bulkCreate(
    [...names].map(([photoId, name]) => ({ setId, name, photoId })),
    { ignoreDuplicates: true },
  );
}

export async function refusalsOf(setId: number): Promise<Refusal[]> {
  const found = await RefusalModel.findAll({ where: { setId }, order: [['id', 'ASC']] });
  return found.map(({ id, fileName, bytes, code, sentence }) => ({ id, fileName, bytes, code, sentence }));
}

/** How far undo and redo reach, and when the set was last saved. */
export async function depthOf(setId: number): Promise<EditDepth> {
  const [undo, redo] = await Promise.all(
    [false, true].map((undone) => EditModel.count({ where: { setId, undone } })),
  );
  const newest = await EditModel.findOne({ where: { setId, undone: false }, order: [['id', 'DESC']] });
  const next = await EditModel.findOne({ where: { setId, undone: true }, order: [['id', 'ASC']] });
  const saved = await EditModel.max<Date | null, EditModel>('updatedAt', { where: { setId } });
  return {
    undo: undo ?? 0,
    redo: redo ?? 0,
    undoLabel: newest?.label ?? null,
    redoLabel: next?.label ?? null,
    savedAt: saved ? new Date(saved).toISOString() : null,
  };
}

export async function summariesOf(siteId: number): Promise<SetSummary[]> {
  const sets = await SetModel.findAll({ where: { siteId }, order: [['id', 'ASC']] });
  return Promise.all(
    sets.map(async (set) => {
      const { id, name } = set;
      try {
        readableOrThrow(set);
        const photos = (await loadPhotos(id)).filter((photo) => !photo.binned);
        return { id, name, photos: photos.length, cover: photos[0]?.original.hash ?? null, problem: null };
      } catch (error) {
        if (isDatabaseAway(error)) throw error;
        return { id, name, photos: 0, cover: null, problem: new ProblemError('set-unreadable').message };
      }
    }),
  );
}
