// Places of the site that a set belongs to: how they are used, what a change would cost.
import { prefixProblem, slotProblem, type Policy } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { RenderError } from '../codec/task.ts';
import { loadPhotos } from '../sets/photos.ts';
import { findSet, openSlotsOf } from '../sets/sets.ts';
import { forecastOf } from '../sites/forecast.ts';
import { goneSignal } from './body.ts';
import { PolicyDto } from './command-dto.ts';
import { costOf, placesInUse } from '../sites/places.ts';
import { checked, idFrom, PlaceCostDto } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

export const placeRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    const siteOf = async (setId: number) => parts.sites.get((await findSet(setId)).siteId);

    app.get('/sets/:id/places', async (request: ById) => {
      const setId = idFrom(request.params.id);
      return placesInUse(await siteOf(setId), setId, parts.preparer);
    });

    app.post('/sets/:id/policy/forecast', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      const policy = checked(PolicyDto, request.body);
      const problem = policy.prefix === undefined ? null : prefixProblem(policy.prefix);
      if (problem) throw new ProblemError('impossible-edit', problem);
      const site = await siteOf(setId);
      const photos = (await loadPhotos(setId, site.languages[0]!)).filter(({ binned }) => !binned);
      const { looker, vault, preparer } = parts;
      const made = { looker, vault, states: preparer };
      // As an edit would: a part that is left out stays as it is.
      const after: Policy = Object.assign({}, site.policy, policy);
      return forecastOf(photos, await openSlotsOf(setId), site, after, made, goneSignal(reply)).catch(
        (error: unknown) => {
          throw error instanceof RenderError ? new ProblemError('nothing-to-see', error.message) : error;
        },
      );
    });

    app.post('/sets/:id/places/cost', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const { slot, value } = checked(PlaceCostDto, request.body);
      const problem = value && (value.id === slot ? slotProblem(value) : 'A place keeps its short name.');
      if (problem) throw new ProblemError('impossible-edit', problem);
      return costOf(await siteOf(setId), slot, value, parts.preparer);
    });
  };
