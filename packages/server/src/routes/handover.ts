// What leaves the tool: markup to copy, the ZIP, and the same page as a preview.
import { arrangementIn } from '@dusky-otter/core/arrange';
import type { PageEntry, PhotoRow, RowVariant, Slot } from '@dusky-otter/core/contract';
import { addressUnder } from '@dusky-otter/core/html';
import { arrangedMarkup, figureMarkup, figureStyles, plainMarkup, rowMarkup } from '@dusky-otter/core/markup';
import { isDeviceName, shownName, slugOf } from '@dusky-otter/core/naming';
import { addressOfPage } from '@dusky-otter/core/page';
import { filmsBeside, slotsOf } from '@dusky-otter/core/plan';
import { concernsOf, handoverConcerns, sentTo } from '@dusky-otter/core/readiness';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { handoverZip, makeWhole, outgoing, variantPaths } from '../handover/handover.ts';
import { ownPartsOf, partsOf, rowsIn } from '../handover/gathered.ts';
import { pageOf } from '../handover/pages.ts';
import { pathsIn, type HandoverParts } from '../handover/parts.ts';
import { runtimeOf } from '../handover/runtime.ts';
import { ProblemError } from '../problems.ts';
import { Previews } from '../handover/previews.ts';
import { Named } from '../handover/named.ts';
import type { SetLedger } from '../ledger/set-ledger.ts';
import { PlannedRows } from '../answers/planned-rows.ts';
import { rowOf } from '../answers/sent.ts';
import { changedAt, findSet, readSet } from '../store/sets.ts';
import { stateOfSet } from '../store/state-of-set.ts';
import { publish } from '../changes/publishing.ts';
import { checked, CheckDto, idFrom, screenFrom, type ScreenAsked } from './dto.ts';
import { sendPicture } from './picture.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'changes' | 'hub' | 'ledgers' | 'preparer' | 'sites' | 'stored' | 'vault'>;

type Query = FastifyRequest<{
  Params: { id: string; '*'?: string; kind?: string };
  Querystring: ScreenAsked & {
    photos?: string;
    selection?: string;
    slot?: string;
    form?: string;
    styles?: string;
  };
}>;

/** Photos that were chosen for a hand-over; null: all of the set, whatever that is when it goes out. */
type Selected = readonly number[] | null;

/** Photos that a request names, by ids or by the name of a choice; null: all. @throws ProblemError no-such-photo */
function askedIn(
  { params, query: { photos, selection } }: Query,
  selections: Named<Selected>,
): readonly number[] | null {
  // A query may name it twice, and is then a list.
  if (selection !== undefined) {
    const chosen = selections.of(idFrom(params.id), selection);
    if (chosen === undefined)
      throw new ProblemError('no-such-photo', 'What was chosen is not known any more; choose it again.');
    return chosen;
  }
  if (photos === undefined) return null;
  if (typeof photos !== 'string') throw new ProblemError('no-such-photo');
  return photos.split(',').map((text) => idFrom(text, 'no-such-photo'));
}

/** How often files are made anew where something is changed while they are made. */
const MOST_TRIES = 3;

/** Photos that lack something, as far as they are named. */
const MOST_NAMED = 100;

/** How figures are written: as `<picture>`, or as one `<img>` for systems that allow no more. */
type Form = 'picture' | 'img';

/** The markup of all photos of one place, in a row where there are several. */
function markupIn(slot: Slot, handover: HandoverParts, form: Form): string[] {
  const pathOf = pathsIn(handover);
  const { prefix = '', modern } = handover.context.policy;
  const standing = handover.rows.filter((row) => slotsOf(row, handover.setPlaces).includes(slot.id));
  const arrangement = form === 'picture' ? arrangementIn(slot) : null;
  if (arrangement) {
    const urlOf = (row: PhotoRow, variant: RowVariant) => addressUnder(prefix, pathOf(row, variant));
    const [language = 'en'] = handover.context.languages;
    const both = modern === 'both';
    const { entries = [] } = handover;
    const markup = arrangedMarkup({
      ...{ arrangement, rows: standing, urlOf, first: false, both, language },
      // Pasted into a page of the site, it leads to the others from there.
      pages: {
        of: (set) => entries.find((entry) => entry.set === set) ?? null,
        addressOf: addressOfPage,
      },
    });
    return markup === '' ? [] : [markup];
  }
  const written = standing.map((row, n) => {
    // The first picture of a page loads before the others; which stands first is known within a place alone.
    const first = slot.loading === 'first' && n === 0;
    const urlOf = (variant: RowVariant) => addressUnder(prefix, pathOf(row, variant));
    const options = {
      row,
      slot,
      first,
      urlOf,
      both: modern === 'both',
      language: handover.context.languages[0] ?? 'en',
    };
    const markup = form === 'img' ? plainMarkup(options, handover.context.devices) : figureMarkup(options);
    if (!markup) throw new ProblemError('not-ready');
    return markup;
  });
  return form === 'picture' && written.length > 1 ? [rowMarkup(slot, written)] : written;
}

/** What goes before markup that is pasted alone: the styles of its places, and of no others. */
function stylesBefore(slots: readonly Slot[], handover: HandoverParts): string {
  const { context } = handover;
  const names = slots.map(({ id }) => id);
  const own = context.slots.filter(({ id, of }) => names.includes(of ?? id));
  const { styles } = runtimeOf({ ...handover, context: { ...context, slots: own } });
  return `<style>\n${figureStyles({ slots: own })}${styles}</style>\n`;
}

export const handoverRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    const previews = new Previews(() => parts.hub.changes);
    const plans = new PlannedRows();
    const rowFor: typeof rowOf = (...of) => plans.rowOf(...of);
    const selections = new Named<Selected>();
    const asked = (request: Query, find = partsOf) =>
      readSet(() => find(parts, idFrom(request.params.id), askedIn(request, selections)));

    /**
     * What goes out now is called so for good. What is changed while its files are made goes out as it is then.
     * @param make what is waited for between reading and noting
     * @throws ProblemError changed-meanwhile
     */
    const published = async (
      request: Query,
      isWhole: boolean,
      make: (handover: HandoverParts) => Promise<unknown>,
      find = partsOf,
    ): Promise<HandoverParts> => {
      const setId = idFrom(request.params.id);
      for (let again = 0; ; again++) {
        const { siteId } = await findSet(setId);
        const state = await stateOfSet(setId, siteId);
        const handover = await asked(request, find);
        await make(handover);
        try {
          const { names, guests } = handover;
          await publish(parts.changes, setId, { names, state, isWhole, ...(guests && { guests }) });
          return handover;
        } catch (error) {
          const isMeanwhile = error instanceof ProblemError && error.code === 'changed-meanwhile';
          if (!isMeanwhile || again === MOST_TRIES) throw error;
        }
      }
    };

    app.post('/api/sets/:id/hand-over', async (request: Query) => {
      const setId = idFrom(request.params.id);
      const { photos } = checked(CheckDto, request.body);
      const handover = await readSet(() => partsOf(parts, setId, photos));
      const { guests } = handover;
      const ledgers = new Map<number, SetLedger>();
      for (const id of new Set([setId, ...(guests?.values() ?? [])]))
        ledgers.set(id, await parts.ledgers.get(id));
      const files = [...variantPaths(handover).values()].map(({ variant }) => variant);
      const lacking = handover.rows
        .map((row) => {
          const of = guests?.get(row.id) ?? setId;
          const same = ledgers.get(of)!.sameAs(row.id);
          const concerns = concernsOf(row, handover.setPlaces, handover.context, same);
          return {
            id: row.id,
            set: of,
            name: shownName(row.words, row.fileName),
            concerns: handoverConcerns(concerns),
          };
        })
        .filter(({ concerns }) => concerns.length > 0);
      return {
        photos: handover.rows.length - (guests?.size ?? 0),
        guests: guests?.size ?? 0,
        files: files.length,
        bytes: files.reduce((sum, { bytes }) => sum + (bytes ?? 0), 0),
        lacking: lacking.length,
        first: lacking.slice(0, MOST_NAMED),
        beside: filmsBeside(handover.rows, handover.setPlaces, handover.context),
        selection: selections.keep(setId, photos),
      };
    });

    app.get('/api/sets/:id/sent', async (request: Query) => {
      const screen = screenFrom(request.query);
      const { rows, setPlaces, site } = await readSet(() =>
        rowsIn(parts, idFrom(request.params.id), askedIn(request, selections)),
      );
      const each = rows.map((row) => sentTo(row, setPlaces, site, screen));
      return {
        sent: each.reduce((sum, one) => sum + one.sent, 0),
        complete: each.every(({ complete }) => complete),
      };
    });

    // The page of some photos, to be read and not to go out: nothing is called so for good.
    app.get('/api/sets/:id/reading', async (request: Query, reply) => {
      const handover = await asked(request, ownPartsOf);
      const { slot } = request.query;
      const slots = handover.context.slots.filter(({ id }) => slot === undefined || id === slot);
      const page = pageOf({ ...handover, context: { ...handover.context, slots } });
      return reply.type('text/plain; charset=utf-8').send(page);
    });

    // A POST: what is copied is called so for good.
    app.post('/api/sets/:id/markup', async (request: Query, reply) => {
      const { slot, form = 'picture', styles = '0' } = request.query;
      if ((form !== 'picture' && form !== 'img') || (styles !== '0' && styles !== '1'))
        throw new ProblemError('bad-request');
      let figures: string[] = [];
      let before = '';
      await published(
        request,
        false,
        async (handover) => {
          const slots = handover.context.slots.filter(({ id }) => slot === undefined || id === slot);
          if (slots.length === 0) throw new ProblemError('bad-request', 'There is no such place.');
          figures = slots.flatMap((one) => markupIn(one, handover, form));
          if (styles === '1') before = stylesBefore(slots, handover);
          if (figures.length === 0)
            throw new ProblemError(
              'bad-request',
              'None of these photos stands in this place, or the page does not show it: put it on the page first.',
            );
        },
        ownPartsOf,
      );
      return reply.type('text/plain; charset=utf-8').send(`${before}${figures.join('\n\n')}\n`);
    });

    // What goes beside copied markup into a page, once.
    app.get('/api/sets/:id/beside/:kind', async (request: Query, reply) => {
      const handover = await readSet(() => ownPartsOf(parts, idFrom(request.params.id), null));
      const { styles, script } = runtimeOf(handover);
      if (request.params.kind === 'styles')
        return reply.type('text/css; charset=utf-8').send(`${figureStyles(handover.context)}${styles}`);
      if (request.params.kind === 'script') return reply.type('text/javascript; charset=utf-8').send(script);
      throw new ProblemError('no-such-file');
    });

    // Everything is waited for that is still being made; then what goes out is called so for good.
    app.post('/api/sets/:id/hand-over/publish', async (request: Query, reply) => {
      await published(request, askedIn(request, selections) === null, (handover) =>
        makeWhole(handover, parts.vault, parts.preparer),
      );
      return reply.code(204).send();
    });

    app.get('/api/sets/:id/hand-over.zip', async (request: Query, reply) => {
      const handover = await asked(request);
      await makeWhole(handover, parts.vault, parts.preparer);
      const { siteId } = await findSet(idFrom(request.params.id));
      const changed = await changedAt(siteId);
      const slug = slugOf(handover.set) || 'photos';
      const name = isDeviceName(slug) ? `${slug}-photos` : slug;
      return reply
        .header('content-disposition', `attachment; filename="${name}.zip"`)
        .type('application/zip')
        .send(handoverZip(handover, parts.vault, changed));
    });

    // The hand-over's own page, served as it will be: what is seen here is what goes out.
    app.get('/preview/:id/*', async (request: Query, reply) => {
      const handover = await previews.of(request.params.id, () =>
        readSet(async () => ({
          ...(await partsOf(parts, idFrom(request.params.id), null, rowFor)),
          // Other pages are looked at as previews, too.
          addressOf: ({ set }: PageEntry) => `../${set}/`,
        })),
      );
      const wanted = request.params['*'] ?? '';
      const path = wanted === '' || wanted.endsWith('/') ? `${wanted}index.html` : wanted;
      const texts = previews.textsOf(handover);
      const text = Object.hasOwn(texts, path) ? texts[path] : undefined;
      const kinds: Record<string, string> = {
        html: 'text/html',
        css: 'text/css',
        js: 'text/javascript',
        json: 'application/json',
        csv: 'text/csv',
      };
      if (text !== undefined)
        return reply.type(`${kinds[path.split('.').at(-1)!]}; charset=utf-8`).send(text);
      const found = previews.fileAt(request.params.id, path, handover);
      if (!found) throw new ProblemError('no-such-file');
      const { variant } = found.file;
      const bytes = await outgoing(found.file, parts.vault, found.context);
      if (bytes) return sendPicture(reply, bytes, variant.format);
      const stored = parts.stored.file(variant.file);
      if (stored) await parts.preparer.remake([{ key: variant.file, hash: stored.hash }]);
      throw new ProblemError('being-remade');
    });
  };
