// Carries out edits: one transaction writes the change, its inverse, and who and when. From that come autosave,
// undo and redo that survive a reload, and the 409 for a stale version.
import {
  applyToPhoto,
  applyToSet,
  CommandError,
  isPhotoCommand,
  type Command,
  type Edit,
  type Photo,
  type PhotoDecisions,
} from '@dusky-otter/core';
import type { Sequelize, Transaction } from 'sequelize';
import { EditModel, MembershipModel, PhotoModel, SiteModel, type SetModel } from '../database/models.ts';
import { patiently } from '../database/patience.ts';
import { ProblemError } from '../problems.ts';
import { findSet, loadPhotos, photoSetOf, rowsOf, type VariantStates } from '../sets/rows.ts';
import { mergeTyping } from './typing.ts';

/** The versions an editor saw: by photo id, and of the set where the edit changes it. */
export interface SeenVersions {
  photos: Record<number, number>;
  set?: number;
}

interface Outcome {
  inverse: Command[];
  photoIds: number[];
}

async function writePhoto(
  setId: number,
  id: number,
  change: Partial<PhotoDecisions>,
  t: Transaction,
): Promise<void> {
  const { slots, binned, ...own } = change;
  const version = (await PhotoModel.findByPk(id, { transaction: t }))!.version + 1;
  await PhotoModel.update({ ...own, version }, { where: { id }, transaction: t });
  const here = { ...(slots !== undefined && { slots }), ...(binned !== undefined && { binned }) };
  if (Object.keys(here).length > 0) {
    await MembershipModel.update(here, { where: { setId, photoId: id }, transaction: t });
  }
}

async function applySetCommand(
  set: SetModel,
  command: Extract<Command, { kind: 'set' }>,
  t: Transaction,
): Promise<Command> {
  const { change, inverse } = applyToSet(await photoSetOf(set), command);
  const { order, policy, ...own } = change;
  await set.update({ ...own, version: set.version + 1 }, { transaction: t });
  if (policy) await SiteModel.update({ policy }, { where: { id: set.siteId }, transaction: t });
  for (const [position, photoId] of (order ?? []).entries()) {
    await MembershipModel.update({ position }, { where: { setId: set.id, photoId }, transaction: t });
  }
  return inverse;
}

/** Applies commands in order; each sees what the ones before it did. */
async function carryOut(set: SetModel, commands: readonly Command[], t: Transaction): Promise<Outcome> {
  const ids = [...new Set(commands.filter(isPhotoCommand).map((command) => command.photo))];
  const photos = new Map(
    (await loadPhotos(set.id, ids, { transaction: t })).map((photo) => [photo.id, photo]),
  );
  const inverse: Command[] = [];
  const changes = new Map<number, Partial<PhotoDecisions>>();
  for (const command of commands) {
    if (!isPhotoCommand(command)) {
      inverse.unshift(await applySetCommand(set, command, t));
      continue;
    }
    const photo = photos.get(command.photo);
    if (!photo) throw new ProblemError('no-such-photo');
    const applied = applyToPhoto(photo, command);
    photos.set(photo.id, { ...photo, ...applied.change });
    changes.set(photo.id, { ...changes.get(photo.id), ...applied.change });
    inverse.unshift(applied.inverse);
  }
  for (const [id, change] of changes) await writePhoto(set.id, id, change, t);
  return { inverse, photoIds: ids };
}

/** What was rehearsed or handed over is no longer what there is, unless the edit says no more than that. */
async function putOutOfDate(set: SetModel, commands: readonly Command[], t: Transaction): Promise<void> {
  const says = (command: Command) =>
    !isPhotoCommand(command) && Object.keys(command.change).every((key) => key === 'rehearsed');
  if (commands.every(says)) return;
  await set.update({ rehearsed: false, handedOver: false }, { transaction: t });
}

export class Edits {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly states: VariantStates,
  ) {}

  /**
   * Carries out an edit.
   * @returns ids of the changed photos.
   * @throws ProblemError stale (with the newer state), impossible-edit, no-such-set, no-such-photo.
   */
  async perform(setId: number, edit: Edit, seen: SeenVersions, who: string): Promise<number[]> {
    return this.change(setId, async (set, t) => {
      await this.checkVersions(set, edit, seen, t);
      const { inverse, photoIds } = await carryOut(set, edit.commands, t);
      await putOutOfDate(set, edit.commands, t);
      await EditModel.destroy({ where: { setId, undone: true }, transaction: t });
      const last = await EditModel.findOne({ where: { setId }, order: [['id', 'DESC']], transaction: t });
      const merged = last && mergeTyping(last, edit, Date.now());
      if (last && merged) await last.update({ commands: merged }, { transaction: t });
      else
        await EditModel.create(
          { setId, label: edit.label, commands: edit.commands, inverse, who },
          { transaction: t },
        );
      return photoIds;
    });
  }

  /** Takes the newest edit back. @throws ProblemError nothing-to-undo */
  undo(setId: number): Promise<number[]> {
    return this.change(setId, async (set, t) => {
      const last = await EditModel.findOne({
        where: { setId, undone: false },
        order: [['id', 'DESC']],
        transaction: t,
      });
      if (!last) throw new ProblemError('nothing-to-undo');
      await putOutOfDate(set, last.inverse, t);
      const { photoIds } = await carryOut(set, last.inverse, t);
      await last.update({ undone: true }, { transaction: t });
      return photoIds;
    });
  }

  /** Does the edit again that was taken back last. @throws ProblemError nothing-to-redo */
  redo(setId: number): Promise<number[]> {
    return this.change(setId, async (set, t) => {
      const next = await EditModel.findOne({
        where: { setId, undone: true },
        order: [['id', 'ASC']],
        transaction: t,
      });
      if (!next) throw new ProblemError('nothing-to-redo');
      await putOutOfDate(set, next.commands, t);
      const { photoIds } = await carryOut(set, next.commands, t);
      await next.update({ undone: false }, { transaction: t });
      return photoIds;
    });
  }

  /** Edits of one set follow each other: the set's row is locked for the length of the transaction. */
  private async change(
    setId: number,
    body: (set: SetModel, t: Transaction) => Promise<number[]>,
  ): Promise<number[]> {
    try {
      return await patiently(() =>
        this.sequelize.transaction(async (t) =>
          body(await findSet(setId, { transaction: t, lock: true }), t),
        ),
      );
    } catch (error) {
      if (error instanceof CommandError) throw new ProblemError('impossible-edit', error.message);
      throw error;
    }
  }

  private async checkVersions(set: SetModel, edit: Edit, seen: SeenVersions, t: Transaction): Promise<void> {
    const ids = Object.keys(seen.photos).map(Number);
    const photos: Photo[] = await loadPhotos(set.id, ids, { transaction: t });
    const stale = photos.filter((photo) => photo.version !== seen.photos[photo.id]);
    if (stale.length > 0)
      throw new ProblemError('stale', undefined, { rows: await rowsOf(set, stale, this.states) });
    const changesSet = edit.commands.some((command) => !isPhotoCommand(command));
    if (changesSet && seen.set !== set.version)
      throw new ProblemError('stale', undefined, { set: await photoSetOf(set) });
  }
}
