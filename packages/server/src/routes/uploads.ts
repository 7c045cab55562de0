// Takes files in, one a request, as a stream of its own.
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Readable } from 'node:stream';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { goneSignal, takeStreams } from './body.ts';
import { idFrom } from './dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'queries' | 'takeIn'>;

type Upload = FastifyRequest<{ Params: { id: string }; Querystring: { name?: unknown; for?: unknown } }>;

/** The name a file was sent with: the last part of a path, at most 255 characters, without control characters. */
function sentName({ query: { name } }: Upload): string {
  const last = typeof name === 'string' ? name.split(/[\\/]/).at(-1)! : '';
  // A half of a pair of code units, left by a cut, is no character.
  const plain = Buffer.from(last.replace(/\p{Cc}/gu, '').slice(0, 255)).toString();
  if (plain.trim() === '') throw new ProblemError('bad-request', 'A file needs a name.');
  return plain;
}

export const uploadRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    takeStreams(app);

    app.post('/sets/:id/files', { bodyLimit: Number.MAX_SAFE_INTEGER }, async (request: Upload, reply) => {
      const setId = idFrom(request.params.id);
      const fileName = sentName(request);
      const { for: sentFor } = request.query;
      if (sentFor !== undefined && typeof sentFor !== 'string') throw new ProblemError('bad-request');
      const replaces = sentFor === undefined ? {} : { replaces: idFrom(sentFor, 'no-such-photo') };
      const signal = goneSignal(reply);
      const stream = request.body as Readable | undefined;
      if (!stream) throw new ProblemError('wrong-body', 'A file is sent as application/octet-stream.');
      const taken = await parts.takeIn.add(setId, { fileName, stream, signal, ...replaces });
      if (!('photoId' in taken)) return taken;
      const { photoId, ...how } = taken;
      const [photo] = await parts.queries.photos(setId, [photoId]);
      return { ...how, photo };
    });
  };
