// What is looked at before it is decided: a size of a photo's crop as it is, or encoded with a quality that is tried.
import { heightFor, isLossy, planShape, ratioOf, type BitmapFormat, type ShapeId } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import { RenderError } from '../codec/pool.ts';
import type { LookJob } from '../codec/protocol.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { loadPhotos } from '../sets/photos.ts';
import { findSet } from '../sets/sets.ts';
import { idFrom } from './dto.ts';
import { sendPicture } from './picture.ts';

type Looking = FastifyRequest<{
  Params: { id: string; photo: string };
  Querystring: Record<'slot' | 'shape' | 'width' | 'format' | 'quality', unknown>;
}>;

const FORMATS: readonly BitmapFormat[] = ['avif', 'webp', 'jpeg', 'png'];

/** @throws ProblemError bad-request for what is no whole number within the range */
function wholeFrom(text: unknown, most: number): number {
  if (typeof text !== 'string' || !/^\d{1,6}$/.test(text) || Number(text) < 1 || Number(text) > most)
    throw new ProblemError('bad-request');
  return Number(text);
}

export const lookRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    app.get('/sets/:id/photos/:photo/look', async (request: Looking, reply) => {
      const setId = idFrom(request.params.id);
      const { slot: slotId, shape, width: asked, format: named, quality } = request.query;
      const set = await findSet(setId);
      const site = await parts.sites.get(set.siteId);
      const [photo] = await loadPhotos(setId, site.languages[0]!, [
        idFrom(request.params.photo, 'no-such-photo'),
      ]);
      if (!photo) throw new ProblemError('no-such-photo');
      const slot = site.slots.find(({ id }) => id === slotId);
      if (!slot?.shapes.some((part) => part.shape === shape)) throw new ProblemError('bad-request');
      const [planned] = planShape(photo, slot, shape as ShapeId, site);
      if (!planned || planned.format === 'svg')
        throw new ProblemError('nothing-to-see', 'A drawing goes out as it is: there is nothing to weigh.');
      const { crop, settings: wanted } = planned;
      if (photo.original.frames > 1 && !wanted.still)
        throw new ProblemError('nothing-to-see', 'An animation is not tried frame by frame: choose a still.');
      const width = wholeFrom(asked, crop.width);
      const format = named === undefined ? null : FORMATS.find((one) => one === named);
      if (format === undefined) throw new ProblemError('bad-request');
      const tried =
        format !== null && isLossy(format) && quality !== undefined
          ? { quality: wholeFrom(quality, 100) }
          : { lossless: true };
      const { mirrored, turns, angle } = photo.frame;
      const gone = new AbortController();
      reply.raw.once('close', () => {
        if (!reply.raw.writableFinished) gone.abort(new ProblemError('upload-interrupted'));
      });
      const job: LookJob = {
        kind: 'look',
        path: parts.vault.original(photo.original.hash),
        facts: photo.original,
        turning: { mirrored, turns, angle },
        frame: wanted.frame ?? 0,
        background: wanted.background ?? null,
        crop,
        width,
        height: heightFor(width, ratioOf(shape as ShapeId, crop)),
        format,
        settings: { effort: format === 'avif' ? 1 : 4, progressive: true, ...tried },
      };
      const bytes = await parts.looker.look(job, gone.signal).catch((error: unknown) => {
        throw error instanceof RenderError ? new ProblemError('nothing-to-see', error.message) : error;
      });
      return sendPicture(reply.header('cache-control', 'no-store'), bytes, format ?? 'png');
    });
  };
