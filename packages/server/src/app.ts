// Builds the Fastify instance from its parts; tests call it with inject().
import { existsSync } from 'node:fs';
import fastifyHelmet from '@fastify/helmet';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance, type FastifyReply, type FastifyRequest } from 'fastify';
import type { Config } from './config.ts';
import type { Parts } from './parts.ts';
import { ProblemError } from './problems.ts';
import { editRoutes } from './routes/edits.ts';
import { fileRoutes } from './routes/files.ts';
import { handoverRoutes } from './routes/handover.ts';
import { setRoutes } from './routes/sets.ts';

function answerError(error: unknown, request: FastifyRequest, reply: FastifyReply): void {
  let problem: ProblemError;
  if (error instanceof ProblemError) problem = error;
  else if (error instanceof Error && 'statusCode' in error && Number(error.statusCode) < 500) {
    problem = new ProblemError('bad-request', error.message);
  } else {
    request.log.error(error);
    problem = new ProblemError('internal');
  }
  const document = problem.document();
  void reply.code(document.status).type('application/problem+json').send(document);
}

/** Only the application itself may talk to the server: other sites and other host names are turned away. */
function guard(config: Config) {
  const names = new Set(['127.0.0.1', 'localhost', '[::1]', config.host]);
  const nameOf = (authority: string) => authority.replace(/:\d+$/, '').toLowerCase();
  return async (request: FastifyRequest): Promise<void> => {
    const { host = '', origin } = request.headers;
    if (!names.has(nameOf(host))) throw new ProblemError('foreign-origin');
    // The sandboxed preview has the origin "null" and only reads.
    const reads = request.method === 'GET' || request.method === 'HEAD';
    if (origin === undefined || (origin === 'null' && reads)) return;
    if (!URL.canParse(origin) || new URL(origin).host !== new URL(`http://${host}`).host)
      throw new ProblemError('foreign-origin');
  };
}

export async function buildApp(parts: Parts, options: { log?: boolean } = {}): Promise<FastifyInstance> {
  const app = Fastify({
    logger: options.log ? { level: 'warn' } : false,
    bodyLimit: 5_000_000,
    forceCloseConnections: true,
  });
  app.setErrorHandler(answerError);
  app.addHook('onRequest', guard(parts.config));
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
  // Uploads are streams: nothing collects them in memory.
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));
  await app.register(setRoutes(parts), { prefix: '/api' });
  await app.register(editRoutes(parts), { prefix: '/api' });
  await app.register(handoverRoutes(parts));
  await app.register(fileRoutes(parts));
  if (existsSync(parts.config.webDir)) {
    await app.register(fastifyStatic, { root: parts.config.webDir, wildcard: false });
  }
  app.setNotFoundHandler((request, reply) => {
    const page =
      request.method === 'GET' &&
      !/^\/(api|files|preview)\//.test(request.url) &&
      existsSync(parts.config.webDir);
    if (page) return reply.sendFile('index.html');
    throw new ProblemError('no-such-address');
  });
  return app;
}
