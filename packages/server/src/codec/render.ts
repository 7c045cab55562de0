// Makes variants: one decode of a crop serves all its sizes, one resize serves all formats of a size.
import { createHash } from 'node:crypto';
import { writeWhole } from '../vault/vault.ts';
import { isTurned } from '@dusky-otter/core';
import sharp, { type Sharp } from 'sharp';
import { encode } from './encode.ts';
import { drawingFile } from './drawing.ts';
import {
  isBitmap,
  type BitmapOutput,
  type MadeVariant,
  type RenderJob,
  type RenderOutput,
} from './protocol.ts';
import { SizedPicture, type Encoded } from './search.ts';
import { fromRaw, rawOf, type RawPicture } from './raw.ts';
import { checkOriginal, decodeCrop, framed, openFile, openingOf, resized } from './source.ts';

/** How frames follow each other: ms each stands, and how often all are shown (0: for ever). */
interface Motion {
  delay: number[];
  loop: number;
}

/** All frames of a crop at the output's size. Frames that are stored lying are turned one by one: no decoder turns them together. */
async function animationOf(
  { path, facts, crop, turning }: RenderJob,
  { width, height }: RenderOutput,
): Promise<{ picture: Sharp; motion: Motion }> {
  const region = { left: crop.x, top: crop.y, width: crop.width, height: crop.height };
  const opening = openingOf(facts);
  const whole = await openFile(path, { ...opening, animated: true });
  const { delay = [], loop = 0 } = await whole.metadata();
  const motion = { delay, loop };
  if (facts.orientation === 1 && !isTurned(turning))
    return { picture: whole.extract(region).resize(width, height, { fit: 'fill' }), motion };
  const frames: Buffer[] = [];
  for (let frame = 0; frame < facts.frames; frame++) {
    const upright = (await openFile(path, { ...opening, frame })).autoOrient();
    const turned = fromRaw(await framed(await rawOf(upright), turning));
    const cut = turned.extract(region).resize(width, height, { fit: 'fill' });
    frames.push(await cut.png({ compressionLevel: 1 }).toBuffer());
  }
  return { picture: sharp(frames, { join: { animated: true } }), motion };
}

async function encodeAnimation(job: RenderJob, output: BitmapOutput): Promise<Encoded> {
  const { picture, motion } = await animationOf(job, output);
  const { format, settings } = output;
  const file = await encode(picture, format, { ...settings, ...motion });
  return { file, quality: settings.quality ?? null, difference: null, encodes: 1 };
}

export interface RenderHearer {
  /** An output is begun. */
  making: (key: string) => void;
  made: (variant: MadeVariant) => void;
  /** Asked between outputs; true leaves the rest for another time. */
  shouldStop: () => boolean;
}

/**
 * Makes the outputs of a job one after the other, sizes together, and tells of each.
 * @throws Error when the original is not what it was, or can't be decoded.
 */
export async function render(job: RenderJob, { making, made, shouldStop }: RenderHearer): Promise<void> {
  await checkOriginal(job.path, job.facts);
  const animated = job.facts.frames > 1 && !job.still;
  let source: RawPicture | null = null;
  let current: SizedPicture | null = null;
  for (const output of job.outputs) {
    if (shouldStop()) return;
    making(output.key);
    const { key, width, height } = output;
    let encoded: Encoded;
    if (!isBitmap(output)) {
      const file = await drawingFile(job.path, job.facts, job, output);
      encoded = { file, quality: null, difference: 0, encodes: 1 };
    } else if (animated) {
      encoded = await encodeAnimation(job, output);
    } else {
      source ??= await decodeCrop(job.path, job.facts, job.crop, job);
      if (!current?.hasSize(width, height)) current = new SizedPicture(await resized(source, width, height));
      // A thorough search has its time for each encode, not for all of them.
      const alive = output.settings.thorough ? () => making(key) : undefined;
      encoded = await current.encode(output, alive);
    }
    const { file, quality, difference, encodes } = encoded;
    await writeWhole(output.path, job.incoming, file);
    const contentHash = createHash('sha256').update(file).digest('hex');
    made({ key, bytes: file.length, contentHash, quality, difference, encodes });
  }
}
