// Answers somebody who looks: one size of a crop, as it is or as a file with settings that are only tried. The pixels of
// the size that is looked at stay in hand, so that another quality costs no more than its encode.
import type { Attempt } from '@dusky-otter/core/weight';
import type { LookJob, PointsJob } from './protocol.ts';
import { encodeAnimation } from './animation.ts';
import { inputIn } from './gamut.ts';
import type { RawPicture } from './raw.ts';
import { SizedPicture, type Encoded } from './search.ts';
import { checkOriginal, decodeCrop, resized } from './source.ts';

let inHand: { of: string; picture: RawPicture } | null = null;

/** Forgets the pixels: another kind of job needs the memory. */
export function letGo(): void {
  inHand = null;
}

async function pictureOf(job: LookJob | PointsJob): Promise<RawPicture> {
  const { path, facts, crop, turning, frame, background, width, height } = job;
  const { gamut } = job.settings;
  const of = JSON.stringify([facts.hash, crop, turning, frame, background, width, height, gamut]);
  if (inHand?.of === of) return inHand.picture;
  inHand = null;
  await checkOriginal(path, facts);
  const picture = await resized(await decodeCrop(path, facts, crop, { ...job, gamut }), width, height);
  inHand = { of, picture };
  return picture;
}

/**
 * The file that is looked at, as it would be stored; without a format the picture itself, as a PNG.
 * @throws Error where the original is not what it was, or can't be decoded
 */
export async function look(job: LookJob): Promise<Encoded> {
  const { format, settings } = job;
  if (job.moving && format !== null) {
    await checkOriginal(job.path, job.facts);
    return encodeAnimation(job, { ...job, format });
  }
  const picture = await pictureOf(job);
  // Made to be looked at once on this machine: fast goes before small.
  if (format === null) {
    const file = await (await inputIn(picture, settings.gamut)).png({ compressionLevel: 1 }).toBuffer();
    return { file, quality: null, difference: 0, encodes: 1 };
  }
  return new SizedPicture(picture, settings.gamut).encode({ format, settings });
}

/**
 * What a size of a crop could be had for in one format.
 * @throws Error where the original is not what it was, or can't be decoded
 */
export async function pointsOf(job: PointsJob): Promise<Attempt[]> {
  return new SizedPicture(await pictureOf(job), job.settings.gamut).points(job.format, job.density);
}
