// The sealed frame for pages that are measured: an origin of its own, no network, no script but the one that measures.
import { createHash } from 'node:crypto';
import type { FastifyPluginAsync } from 'fastify';
import { inside } from '../measuring/inside.ts';

const SCRIPT = `(${inside.toString()})()`;
const HASH = createHash('sha256').update(SCRIPT).digest('base64');

/**
 * Pages come from anywhere. `sandbox` without `allow-same-origin` gives the document an opaque origin: cookies, storage
 * and the application's pages are out of its reach. Whatever it names is in it as data or is not loaded.
 */
const POLICY = [
  'sandbox allow-scripts',
  "default-src 'none'",
  `script-src 'sha256-${HASH}'`,
  "style-src 'unsafe-inline'",
  'img-src data:',
  'font-src data:',
  "form-action 'none'",
  "base-uri 'none'",
  "frame-ancestors 'self'",
].join('; ');

const PAGE = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>A page to measure</title></head><body><script>${SCRIPT}</script></body></html>`;

export const measuringRoutes = (): FastifyPluginAsync => async (app) => {
  app.get('/measuring', async (_, reply) =>
    reply
      .header('content-security-policy', POLICY)
      .header('x-frame-options', 'SAMEORIGIN')
      .header('referrer-policy', 'no-referrer')
      .header('x-dns-prefetch-control', 'off')
      .header('cache-control', 'no-store')
      .type('text/html; charset=utf-8')
      .send(PAGE),
  );
};
