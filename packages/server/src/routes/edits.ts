// Edits, undo and redo of a set. Every answer carries the changed rows; listeners hear the same.
import type { PhotoRow, PhotoSet, EditDepth } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { SetModel } from '../database/models.ts';
import { patiently } from '../database/patience.ts';
import { depthOf, findSet, loadPhotos, photoSetOf, rowsOf } from '../sets/rows.ts';
import { checked, EditDto, idFrom } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

export interface EditAnswer {
  rows: PhotoRow[];
  set: PhotoSet;
  edits: EditDepth;
}

export const editRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    /** Rows as they are now: the changed ones, or all where the set itself changed. */
    const answer = async (setId: number, before: SetModel, photoIds: number[]): Promise<EditAnswer> => {
      const set = await findSet(setId);
      const setChanged = set.version !== before.version;
      const rows = await rowsOf(
        set,
        await loadPhotos(setId, setChanged ? undefined : photoIds),
        parts.preparer,
      );
      const result = { rows, set: await photoSetOf(set), edits: await depthOf(setId) };
      parts.hub.tell(setId, { type: 'rows', rows });
      parts.hub.tell(setId, { type: 'set', set: result.set, edits: result.edits });
      // The policy is the site's and a photo may stand in several sets: their wants may have changed, too.
      for (const { id } of await SetModel.findAll({ where: { siteId: set.siteId }, attributes: ['id'] }))
        void parts.preparer.reconcileSoon(id);
      return result;
    };

    /** Carries out a change and answers; where the database is away for a moment, it waits instead of failing. */
    const changed = async (setId: number, change: () => Promise<number[]>): Promise<EditAnswer> => {
      const before = await patiently(() => findSet(setId));
      const photoIds = await change();
      return patiently(() => answer(setId, before, photoIds));
    };

    app.post('/sets/:id/edits', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const { label, commands, photos, set } = checked(EditDto, request.body);
      const seen = { photos, ...(set !== undefined && { set }) };
      return changed(setId, () => parts.edits.perform(setId, { label, commands }, seen, 'editor'));
    });

    app.post('/sets/:id/undo', async (request: ById) => {
      const setId = idFrom(request.params.id);
      return changed(setId, () => parts.edits.undo(setId));
    });

    app.post('/sets/:id/redo', async (request: ById) => {
      const setId = idFrom(request.params.id);
      return changed(setId, () => parts.edits.redo(setId));
    });
  };
