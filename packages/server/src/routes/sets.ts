// Sites and sets: reading them, taking files in, watching and steering the preparation.
import { SLOTS, type SetEvent, type SetState } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import type { Readable } from 'node:stream';
import type { Parts } from '../parts.ts';
import { RefusalModel, SetModel, SiteModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';
import {
  depthOf,
  findSet,
  findSite,
  loadPhotos,
  photoSetOf,
  refusalsOf,
  rowsOf,
  summariesOf,
} from '../sets/rows.ts';
import { AttentionDto, checked, idFrom, NewSetDto, PauseDto } from './dto.ts';

type ById = FastifyRequest<{ Params: { id: string } }>;

async function stateOf(parts: Parts, setId: number): Promise<SetState> {
  const set = await findSet(setId);
  const site = await findSite(set);
  const photos = await loadPhotos(setId);
  return {
    site: { id: site.id, name: site.name },
    set: await photoSetOf(set),
    rows: await rowsOf(set, photos, parts.preparer),
    refusals: await refusalsOf(setId),
    preparation: parts.preparer.progressOf(setId),
    edits: await depthOf(setId),
  };
}

/** Opens a server-sent event stream (HTML standard, 9.2) that ends when the reader goes. */
function streamEvents(parts: Parts, setId: number, request: FastifyRequest, reply: FastifyReply): void {
  reply.hijack();
  reply.raw.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    connection: 'keep-alive',
  });
  const tell = (event: SetEvent) => reply.raw.write(`data: ${JSON.stringify(event)}\n\n`);
  tell({ type: 'preparation', preparation: parts.preparer.progressOf(setId) });
  const stop = parts.hub.listen(setId, tell);
  const beat = setInterval(() => reply.raw.write(': still here\n\n'), 20_000);
  request.raw.on('close', () => {
    clearInterval(beat);
    stop();
  });
}

/** The name a file was sent with: the last part of a path, at most 255 characters, without control characters. */
function sentName(request: FastifyRequest): string {
  const { name } = request.query as { name?: string };
  const last = (name ?? '').split(/[\\/]/).at(-1)!;
  const plain = last.replace(/\p{Cc}/gu, '').slice(0, 255);
  if (plain === '') throw new ProblemError('bad-request', 'A file needs a name.');
  return plain;
}

export const setRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    app.get('/sites', async () => {
      const sites = await SiteModel.findAll({ order: [['id', 'ASC']] });
      return Promise.all(sites.map(async ({ id, name }) => ({ id, name, sets: await summariesOf(id) })));
    });

    app.get('/limits', async () => parts.config.limits);

    app.post('/sites/:id/sets', async (request: ById, reply) => {
      const { name } = checked(NewSetDto, request.body);
      const site = await SiteModel.findByPk(idFrom(request.params.id));
      if (!site) throw new ProblemError('no-such-set');
      const slots = SLOTS.filter((slot) => slot.id === 'column' || slot.id === 'grid').map((slot) => slot.id);
      const set = await SetModel.create({ siteId: site.id, name: name.trim(), slots, version: 1 });
      return reply.code(201).send({ id: set.id });
    });

    app.get('/sets/:id', async (request: ById) => stateOf(parts, idFrom(request.params.id)));

    app.get('/sets/:id/events', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      await findSet(setId);
      streamEvents(parts, setId, request, reply);
    });

    app.post('/sets/:id/files', { bodyLimit: Number.MAX_SAFE_INTEGER }, async (request: ById) => {
      const setId = idFrom(request.params.id);
      const result = await parts.takeIn.add(setId, {
        fileName: sentName(request),
        stream: request.body as Readable,
      });
      if (result.kind === 'refused')
        parts.hub.tell(setId, { type: 'refusals', refusals: await refusalsOf(setId) });
      else parts.hub.tell(setId, { type: 'rows', rows: [result.row] });
      const set = await photoSetOf(await findSet(setId));
      parts.hub.tell(setId, { type: 'set', set, edits: await depthOf(setId) });
      void parts.preparer.reconcile(setId);
      return result;
    });

    app.delete(
      '/sets/:id/refusals/:refusal',
      async (request: FastifyRequest<{ Params: { id: string; refusal: string } }>) => {
        const setId = idFrom(request.params.id);
        await RefusalModel.destroy({ where: { setId, id: idFrom(request.params.refusal) } });
        const refusals = await refusalsOf(setId);
        parts.hub.tell(setId, { type: 'refusals', refusals });
        return refusals;
      },
    );

    app.put('/sets/:id/attention', async (request: ById, reply) => {
      parts.preparer.attend(idFrom(request.params.id), checked(AttentionDto, request.body).photos);
      return reply.code(204).send();
    });

    app.put('/sets/:id/preparation', async (request: ById) => {
      const setId = idFrom(request.params.id);
      parts.preparer.pause(setId, checked(PauseDto, request.body).paused);
      return parts.preparer.progressOf(setId);
    });
  };
