// Sites and their sets: what there is, and making new ones. What is decided on them goes through edits of a set, or
// here where a site has none yet.
import { randomUUID } from 'node:crypto';
import { CommandError, FIRST_SLOTS, type SentEdit, type SiteCommand } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import { SiteModel } from '../database/models.ts';
import { demoSiteZip } from '../demo/site-zip.ts';
import { demoOnRequest } from '../demo/seed.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { makeSet } from '../sets/photos.ts';
import { findSet, photoSetOf } from '../sets/sets.ts';
import { makeSite } from '../sites/site-book.ts';
import { checked, DemoDto, idFrom, NewSetDto, PutAwayDto, SetChangeDto, SiteDto } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

const siteIdOf = (request: ById): number => idFrom(request.params.id, 'no-such-site');

export const siteRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    app.get('/sites', async () => {
      const sites = await SiteModel.findAll({ attributes: ['id'], order: [['id', 'ASC']] });
      return Promise.all(
        sites.map(async ({ id }) => ({
          ...(await parts.sites.get(id)),
          sets: await parts.shelf.summaries({ id }),
        })),
      );
    });

    app.post('/sites', async (request, reply) => {
      const { name } = checked(SiteDto, request.body);
      const site = await makeSite(name.trim());
      return reply.code(201).send({ id: site.id });
    });

    /** @throws ProblemError no-such-site, impossible-edit, stale */
    const change = async (siteId: number, seen: number | undefined, command: SiteCommand) => {
      try {
        await parts.sequelize.transaction(async (t) => {
          const site = await parts.sites.locked(siteId, t);
          if (seen !== undefined && seen !== site.version) throw new ProblemError('stale');
          await parts.sites.write(site, command, t);
        });
      } catch (error) {
        if (error instanceof CommandError) throw new ProblemError('impossible-edit', error.message);
        throw error;
      }
      await parts.aftermath.site(siteId);
      return parts.sites.get(siteId);
    };

    app.put('/sites/:id', async (request: ById) => {
      const { name, version } = checked(SiteDto, request.body);
      return change(siteIdOf(request), version, { kind: 'site', change: { name: name.trim() } });
    });

    app.put('/sites/:id/away', async (request: ById) => {
      const { away } = checked(PutAwayDto, request.body);
      return change(siteIdOf(request), undefined, { kind: 'site', change: { away } });
    });

    app.post('/sites/:id/sets', async (request: ById, reply) => {
      const { name } = checked(NewSetDto, request.body);
      const site = await parts.sites.get(siteIdOf(request));
      const first = site.slots.map(({ id }) => id).filter((id) => FIRST_SLOTS.includes(id));
      const values = { siteId: site.id, name: name.trim(), version: 1, workedAt: new Date() };
      const set = await makeSet(parts.sequelize, values, first);
      return reply.code(201).send({ id: set.id });
    });

    /** A set as the start screen changes it; within the set it goes through edits, with undo. */
    app.put('/sets/:id', async (request: ById) => {
      const { name, away } = checked(SetChangeDto, request.body);
      const set = await findSet(idFrom(request.params.id));
      const change = {
        ...(name !== undefined && { name: name.trim() }),
        ...(away !== undefined && { away }),
      };
      if (change.name === '') throw new ProblemError('impossible-edit', 'A set needs a name.');
      const edit: SentEdit = {
        label: away === undefined ? 'name of the set' : away ? 'set put away' : 'set brought back',
        commands: [{ kind: 'set', change }],
        seen: { photos: {}, set: set.version },
        token: randomUUID(),
        window: 'start-screen',
      };
      const outcome = await parts.edits.perform(set.id, edit, 'editor');
      await parts.aftermath.settle(set.id, outcome);
      return photoSetOf(await findSet(set.id));
    });

    /** Pages to try measuring on. */
    app.get('/demo/site.zip', async (_request, reply) =>
      reply.type('application/zip').send(Buffer.from(await demoSiteZip(parts.config.demoDir))),
    );

    app.post('/demo', async (request, reply) => {
      const { pages = false } = checked(DemoDto, request.body ?? {});
      return reply.code(201).send({ id: await demoOnRequest(parts, pages) });
    });
  };
