// Edits, undo and redo of a set. Every answer carries the changed photos; listeners are told which they are.
import type { EditAnswer } from '@dusky-otter/core/contract';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Edited } from '../changes/edits.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { depthOf, findSet, photoSetOf, type Looking } from '../store/sets.ts';
import { checked, EditDto, idFrom, StepDto } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

/** An answer carries the photos that an edit changed; of more than these the list is read anew. */
const MOST_ANSWERED = 50;

export const editRoutes =
  ({ edits, queries, sites }: Pick<Parts, 'edits' | 'queries' | 'sites'>): FastifyPluginAsync =>
  async (app) => {
    const answer = async (setId: number, { photoIds }: Edited, looking: Looking): Promise<EditAnswer> => ({
      photos: await queries.photos(setId, photoIds.slice(0, MOST_ANSWERED)),
      set: await photoSetOf(await findSet(setId)),
      edits: await depthOf(setId, looking),
    });

    /** The newer state of what an edit was in the way of. */
    const newer = async (setId: number, { conflict }: ProblemError) => {
      const set = await findSet(setId);
      return {
        ...(conflict.photos && { photos: await queries.photos(setId, conflict.photos) }),
        ...(conflict.set && { set: await photoSetOf(set) }),
        ...(conflict.site && { site: await sites.get(set.siteId) }),
      };
    };

    app.post('/sets/:id/edits', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      const { since, ...edit } = checked(EditDto, request.body);
      try {
        const edited = await edits.perform(setId, edit, 'editor');
        return await retryOnDatabaseLoss(() => answer(setId, edited, { window: edit.window, since }));
      } catch (error) {
        if (!(error instanceof ProblemError) || error.code !== 'stale') throw error;
        const document = error.document(await newer(setId, error));
        return reply.code(document.status).type('application/problem+json').send(document);
      }
    });

    for (const step of ['undo', 'redo'] as const) {
      app.post(`/sets/:id/${step}`, async (request: ById) => {
        const setId = idFrom(request.params.id);
        const { token, ...looking } = checked(StepDto, request.body);
        const edited = await edits[step](setId, looking, token);
        return retryOnDatabaseLoss(() => answer(setId, edited, looking));
      });
    }
  };
