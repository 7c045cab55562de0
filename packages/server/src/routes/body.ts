// Bodies of requests: plain JSON objects of a sensible depth, and nothing else; uploads have a route and a parser of their own.
import type { FastifyInstance, FastifyReply } from 'fastify';
import { ProblemError } from '../problems.ts';

/** Objects and lists inside each other that any request of the application has, with room to spare. */
const DEEPEST = 16;

/** How deep brackets stand inside each other, outside strings; counting stops at `most`. */
function depthOf(text: string, most: number): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let at = 0; at < text.length && deepest <= most; at++) {
    const c = text[at];
    if (quoted) {
      if (c === '\\') at++;
      else if (c === '"') quoted = false;
    } else if (c === '"') quoted = true;
    else if (c === '{' || c === '[') deepest = Math.max(deepest, ++depth);
    else if (c === '}' || c === ']') depth--;
  }
  return deepest;
}

/** Lets only JSON objects through; the body of a request without one is an empty object. */
export function takeJsonObjects(app: FastifyInstance): void {
  const parse = app.getDefaultJsonParser('error', 'error');
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('application/json', { parseAs: 'string' }, (request, text, done) => {
    const body = text.toString();
    if (body.trim() === '') return done(null, {});
    if (depthOf(body, DEEPEST) > DEEPEST)
      return done(new ProblemError('bad-request', 'The request is nested too deeply.'));
    // eslint-disable-next-line @typescript-eslint/no-floating-promises -- this parser answers through its callback
    parse(request, body, (error, value: unknown) => {
      if (error) done(new ProblemError('bad-request', 'The request is no valid JSON.'));
      else if (typeof value !== 'object' || value === null || Array.isArray(value))
        done(new ProblemError('bad-request', 'The request must be a JSON object.'));
      else done(null, value);
    });
  });
}

/** Uploads are streams: nothing collects them in memory, whatever they call themselves. */
export function takeStreams(app: FastifyInstance): void {
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));
}

/** Aborted when whoever asked is gone: closed with an answer still owed, there is nobody left to take it. */
export function goneSignal(reply: FastifyReply): AbortSignal {
  const gone = new AbortController();
  reply.raw.once('close', () => {
    if (!reply.raw.writableFinished) gone.abort(new ProblemError('upload-interrupted'));
  });
  return gone.signal;
}
