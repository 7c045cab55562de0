// What is looked at before it is decided: a size of a photo's crop as it is, encoded with a quality that is tried, or made
// as a decision would have it.
import type {
  BitmapFormat,
  EncoderSettings,
  Photo,
  PlannedVariant,
  QualityDecision,
  ShapeId,
} from '@dusky-otter/core/contract';
import { heightFor, ratioOf } from '@dusky-otter/core/geometry';
import { planShape } from '@dusky-otter/core/plan';
import { isLossy, isModern, settingsFor, type LossyFormat } from '@dusky-otter/core/weight';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import type { LookJob, PointsJob, Seen } from '../codec/protocol.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { lookedAt, nothingToSee } from '../look/looked-at.ts';
import { loadPhotos } from '../store/photos.ts';
import { findSet } from '../store/sets.ts';
import { goneSignal } from './body.ts';
import { checked, idFrom, TryDto } from './dto.ts';
import { sendPicture } from './picture.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'previews' | 'sites' | 'vault'>;

interface OfPhoto {
  id: string;
  photo: string;
}
type Looking = FastifyRequest<{
  Params: OfPhoto;
  Querystring: Record<'slot' | 'shape' | 'width' | 'format' | 'quality', unknown>;
}>;
type Trying = FastifyRequest<{ Params: OfPhoto }>;

const FORMATS: readonly BitmapFormat[] = ['avif', 'webp', 'jpeg', 'png'];

/** @throws ProblemError bad-request for what is no whole number within the range */
function wholeFrom(text: unknown, most: number): number {
  if (typeof text !== 'string' || !/^\d{1,6}$/.test(text) || Number(text) < 1 || Number(text) > most)
    throw new ProblemError('bad-request');
  return Number(text);
}

/** As a pinned quality is stored, but for its difference: that is measured where it is looked at. */
function triedSettings(format: LossyFormat, pixels: number, quality: number): EncoderSettings {
  const photograph = { kind: 'photograph', lossless: false } as const;
  const settings = settingsFor(format, photograph, { target: 0, density: 1, pixels, pinned: quality });
  delete settings.density;
  return settings;
}

/** @throws ProblemError nothing-to-see for what is not made of pixels */
function checkDrawn(planned: PlannedVariant | undefined): asserts planned is PlannedVariant {
  if (!planned || planned.format === 'svg')
    throw new ProblemError('nothing-to-see', 'A drawing goes out as it is: there is nothing to weigh.');
}

/** @throws ProblemError nothing-to-see for what is not made of pixels, or moves */
function checkStill(photo: Photo, planned: PlannedVariant | undefined): asserts planned is PlannedVariant {
  checkDrawn(planned);
  if (photo.original.frames > 1 && !planned.settings.still)
    throw new ProblemError('nothing-to-see', 'An animation is not tried frame by frame: choose a still.');
}

export const lookRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    /** A photo of a set with what is planned of it in one place, or would be. */
    const plannedFor = async (
      { id, photo: photoId }: OfPhoto,
      { slot: slotId, shape }: { slot: unknown; shape: unknown },
      decision?: QualityDecision,
    ) => {
      const setId = idFrom(id);
      const site = await parts.sites.get((await findSet(setId)).siteId);
      const [found] = await loadPhotos(setId, site.languages[0]!, [idFrom(photoId, 'no-such-photo')]);
      if (!found) throw new ProblemError('no-such-photo');
      const slot = site.slots.find((one) => one.id === slotId);
      if (!slot?.shapes.some((part) => part.shape === shape)) throw new ProblemError('bad-request');
      const photo = decision ? { ...found, quality: { ...found.quality, [slot.id]: decision } } : found;
      return { photo, shape: shape as ShapeId, planned: planShape(photo, slot, shape as ShapeId, site) };
    };

    const seen = (
      reply: FastifyReply,
      photo: Photo,
      planned: PlannedVariant,
      of: Pick<LookJob, 'width' | 'height' | 'format' | 'settings' | 'moving'>,
    ): Promise<Seen> => {
      const job: LookJob = { kind: 'look', ...lookedAt(photo, planned, parts.vault), ...of };
      return parts.previews.look(job, goneSignal(reply)).catch(nothingToSee);
    };

    /** What a planned size could be had for in its format, whatever is decided about its quality. */
    app.get('/sets/:id/photos/:photo/points', async (request: Looking, reply) => {
      const { width: asked, format: named } = request.query;
      const { photo, planned } = await plannedFor(request.params, request.query);
      checkStill(photo, planned[0]);
      const width = wholeFrom(asked, planned[0].crop.width);
      const variant = planned.find((one) => one.width === width && one.format === named);
      if (!variant || !isLossy(variant.format)) throw new ProblemError('bad-request');
      if (variant.settings.lossless)
        throw new ProblemError('nothing-to-see', 'It goes out without loss: there is one way to have it.');
      const { height, format, settings } = variant;
      const job: PointsJob = {
        kind: 'points',
        ...lookedAt(photo, variant, parts.vault),
        ...{ width, height, format, settings, density: settings.density ?? 1 },
      };
      void reply.header('cache-control', 'no-store');
      return { points: await parts.previews.points(job, goneSignal(reply)).catch(nothingToSee) };
    });

    app.get('/sets/:id/photos/:photo/look', async (request: Looking, reply) => {
      const { width: asked, format: named, quality } = request.query;
      const { photo, shape, planned } = await plannedFor(request.params, request.query);
      const [first] = planned;
      checkStill(photo, first);
      const width = wholeFrom(asked, first.crop.width);
      const format = named === undefined ? null : FORMATS.find((one) => one === named);
      if (format === undefined) throw new ProblemError('bad-request');
      const height = heightFor(width, ratioOf(shape, first.crop));
      const { file } = await seen(reply, photo, first, {
        width,
        height,
        format,
        settings: {
          ...(format !== null && isLossy(format) && quality !== undefined
            ? triedSettings(format, width * height, wholeFrom(quality, 100))
            : { lossless: true, effort: 4 }),
          // As it would be stored; the picture itself as what is looked at beside it.
          ...(first.settings.gamut &&
            (format === null || isModern(format)) && { gamut: first.settings.gamut }),
        },
      });
      return sendPicture(reply.header('cache-control', 'no-store'), file, format ?? 'png');
    });

    /** The file that a decision would have made, with its quality and difference in the head of the answer. */
    app.post('/sets/:id/photos/:photo/try', async (request: Trying, reply) => {
      const { slot, shape, width, format, decision } = checked(TryDto, request.body);
      const { photo, planned } = await plannedFor(request.params, { slot, shape }, decision);
      const variant = planned.find((one) => one.width === width && one.format === format);
      checkDrawn(planned[0]);
      if (!variant || variant.format === 'svg') throw new ProblemError('bad-request');
      const { file, quality, difference } = await seen(reply, photo, variant, {
        width: variant.width,
        height: variant.height,
        format: variant.format,
        settings: variant.settings,
        moving: photo.original.frames > 1 && !variant.settings.still,
      });
      void reply.headers({
        'cache-control': 'no-store',
        ...(quality !== null && { 'x-quality': String(quality) }),
        ...(difference !== null && { 'x-difference': String(difference) }),
      });
      return sendPicture(reply, file, variant.format);
    });
  };
