// Makes variants: one decode of a crop serves all its sizes, one resize serves all formats of a size.
import { createHash } from 'node:crypto';
import { hashOfFile, writeWhole } from '../vault/vault.ts';
import { encode } from './encode.ts';
import type { MadeVariant, RenderJob, RenderOutput } from './protocol.ts';
import { SizedPicture, type Encoded } from './search.ts';
import { decodeCrop, openFile, resized } from './source.ts';

async function encodeAnimation(job: RenderJob, output: RenderOutput): Promise<Encoded> {
  const { x, y, width, height } = job.crop;
  const frames = await openFile(job.path, false, true);
  const picture = frames
    .extract({ left: x, top: y, width, height })
    .resize(output.width, output.height, { fit: 'fill' });
  const { format, settings } = output;
  const file = await encode(picture, format, settings);
  return { file, quality: settings.quality ?? null, difference: null, encodes: 1 };
}

/**
 * Makes the outputs of a job one after the other, sizes together, and tells of each.
 * @param shouldStop asked between outputs; true leaves the rest for another time.
 * @throws Error when the original is not what it was, or can't be decoded.
 */
export async function render(
  job: RenderJob,
  made: (variant: MadeVariant) => void,
  shouldStop: () => boolean,
): Promise<void> {
  if ((await hashOfFile(job.path)) !== job.facts.hash) {
    throw new Error('The original in the vault has changed on disk. Add the photo again from its source.');
  }
  const animated = job.facts.frames > 1;
  const source = animated ? null : await decodeCrop(job.path, job.facts, job.crop);
  let current: SizedPicture | null = null;
  for (const output of job.outputs) {
    if (shouldStop()) return;
    const { key, width, height } = output;
    let encoded: Encoded;
    if (source) {
      if (!current?.hasSize(width, height)) current = new SizedPicture(await resized(source, width, height));
      encoded = await current.encode(output);
    } else {
      encoded = await encodeAnimation(job, output);
    }
    const { file, quality, difference, encodes } = encoded;
    await writeWhole(output.path, job.incoming, file);
    const contentHash = createHash('sha256').update(file).digest('hex');
    made({ key, bytes: file.length, contentHash, quality, difference, encodes });
  }
}
