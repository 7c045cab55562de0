// Places of the site that a set belongs to: how they are used, what a change would cost.
import { slotProblem } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { findSet } from '../sets/sets.ts';
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

    app.post('/sets/:id/places/cost', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const { slot, value } = checked(PlaceCostDto, request.body);
      const problem = value && (value.id === slot ? slotProblem(value) : 'A place keeps its short name.');
      if (problem) throw new ProblemError('impossible-edit', problem);
      return costOf(await siteOf(setId), slot, value, parts.preparer);
    });
  };
