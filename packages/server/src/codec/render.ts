// Makes variants: one decode of a crop serves all its sizes, one resize serves all formats of a size.
import { createHash } from 'node:crypto';
import { writeWhole } from '../vault/vault.ts';
import { encodeAnimation } from './animation.ts';
import { drawingFile } from './drawing.ts';
import type { Gamut } from './gamut.ts';
import { isBitmap, type BitmapOutput, type MadeVariant, type RenderJob } from './protocol.ts';
import { SizedPicture, type Encoded } from './search.ts';
import type { RawPicture } from './raw.ts';
import { checkOriginal, decodeCrop, resized } from './source.ts';

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
  const sources = new Map<Gamut, RawPicture>();
  const sizes = new Map<Gamut, SizedPicture>();
  const sized = async ({ width, height, settings: { gamut } }: BitmapOutput): Promise<SizedPicture> => {
    const current = sizes.get(gamut);
    if (current?.hasSize(width, height)) return current;
    const source = sources.get(gamut) ?? (await decodeCrop(job.path, job.facts, job.crop, { ...job, gamut }));
    sources.set(gamut, source);
    const next = new SizedPicture(await resized(source, width, height), gamut);
    sizes.set(gamut, next);
    return next;
  };
  for (const output of job.outputs) {
    if (shouldStop()) return;
    making(output.key);
    const { key } = output;
    let encoded: Encoded;
    if (!isBitmap(output)) {
      const file = await drawingFile(job.path, job.facts, job, output);
      encoded = { file, quality: null, difference: 0, encodes: 1 };
    } else if (animated) {
      encoded = await encodeAnimation(job, output);
    } else {
      // A thorough search has its time for each encode, not for all of them.
      const alive = output.settings.thorough ? () => making(key) : undefined;
      encoded = await (await sized(output)).encode(output, alive);
    }
    const { file, quality, difference, encodes } = encoded;
    await writeWhole(output.path, job.incoming, file);
    const contentHash = createHash('sha256').update(file).digest('hex');
    made({ key, bytes: file.length, contentHash, quality, difference, encodes });
  }
}
