// Pictures for screens: views of originals, and stored variants. Names are hashes, so they may be kept for ever.
import { createReadStream } from 'node:fs';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import { MIME, type OutputFormat } from '@dusky-otter/core';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';

const HEX64 = /^[0-9a-f]{64}$/;

const isFormat = (text: string): text is OutputFormat => Object.hasOwn(MIME, text);

export const fileRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    const send = async (reply: FastifyReply, path: string, type: string) => {
      if (!(await parts.vault.has(path))) throw new ProblemError('no-such-file');
      return reply
        .header('cache-control', 'public, max-age=31536000, immutable')
        .type(type)
        .send(createReadStream(path));
    };

    app.get(
      '/files/views/:hash/:size',
      async (request: FastifyRequest<{ Params: { hash: string; size: string } }>, reply) => {
        const { hash, size } = request.params;
        if (!HEX64.test(hash) || (size !== 'row' && size !== 'bench')) throw new ProblemError('no-such-file');
        return send(reply, parts.vault.view(hash, size), MIME.webp);
      },
    );

    app.get(
      '/files/variants/:key/:format',
      async (request: FastifyRequest<{ Params: { key: string; format: string } }>, reply) => {
        const { key, format } = request.params;
        if (!HEX64.test(key) || !isFormat(format)) throw new ProblemError('no-such-file');
        return send(reply, parts.vault.variant(key, format), MIME[format]);
      },
    );
  };
