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
  RefusalModel,
  SetModel,
  SiteModel,
} from '../database/models.ts';
import { ProblemError } from '../problems.ts';

/** What is known of a wanted variant beyond its plan. */
export interface VariantStates {
  get(key: string): StoredFacts | undefined;
  failureOf(key: string): string | null;
}

type InTransaction = { transaction?: Transaction };

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
    return { ...photo, variants };
  });
}

export async function photoSetOf(set: SetModel): Promise<PhotoSet> {
  const members = await MembershipModel.findAll({ where: { setId: set.id }, order: [['position', 'ASC']] });
  const { policy } = await findSite(set);
  return {
    id: set.id,
    name: set.name,
    slots: set.slots,
    version: set.version,
    policy,
    order: members.map((m) => m.photoId),
  };
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
    sets.map(async ({ id, name }) => {
      const photos = (await loadPhotos(id)).filter((photo) => !photo.binned);
      return { id, name, photos: photos.length, cover: photos[0]?.original.hash ?? null };
    }),
  );
}
