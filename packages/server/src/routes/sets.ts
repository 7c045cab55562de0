// A set: reading it, listening to it, its refused files and its bin, steering the preparation.
import type { Filter, Stop } from '@dusky-otter/core/contract';
import { FILTERS, SEAL_PARTS } from '@dusky-otter/core/readiness';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { emptyBin } from '../changes/bin.ts';
import { forgetRefusals } from '../changes/refusals.ts';
import { lackingWords } from '../answers/lacking-words.ts';
import { elsewhereOf } from '../answers/elsewhere.ts';
import { entriesOf } from '../answers/entries.ts';
import { membersWith } from '../answers/finding.ts';
import { findSet, readSet, refusalsOf } from '../store/sets.ts';
import type { Shown } from '../ledger/set-ledger.ts';
import { ProblemError } from '../problems.ts';
import { AttentionDto, ImportDto, checked, idFrom, PauseDto, ThoroughDto } from './dto.ts';

/** What these routes need of the server. */
type Needs = Pick<
  Parts,
  'changes' | 'config' | 'ledgers' | 'preparer' | 'queries' | 'sites' | 'takeIn' | 'vault'
>;

type ById = FastifyRequest<{ Params: { id: string } }>;

type Asking = FastifyRequest<{ Params: { id: string }; Querystring: Record<string, unknown> }>;

/** Photos in one answer, at most. */
const MOST_IN_PAGE = 200;

/** A whole number from an address, or what stands for it where it is left out. @throws ProblemError bad-request */
function numberFrom(value: unknown, most: number, missing: number): number {
  if (value === undefined) return missing;
  const number = typeof value === 'string' && /^\d{1,10}$/.test(value) ? Number(value) : NaN;
  if (!(number <= most)) throw new ProblemError('bad-request');
  return number;
}

/** @throws ProblemError bad-request */
function shownFrom(value: unknown): Shown {
  if (value === undefined) return 'all';
  const known: readonly string[] = [...FILTERS, 'bin'];
  if (typeof value !== 'string' || !known.includes(value)) throw new ProblemError('bad-request');
  return value as Shown;
}

/** @throws ProblemError bad-request */
function filterFrom(value: unknown): Filter {
  const shown = shownFrom(value);
  if (shown === 'bin') throw new ProblemError('bad-request');
  return shown;
}

/** Ids joined by commas. @throws ProblemError bad-request, no-such-photo */
function idsFrom(value: unknown): number[] {
  if (typeof value !== 'string') throw new ProblemError('bad-request');
  const ids = value.split(',').map((text) => idFrom(text, 'no-such-photo'));
  if (ids.length > MOST_IN_PAGE) throw new ProblemError('bad-request');
  return ids;
}

export const setRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    app.get('/limits', async () => parts.config.limits);

    // Photos that stand in other sets of the site come into this one as well.
    app.post('/sets/:id/photos', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const { photos } = checked(ImportDto, request.body);
      await parts.takeIn.importPhotos(setId, photos);
      return { photos: await parts.queries.photos(setId, photos) };
    });

    // The pages of the site, this set's among them.
    app.get('/sets/:id/pages', async (request: ById) => {
      const { siteId } = await findSet(idFrom(request.params.id));
      return { pages: await entriesOf(await parts.sites.get(siteId), parts.ledgers) };
    });

    /** What stands on the pages of the site's other sets. */
    app.get('/sets/:id/elsewhere', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const site = await parts.sites.get((await findSet(setId)).siteId);
      return { elsewhere: await elsewhereOf(site, setId, parts.ledgers) };
    });

    /** What its photos lack in the site's further languages. */
    app.get('/sets/:id/languages', async (request: ById) => {
      const set = await findSet(idFrom(request.params.id));
      const site = await parts.sites.get(set.siteId);
      return { languages: await lackingWords(set, site, parts.ledgers) };
    });

    app.get('/sets/:id', async (request: Asking) => {
      const { window, since } = request.query;
      return parts.queries.header(idFrom(request.params.id), {
        ...(typeof window === 'string' && { window: window.slice(0, 64) }),
        ...(since !== undefined && { since: numberFrom(since, Number.MAX_SAFE_INTEGER, 0) }),
      });
    });

    app.get('/sets/:id/photos', async (request: Asking) => {
      const setId = idFrom(request.params.id);
      const { ids, filter, from, count, language } = request.query;
      if (language !== undefined && typeof language !== 'string') throw new ProblemError('bad-request');
      if (ids !== undefined) {
        const photos = await parts.queries.photos(setId, idsFrom(ids), language);
        return { total: photos.length, from: 0, photos };
      }
      return parts.queries.page(setId, shownFrom(filter), {
        from: numberFrom(from, Number.MAX_SAFE_INTEGER, 0),
        count: numberFrom(count, MOST_IN_PAGE, 40),
        ...(language !== undefined && { language }),
      });
    });

    app.get('/sets/:id/ids', async (request: Asking) => {
      const setId = idFrom(request.params.id);
      const { filter, place } = request.query;
      if (place === undefined) return parts.queries.list(setId, shownFrom(filter));
      if (typeof place !== 'string') throw new ProblemError('bad-request');
      return parts.queries.members(setId, place);
    });

    app.get('/sets/:id/next', async (request: Asking) => {
      const { filter, open, after, by } = request.query;
      const setId = idFrom(request.params.id);
      await findSet(setId);
      const stops: readonly unknown[] = SEAL_PARTS;
      if (!stops.includes(open)) throw new ProblemError('bad-request');
      const behind = after === undefined ? null : numberFrom(after, 4_294_967_295, 0);
      if (by !== undefined && by !== 'doubt') throw new ProblemError('bad-request');
      const ledger = await parts.ledgers.get(setId);
      return by === 'doubt'
        ? ledger.nextByDoubt(filterFrom(filter), open as Stop, behind)
        : ledger.next(filterFrom(filter), open as Stop, behind);
    });

    app.get('/sets/:id/around', async (request: Asking) => {
      const { filter, photo } = request.query;
      const setId = idFrom(request.params.id);
      await findSet(setId);
      return (await parts.ledgers.get(setId)).around(filterFrom(filter), numberFrom(photo, 4_294_967_295, 0));
    });

    app.get('/sets/:id/found', async (request: Asking) => {
      const setId = idFrom(request.params.id);
      await findSet(setId);
      const { words } = request.query;
      if (typeof words !== 'string') throw new ProblemError('bad-request');
      return parts.queries.photos(setId, membersWith(await parts.ledgers.get(setId), words.slice(0, 200)));
    });

    app.delete(
      '/sets/:id/refusals/:refusal',
      async (request: FastifyRequest<{ Params: { id: string; refusal: string } }>) => {
        const setId = idFrom(request.params.id);
        await forgetRefusals(parts.changes, setId, { id: idFrom(request.params.refusal) });
        return refusalsOf(setId);
      },
    );

    app.delete('/sets/:id/refusals', async (request: ById) => {
      const setId = idFrom(request.params.id);
      await forgetRefusals(parts.changes, setId);
      return [];
    });

    app.delete('/sets/:id/bin', async (request: ById) => {
      const setId = idFrom(request.params.id);
      return { gone: await emptyBin(parts.changes, parts.vault, setId) };
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

    app.put('/sets/:id/thorough', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const { now } = checked(ThoroughDto, request.body);
      // Read first: a set that nobody has looked at since the start has no files to speak of yet.
      await readSet(() => parts.ledgers.get(setId));
      parts.preparer.thorough.ask(setId, now);
      return parts.preparer.progressOf(setId);
    });
  };
