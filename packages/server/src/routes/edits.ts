// Edits, undo and redo of a set. Every answer carries the changed photos; listeners are told which they are.
import type { EditAnswer } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { patiently } from '../database/patience.ts';
import type { Outcome } from '../edits/edits.ts';
import { ProblemError } from '../problems.ts';
import { depthOf, findSet, photoSetOf, type Looking } from '../sets/sets.ts';
import { checked, EditDto, idFrom, StepDto } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

export const editRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    const answer = async (setId: number, outcome: Outcome, looking: Looking): Promise<EditAnswer> => {
      const photos = await parts.aftermath.settle(setId, outcome);
      const set = await findSet(setId);
      return { photos, set: await photoSetOf(set), edits: await depthOf(setId, looking) };
    };

    /** The newer state of what an edit was in the way of. */
    const newer = async (setId: number, { met }: ProblemError) => {
      const set = await findSet(setId);
      return {
        ...(met.photos && { photos: await parts.shelf.photos(setId, met.photos) }),
        ...(met.set && { set: await photoSetOf(set) }),
        ...(met.site && { site: await parts.sites.get(set.siteId) }),
      };
    };

    app.post('/sets/:id/edits', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      const { since, ...edit } = checked(EditDto, request.body);
      try {
        const outcome = await parts.edits.perform(setId, edit, 'editor');
        return await patiently(() => answer(setId, outcome, { window: edit.window, since }));
      } catch (error) {
        if (!(error instanceof ProblemError) || error.code !== 'stale') throw error;
        const document = error.document(await newer(setId, error));
        return reply.code(document.status).type('application/problem+json').send(document);
      }
    });

    for (const step of ['undo', 'redo'] as const) {
      app.post(`/sets/:id/${step}`, async (request: ById) => {
        const setId = idFrom(request.params.id);
        const looking = checked(StepDto, request.body);
        const outcome = await parts.edits[step](setId, looking);
        return patiently(() => answer(setId, outcome, looking));
      });
    }
  };
