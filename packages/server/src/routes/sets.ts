// A set: reading it, listening to it, its refused files and its bin, steering the preparation.
import type { SetEvent, SetState } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { RefusalModel } from '../database/models.ts';
import { emptyBin } from '../sets/bin.ts';
import {
  depthOf,
  findSet,
  findSite,
  loadPhotos,
  photoSetOf,
  readSet,
  refusalsOf,
  rowsOf,
} from '../sets/rows.ts';
import { AttentionDto, checked, idFrom, PauseDto } from './dto.ts';

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

/** Bytes that may wait for a slow reader before it is cut; it then comes back and asks for what it missed. */
const MOST_WAITING = 1_000_000;

/** Opens a server-sent event stream (HTML standard, 9.2) that ends when the reader goes, or can't keep up. */
function streamEvents(parts: Parts, setId: number, request: FastifyRequest, reply: FastifyReply): void {
  const out = reply.raw;
  reply.hijack();
  out.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    connection: 'keep-alive',
  });
  const start = { type: 'preparation', preparation: parts.preparer.progressOf(setId) } satisfies SetEvent;
  const last = request.headers['last-event-id'];
  const position = typeof last === 'string' ? '' : `id: ${parts.hub.now}\n`;
  out.write(`${position}data: ${JSON.stringify(start)}\n\n`);
  const stop = parts.hub.listen(
    setId,
    {
      send: (text) => {
        if (out.destroyed || out.writableLength > MOST_WAITING) return false;
        out.write(text);
        return true;
      },
      cut: () => out.destroy(),
    },
    typeof last === 'string' ? last : undefined,
  );
  const beat = setInterval(() => {
    if (out.writableLength <= MOST_WAITING) out.write(': still here\n\n');
    else out.destroy();
  }, 20_000);
  const end = () => {
    clearInterval(beat);
    stop();
  };
  out.on('error', end);
  request.raw.on('close', end);
}

export const setRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    app.get('/limits', async () => parts.config.limits);

    app.get('/sets/:id', async (request: ById) => {
      const setId = idFrom(request.params.id);
      return readSet(() => stateOf(parts, setId));
    });

    app.get('/sets/:id/events', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      await findSet(setId);
      streamEvents(parts, setId, request, reply);
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

    app.delete('/sets/:id/refusals', async (request: ById) => {
      const setId = idFrom(request.params.id);
      await RefusalModel.destroy({ where: { setId } });
      parts.hub.tell(setId, { type: 'refusals', refusals: [] });
      return [];
    });

    app.delete('/sets/:id/bin', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const gone = await emptyBin(parts.sequelize, parts.vault, parts.stored, setId);
      // Other windows show photos that are no more: they read the set anew.
      parts.hub.tell(setId, { type: 'reset' });
      void parts.preparer.reconcileSoon(setId);
      return { gone };
    });

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
