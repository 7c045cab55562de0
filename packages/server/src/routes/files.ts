// Pictures for screens: views of originals, and stored variants. Names are hashes, so they may be kept for ever.
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import type { OutputFormat } from '@dusky-otter/core/contract';
import { MIME } from '@dusky-otter/core/weight';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { sendPicture } from './picture.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'preparer' | 'stored' | 'vault' | 'views'>;

const HEX64 = /^[0-9a-f]{64}$/;

const isFormat = (text: string): text is OutputFormat => Object.hasOwn(MIME, text);

export const fileRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    const send = (reply: FastifyReply, bytes: Buffer, format: OutputFormat) =>
      sendPicture(
        reply
          .header('cache-control', 'private, max-age=31536000, immutable')
          .header('cross-origin-resource-policy', 'same-origin'),
        bytes,
        format,
      );

    app.get(
      '/files/views/:hash/:size',
      async (request: FastifyRequest<{ Params: { hash: string; size: string } }>, reply) => {
        const { hash, size } = request.params;
        if (!HEX64.test(hash) || (size !== 'row' && size !== 'bench')) throw new ProblemError('no-such-file');
        const bytes = await parts.views.read(hash, size);
        if (!bytes) throw new ProblemError('no-such-file');
        return send(reply, bytes, 'webp');
      },
    );

    app.get(
      '/files/variants/:key/:format',
      async (request: FastifyRequest<{ Params: { key: string; format: string } }>, reply) => {
        const { key, format } = request.params;
        if (!HEX64.test(key) || !isFormat(format)) throw new ProblemError('no-such-file');
        const known = parts.stored.file(key);
        // Asked for under another ending it is not there, and not lost.
        if (known?.format !== format) throw new ProblemError('no-such-file');
        const bytes = await parts.vault.verified(parts.vault.variant(key, format), known.contentHash);
        if (bytes) return send(reply, bytes, format);
        await parts.preparer.remake([{ key, hash: known.hash }]);
        throw new ProblemError('being-remade');
      },
    );
  };
