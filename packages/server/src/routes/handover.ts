// What leaves the tool: markup to copy, the ZIP, and the same page as a preview.
import {
  figureMarkup,
  isSlotId,
  MIME,
  SLOTS,
  slotsOf,
  slugOf,
  speakingNames,
  type PhotoRow,
} from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import {
  handoverZip,
  makeWhole,
  pathsIn,
  readVariant,
  variantPaths,
  type HandoverParts,
} from '../handover/handover.ts';
import { ProblemError } from '../problems.ts';
import { Previews } from '../handover/previews.ts';
import {
  depthOf,
  findSet,
  findSite,
  loadPhotos,
  photoSetOf,
  publishedNames,
  publishNames,
  readSet,
  rowsOf,
} from '../sets/rows.ts';
import { idFrom } from './dto.ts';

type Query = FastifyRequest<{
  Params: { id: string; '*'?: string };
  Querystring: { photos?: string; slot?: string };
}>;

/** The rows that were asked for (ids joined by commas), or all; never those in the bin. */
async function partsOf(parts: Parts, request: Query): Promise<HandoverParts> {
  const set = await findSet(idFrom(request.params.id));
  const site = await findSite(set);
  const { photos: wished } = request.query;
  // A query may name it twice, and is then a list.
  if (wished !== undefined && typeof wished !== 'string') throw new ProblemError('no-such-photo');
  const asked = wished?.split(',').map((text) => idFrom(text, 'no-such-photo'));
  const all = await loadPhotos(set.id);
  // A name hangs on all photos of the set: part of them must not be called otherwise than the whole.
  const names = speakingNames(all, await publishedNames(set.id));
  const photos = all.filter(({ id, binned }) => !binned && (!asked || asked.includes(id)));
  if (asked && photos.length === 0) throw new ProblemError('no-such-photo');
  const rows = await rowsOf(set, photos, parts.preparer);
  return { site: site.name, set: set.name, policy: site.policy, setSlots: set.slots, rows, names };
}

function markupOf(row: PhotoRow, parts: HandoverParts, only: string | undefined): string[] {
  const pathOf = pathsIn(parts);
  const slots = slotsOf(row, parts.setSlots).filter((id) => only === undefined || id === only);
  return SLOTS.filter((slot) => slots.includes(slot.id)).map((slot) => {
    const first = slot.loading === 'first';
    const figure = figureMarkup({ row, slot, first, urlOf: (variant) => pathOf(row, variant) });
    if (!figure) throw new ProblemError('not-ready');
    return figure;
  });
}

export const handoverRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    const previews = new Previews(() => parts.hub.changes);

    /** What goes out now is called so for good. */
    const publish = async (request: Query, { rows, names }: HandoverParts) => {
      const setId = idFrom(request.params.id);
      const before = Object.keys(await publishedNames(setId)).length;
      await publishNames(
        setId,
        new Map(rows.flatMap(({ id }) => (names.has(id) ? [[id, names.get(id)!] as const] : []))),
      );
      const set = await photoSetOf(await findSet(setId));
      if (Object.keys(set.published).length > before)
        parts.hub.tell(setId, { type: 'set', set, edits: await depthOf(setId) });
    };

    const markHandedOver = async (request: Query) => {
      const found = await findSet(idFrom(request.params.id));
      if (found.handedOver) return;
      await found.update({ handedOver: true });
      parts.hub.tell(found.id, { type: 'set', set: await photoSetOf(found), edits: await depthOf(found.id) });
    };

    app.get('/api/sets/:id/markup', async (request: Query, reply) => {
      const { slot } = request.query;
      if (slot !== undefined && !isSlotId(slot))
        throw new ProblemError('bad-request', 'There is no such place.');
      const handover = await readSet(() => partsOf(parts, request));
      const figures = handover.rows.flatMap((row) => markupOf(row, handover, slot));
      if (figures.length === 0)
        throw new ProblemError('bad-request', 'None of these photos stands in this place.');
      await publish(request, handover);
      return reply.type('text/plain; charset=utf-8').send(`${figures.join('\n\n')}\n`);
    });

    app.get('/api/sets/:id/hand-over.zip', async (request: Query, reply) => {
      const handover = await readSet(() => partsOf(parts, request));
      await makeWhole(variantPaths(handover).values(), parts.vault, parts.preparer);
      await publish(request, handover);
      if (request.query.photos === undefined) await markHandedOver(request);
      const name = slugOf(handover.set) || 'photos';
      return reply
        .header('content-disposition', `attachment; filename="${name}.zip"`)
        .type('application/zip')
        .send(handoverZip(handover, parts.vault));
    });

    // The hand-over's own page, served as it will be: what is seen here is what goes out.
    app.get('/preview/:id/*', async (request: Query, reply) => {
      const handover = await previews.of(request.params.id, () => readSet(() => partsOf(parts, request)));
      const path = request.params['*'] || 'index.html';
      const text = previews.textsOf(handover)[path];
      const kinds: Record<string, string> = {
        html: 'text/html',
        css: 'text/css',
        json: 'application/json',
        csv: 'text/csv',
      };
      if (text !== undefined)
        return reply.type(`${kinds[path.split('.').at(-1)!]}; charset=utf-8`).send(text);
      const variant = variantPaths(handover).get(path);
      if (!variant) throw new ProblemError('no-such-file');
      const bytes = await readVariant(parts.vault, variant);
      if (bytes) return reply.type(MIME[variant.format]).send(bytes);
      await parts.preparer.remake([variant.key]);
      throw new ProblemError('being-remade');
    });
  };
