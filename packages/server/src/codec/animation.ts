// Files that move: all frames of a crop, or every so manieth of them.
import type { BitmapFormat } from '@dusky-otter/core/contract';
import { isTurned } from '@dusky-otter/core/geometry';
import sharp, { type Sharp } from 'sharp';
import { encode } from './encode.ts';
import type { RenderJob, RenderOutput } from './protocol.ts';
import { fromRaw, rawOf } from './raw.ts';
import type { Encoded } from './search.ts';
import { framed, openFile, openingOf } from './source.ts';

/** What moves, and the size that it is wanted in. */
type Moving = Pick<RenderJob, 'path' | 'facts' | 'crop' | 'turning'>;
type Sized = Pick<RenderOutput, 'width' | 'height' | 'settings'>;

/** How frames follow each other: ms each stands, and how often all are shown (0: for ever). */
interface Motion {
  delay: number[];
  loop: number;
}

/** All frames of a crop at the output's size. Frames that are stored lying are turned one by one: no decoder turns them together. */
async function animationOf(
  { path, facts, crop, turning }: Moving,
  { width, height, settings: { every = 1 } }: Sized,
): Promise<{ picture: Sharp; motion: Motion }> {
  const region = { left: crop.x, top: crop.y, width: crop.width, height: crop.height };
  const opening = openingOf(facts);
  const whole = await openFile(path, { ...opening, animated: true });
  const { delay = [], loop = 0 } = await whole.metadata();
  // A frame that stands for others stands as long as they did.
  const kept = Array.from({ length: Math.ceil(facts.frames / every) }, (_, n) => n * every);
  const delays = kept.map((from) => delay.slice(from, from + every).reduce((sum, one) => sum + one, 0));
  const motion = { delay: delay.length > 0 ? delays : [], loop };
  if (facts.orientation === 1 && !isTurned(turning) && every === 1)
    return { picture: whole.extract(region).resize(width, height, { fit: 'fill' }), motion };
  const frames: Buffer[] = [];
  for (const frame of kept) {
    const upright = (await openFile(path, { ...opening, frame })).autoOrient();
    const turned = fromRaw(await framed(await rawOf(upright), turning));
    const cut = turned.extract(region).resize(width, height, { fit: 'fill' });
    frames.push(await cut.png({ compressionLevel: 1 }).toBuffer());
  }
  return { picture: sharp(frames, { join: { animated: true } }), motion };
}

export async function encodeAnimation(
  job: Moving,
  output: Sized & { format: BitmapFormat },
): Promise<Encoded> {
  const { picture, motion } = await animationOf(job, output);
  const { format, settings } = output;
  const file = await encode(picture, format, { ...settings, ...motion });
  return { file, quality: settings.quality ?? null, difference: null, encodes: 1 };
}
