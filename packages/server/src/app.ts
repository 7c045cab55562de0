// Builds the Fastify instance from its parts; tests call it with inject().
import { existsSync } from 'node:fs';
import fastifyHelmet from '@fastify/helmet';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance, type FastifyReply, type FastifyRequest } from 'fastify';
import type { Parts } from './parts.ts';
import { isDatabaseAway, ProblemError, sentenceOfDisk } from './problems.ts';
import { editRoutes } from './routes/edits.ts';
import { eventRoutes } from './routes/events.ts';
import { takeJsonObjects } from './routes/body.ts';
import { fileRoutes } from './routes/files.ts';
import { handoverRoutes } from './routes/handover.ts';
import { proofRoutes } from './routes/proof.ts';
import { lookRoutes } from './routes/look.ts';
import { measuringRoutes } from './routes/measuring.ts';
import { offerRoutes } from './routes/offers.ts';
import { placeRoutes } from './routes/places.ts';
import { setRoutes } from './routes/sets.ts';
import { siteRoutes } from './routes/sites.ts';
import { wordsRoutes } from './routes/words.ts';
import { uploadRoutes } from './routes/uploads.ts';

function problemOf(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  if (sentenceOfDisk(error)) return new ProblemError('disk-full');
  if (isDatabaseAway(error)) return new ProblemError('database-away');
  const status = error instanceof Error && 'statusCode' in error ? Number(error.statusCode) : 500;
  if (status === 415) return new ProblemError('wrong-body');
  if (status === 413) return new ProblemError('too-large');
  if (status < 500) return new ProblemError('bad-request');
  return new ProblemError('internal');
}

function answerError(error: unknown, request: FastifyRequest, reply: FastifyReply): void {
  const problem = problemOf(error);
  if (problem.code === 'internal' || problem.code === 'set-unreadable') request.log.error(error);
  const document = problem.document();
  void reply.code(document.status).type('application/problem+json').send(document);
}

/** Names under which this machine calls itself. What a configuration or a request says is no reason to trust it. */
const LOOPBACK = /^(?:127(?:\.\d{1,3}){3}|localhost|\[::1\])$/;

/** Addresses that the web application knows. */
const PAGES = /^\/(?:sets\/\d{1,9}(?:\/[a-z-]{1,20}(?:\/\d{1,9})?)?)?(?:\?|$)/;

/** Routes that only the application itself may load from; pages may be opened from anywhere. */
const OWN_ONLY = /^\/(?:api|files|preview|proofs)(?:\/|$)/;

/** Only the application itself may talk to the server: other sites and other host names are turned away. */
async function guard(request: FastifyRequest): Promise<void> {
  const { host = '', origin, 'sec-fetch-site': from } = request.headers;
  const name = host.replace(/:\d{1,5}$/, '').toLowerCase();
  if (!LOOPBACK.test(name)) throw new ProblemError('foreign-origin');
  // The route that answers decides, not the address as it was written: a router undoes escapes before it looks.
  const { url: route } = request.routeOptions;
  if ((from === 'cross-site' || from === 'same-site') && route !== undefined && OWN_ONLY.test(route))
    throw new ProblemError('foreign-origin');
  if (origin === undefined) return;
  if (!URL.canParse(origin) || new URL(origin).host !== new URL(`http://${host}`).host)
    throw new ProblemError('foreign-origin');
}

export async function buildApp(parts: Parts, options: { log?: boolean } = {}): Promise<FastifyInstance> {
  const app = Fastify({
    logger: options.log ? { level: 'warn' } : false,
    bodyLimit: 5_000_000,
    forceCloseConnections: true,
  });
  app.setErrorHandler(answerError);
  app.addHook('onRequest', guard);
  await app.register(fastifyHelmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        styleSrc: ["'self'", "'unsafe-inline'"],
        frameAncestors: ["'self'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
    xFrameOptions: { action: 'sameorigin' },
  });
  takeJsonObjects(app);
  await app.register(siteRoutes(parts), { prefix: '/api' });
  await app.register(setRoutes(parts), { prefix: '/api' });
  await app.register(eventRoutes(parts), { prefix: '/api' });
  await app.register(lookRoutes(parts), { prefix: '/api' });
  await app.register(offerRoutes(parts), { prefix: '/api' });
  await app.register(placeRoutes(parts), { prefix: '/api' });
  await app.register(uploadRoutes(parts), { prefix: '/api' });
  await app.register(measuringRoutes());
  await app.register(editRoutes(parts), { prefix: '/api' });
  await app.register(wordsRoutes(parts), { prefix: '/api' });
  await app.register(handoverRoutes(parts));
  await app.register(proofRoutes(parts));
  await app.register(fileRoutes(parts));
  if (existsSync(parts.config.webDir)) {
    await app.register(fastifyStatic, { root: parts.config.webDir, wildcard: false });
  }
  app.setNotFoundHandler((request, reply) => {
    const page = request.method === 'GET' && !OWN_ONLY.test(request.url) && existsSync(parts.config.webDir);
    // The application says it itself where an address is none of its own.
    if (page) return reply.code(PAGES.test(request.url) ? 200 : 404).sendFile('index.html');
    throw new ProblemError('no-such-address');
  });
  return app;
}
