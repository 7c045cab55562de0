// Sites and their sets: what there is, and making new ones.
import { DEFAULT_POLICY, SLOTS } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import { SetModel, SiteModel } from '../database/models.ts';
import { demoOnRequest } from '../demo/seed.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { summariesOf } from '../sets/rows.ts';
import { checked, idFrom, NewSetDto, SiteDto } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

/** @throws ProblemError no-such-site */
async function siteOf(request: ById): Promise<SiteModel> {
  const site = await SiteModel.findByPk(idFrom(request.params.id, 'no-such-site'));
  if (!site) throw new ProblemError('no-such-site');
  return site;
}

export const siteRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    app.get('/sites', async () => {
      const sites = await SiteModel.findAll({ order: [['id', 'ASC']] });
      return Promise.all(sites.map(async ({ id, name }) => ({ id, name, sets: await summariesOf(id) })));
    });

    app.post('/sites', async (request, reply) => {
      const { name } = checked(SiteDto, request.body);
      const site = await SiteModel.create({ name: name.trim(), policy: DEFAULT_POLICY });
      return reply.code(201).send({ id: site.id });
    });

    app.put('/sites/:id', async (request: ById) => {
      const { name } = checked(SiteDto, request.body);
      const site = await siteOf(request);
      await site.update({ name: name.trim() });
      return { id: site.id, name: site.name };
    });

    app.post('/sites/:id/sets', async (request: ById, reply) => {
      const { name } = checked(NewSetDto, request.body);
      const site = await siteOf(request);
      const slots = SLOTS.filter((slot) => slot.id === 'column' || slot.id === 'grid').map((slot) => slot.id);
      const set = await SetModel.create({ siteId: site.id, name: name.trim(), slots, version: 1 });
      return reply.code(201).send({ id: set.id });
    });

    app.post('/demo', async (_request, reply) => reply.code(201).send({ id: await demoOnRequest(parts) }));
  };
