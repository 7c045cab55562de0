// Makes variants: one decode of a crop serves all its sizes, one resize serves all formats of a size.
import { createHash } from 'node:crypto';
import type { EncoderSettings, OutputFormat } from '@dusky-otter/core';
import type { Sharp } from 'sharp';
import { hashOfFile, writeWhole } from '../vault/vault.ts';
import type { MadeVariant, RenderJob, RenderOutput } from './protocol.ts';
import { decodeCrop, fromRaw, openFile, type RawPicture } from './source.ts';

/** Encodes with a variant's settings; nothing but pixels goes into the file. */
export function encode(picture: Sharp, format: OutputFormat, settings: EncoderSettings): Promise<Buffer> {
  const { quality, effort, lossless = false } = settings;
  switch (format) {
    case 'avif':
      return picture
        .avif({ ...(quality && { quality }), ...(effort !== undefined && { effort }), lossless })
        .toBuffer();
    case 'webp':
      return picture
        .webp({ ...(quality && { quality }), ...(effort !== undefined && { effort }), lossless })
        .toBuffer();
    case 'jpeg':
      return picture
        .jpeg({ ...(quality && { quality }), progressive: settings.progressive ?? true })
        .toBuffer();
    case 'png':
      return picture.png({ compressionLevel: effort ?? 7 }).toBuffer();
    case 'gif':
      return picture.gif({ ...(effort !== undefined && { effort }) }).toBuffer();
  }
}

async function resized(source: RawPicture, width: number, height: number): Promise<RawPicture> {
  if (source.width === width && source.height === height) return source;
  const { data, info } = await fromRaw(source)
    .resize(width, height, { fit: 'fill' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}

async function encodeAnimation(job: RenderJob, output: RenderOutput): Promise<Buffer> {
  const { x, y, width, height } = job.crop;
  const frames = await openFile(job.path, false, true);
  const picture = frames
    .extract({ left: x, top: y, width, height })
    .resize(output.width, output.height, { fit: 'fill' });
  return encode(picture, output.format, output.settings);
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
  let current: RawPicture | null = null;
  for (const output of job.outputs) {
    if (shouldStop()) return;
    let bytes: Buffer;
    if (source) {
      if (current?.width !== output.width || current.height !== output.height) {
        current = await resized(source, output.width, output.height);
      }
      bytes = await encode(fromRaw(current), output.format, output.settings);
    } else {
      bytes = await encodeAnimation(job, output);
    }
    await writeWhole(output.path, job.incoming, bytes);
    const contentHash = createHash('sha256').update(bytes).digest('hex');
    made({ key: output.key, bytes: bytes.length, contentHash });
  }
}
