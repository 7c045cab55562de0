// Sites and their sets: what there is, and making new ones. What is decided on them goes through edits of a set, or
// here where a site has none yet.
import { randomUUID } from 'node:crypto';
import type { SentEdit } from '@dusky-otter/core/edits';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import { changeSite, makeSet, makeSite } from '../changes/sites.ts';
import { demoSiteZip } from '../demo/site-zip.ts';
import { demoOnRequest, demoProgress } from '../demo/seed.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { findSet, photoSetOf } from '../store/sets.ts';
import { allSites } from '../store/sites.ts';
import { checked, DemoDto, idFrom, NewSetDto, ArchiveDto, SetChangeDto, SiteDto } from './dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'changes' | 'config' | 'edits' | 'preparer' | 'queries' | 'sites' | 'takeIn'>;

type ById = FastifyRequest<{ Params: { id: string } }>;

const siteIdOf = (request: ById): number => idFrom(request.params.id, 'no-such-site');

export const siteRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    app.get('/sites', async () => {
      return Promise.all(
        (await allSites()).map(async (id) => ({
          ...(await parts.sites.get(id)),
          sets: await parts.queries.summaries({ id }),
        })),
      );
    });

    app.post('/sites', async (request, reply) => {
      const { name } = checked(SiteDto, request.body);
      return reply.code(201).send({ id: await makeSite(parts.changes, name.trim()) });
    });

    app.put('/sites/:id', async (request: ById) => {
      const { name, version } = checked(SiteDto, request.body);
      const siteId = siteIdOf(request);
      await changeSite(parts.changes, siteId, { kind: 'site', change: { name: name.trim() } }, version);
      return parts.sites.get(siteId);
    });

    app.put('/sites/:id/archived', async (request: ById) => {
      const { archived } = checked(ArchiveDto, request.body);
      const siteId = siteIdOf(request);
      await changeSite(parts.changes, siteId, { kind: 'site', change: { archived } });
      return parts.sites.get(siteId);
    });

    app.post('/sites/:id/sets', async (request: ById, reply) => {
      const { name } = checked(NewSetDto, request.body);
      const site = await parts.sites.get(siteIdOf(request));
      const values = { siteId: site.id, name: name.trim(), version: 1, workedAt: new Date() };
      return reply.code(201).send({ id: await makeSet(parts.changes, values) });
    });

    /** A set as the start screen changes it; within the set it goes through edits, with undo. */
    app.put('/sets/:id', async (request: ById) => {
      const { name, archived } = checked(SetChangeDto, request.body);
      const set = await findSet(idFrom(request.params.id));
      const change = {
        ...(name !== undefined && { name: name.trim() }),
        ...(archived !== undefined && { archived }),
      };
      if (change.name === '') throw new ProblemError('impossible-edit', 'A set needs a name.');
      const edit: SentEdit = {
        label: archived === undefined ? 'name of the set' : archived ? 'set put away' : 'set brought back',
        commands: [{ kind: 'set', change }],
        seen: { photos: {}, set: set.version },
        token: randomUUID(),
        window: 'start-screen',
      };
      await parts.edits.perform(set.id, edit, 'editor');
      return photoSetOf(await findSet(set.id));
    });

    /** Pages to try measuring on. */
    app.get('/demo/site.zip', async (_request, reply) =>
      reply.type('application/zip').send(Buffer.from(await demoSiteZip(parts.config.demoDir))),
    );

    app.get('/demo', () => ({ unpacking: demoProgress() }));
    app.post('/demo', async (request, reply) => {
      const { pages = false } = checked(DemoDto, request.body ?? {});
      return reply.code(201).send({ id: await demoOnRequest(parts, pages) });
    });
  };
