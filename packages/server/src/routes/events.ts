// One stream of events for all sets that a browser has open: it allows six connections to a host, however many windows.
import { channelName, type SetEvent } from '@dusky-otter/core/contract';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { knownSets } from '../store/sets.ts';
import { idFrom } from './dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'hub' | 'preparer'>;

/** Sets that one stream tells of. */
const MOST_SETS = 100;
/** Bytes that may wait for a slow reader before it is cut; it then comes back and asks for what it missed. */
const MOST_WAITING = 1_000_000;
const BEAT_MS = 20_000;

interface Asked {
  sets: number[];
  /** Of those, which were listened to before: what was missed is told of them alone. */
  known: number[];
  /** The event that was heard last; undefined at first. */
  last: string | undefined;
}

/** Ids joined by commas; none where nothing is said. @throws ProblemError bad-request, no-such-set */
function idsFrom(value: unknown): number[] {
  if (value === undefined || value === '') return [];
  if (typeof value !== 'string') throw new ProblemError('bad-request');
  const ids = value.split(',').map((text) => idFrom(text));
  if (ids.length > MOST_SETS) throw new ProblemError('bad-request', 'These are too many sets at once.');
  return [...new Set(ids)];
}

/** What a listener asks for. A browser that connects again by itself says in a header what it heard last. */
async function askedBy({
  query,
  headers,
}: FastifyRequest<{ Querystring: Record<string, unknown> }>): Promise<Asked> {
  const sets = await knownSets(idsFrom(query.sets));
  if (sets.length === 0) throw new ProblemError('no-such-set');
  const again = headers['last-event-id'];
  if (typeof again === 'string') return { sets, known: sets, last: again };
  const { last } = query;
  if (last !== undefined && typeof last !== 'string') throw new ProblemError('bad-request');
  const known = new Set(idsFrom(query.known));
  return { sets, known: sets.filter((id) => known.has(id)), last };
}

/** Opens a server-sent event stream (HTML standard, 9.2) that ends when the reader goes, or can't keep up. */
function stream(
  { hub, preparer }: Needs,
  { sets, known, last }: Asked,
  request: FastifyRequest,
  reply: FastifyReply,
) {
  const out = reply.raw;
  reply.hijack();
  out.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    connection: 'keep-alive',
  });
  if (last === undefined) out.write(`id: ${hub.now}\n`);
  for (const setId of sets) {
    const start = { type: 'preparation', preparation: preparer.progressOf(setId) } satisfies SetEvent;
    out.write(`event: ${channelName(setId)}\ndata: ${JSON.stringify(start)}\n\n`);
  }
  const stop = hub.listen(
    known,
    {
      send: (text) => {
        if (out.destroyed || out.writableLength > MOST_WAITING) return false;
        out.write(text);
        return true;
      },
      cut: () => out.destroy(),
    },
    last,
    sets.filter((id) => !known.includes(id)),
  );
  const beat = setInterval(() => {
    if (out.writableLength <= MOST_WAITING) out.write(': still here\n\n');
    else out.destroy();
  }, BEAT_MS);
  const end = () => {
    clearInterval(beat);
    stop();
  };
  out.on('error', end);
  request.raw.on('close', end);
}

export const eventRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    app.get('/events', async (request: FastifyRequest<{ Querystring: Record<string, unknown> }>, reply) =>
      stream(parts, await askedBy(request), request, reply),
    );
  };
