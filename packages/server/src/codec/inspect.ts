// Looks at a file that has just arrived: is it a whole picture, what is known of it, how do screens show it.
import { open, readFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import {
  contentOf,
  guessFocalPoint,
  losesColours,
  type InputFormat,
  type OriginalFacts,
  type PictureContent,
  type Size,
} from '@dusky-otter/core';
import type { Metadata } from 'sharp';
import { RefusedError } from '../problems.ts';
import { writeWhole } from '../vault/vault.ts';
import { findWords } from './found-words.ts';
import type { InspectJob } from './protocol.ts';
import { sniff } from './sniff.ts';
import { drawingSize, fromRaw, openFile, rawOf, type RawPicture } from './source.ts';

/** Long side in px of the pictures that screens show. */
const ROW_VIEW = 480;
const BENCH_VIEW = 1600;

async function headOf(path: string): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(4096), 0, 4096, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** Width and height as seen: orientations 5 to 8 lie on their side. */
function uprightSize(meta: Metadata): Size {
  const height = meta.pageHeight ?? meta.height;
  const lying = (meta.orientation ?? 1) >= 5;
  return lying ? { width: height, height: meta.width } : { width: meta.width, height };
}

/** The whole picture decoded once, upright, at most 1600 px: a file that ends too early fails here. */
async function decodeView(job: InspectJob, isSvg: boolean, size: Size): Promise<RawPicture> {
  const source = await openFile(job.path, isSvg, false, isSvg ? size : undefined);
  const upright = isSvg ? fromRaw(await rawOf(source)) : source.autoOrient();
  return rawOf(
    upright.resize(BENCH_VIEW, BENCH_VIEW, { fit: 'inside', withoutEnlargement: true }).toColourspace('srgb'),
  );
}

/** Long side in px at which the first guess of a focal point looks for the subject. */
const GUESS_SIDE = 200;

/** A first guess of the focal point, as fractions. */
async function attentionOf(view: RawPicture): Promise<{ x: number; y: number }> {
  const small = await rawOf(
    fromRaw(view).resize(GUESS_SIDE, GUESS_SIDE, { fit: 'inside', withoutEnlargement: true }),
  );
  return guessFocalPoint(small);
}

/** Long side in px of the sample that colours are counted in: every so many pixels, none mixed. */
const CONTENT_SIDE = 1600;

async function measureContent(
  job: InspectJob,
  format: InputFormat,
  size: Size,
): Promise<PictureContent | null> {
  if (losesColours(format)) return null;
  const source = await openFile(job.path, format === 'svg', false, format === 'svg' ? size : undefined);
  return contentOf(
    await rawOf(
      source
        .resize(CONTENT_SIDE, CONTENT_SIDE, { fit: 'inside', withoutEnlargement: true, kernel: 'nearest' })
        .toColourspace('srgb'),
    ),
  );
}

async function writeViews(job: InspectJob, view: RawPicture): Promise<void> {
  const encode = { quality: 80, effort: 1 } as const;
  await writeWhole(job.views.bench, job.incoming, await fromRaw(view).webp(encode).toBuffer());
  const row = await fromRaw(view)
    .resize(ROW_VIEW, ROW_VIEW, { fit: 'inside', withoutEnlargement: true })
    .webp(encode)
    .toBuffer();
  await writeWhole(job.views.row, job.incoming, row);
}

const hex = (value: number): string => Math.round(value).toString(16).padStart(2, '0');

async function meanColour(view: RawPicture): Promise<string> {
  const { data, info } = await fromRaw(view)
    .flatten({ background: '#ffffff' })
    .resize(1, 1, { fit: 'fill' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const [r, g, b] = info.channels >= 3 ? [data[0]!, data[1]!, data[2]!] : [data[0]!, data[0]!, data[0]!];
  return `#${hex(r)}${hex(g)}${hex(b)}`;
}

const profileName = (icc: Buffer | undefined): string | null => {
  if (!icc) return null;
  // Names stand as ASCII or as UTF-16BE (ICC.1, 10.15 multiLocalizedUnicodeType): dropping the zeros reads both.
  const readable = icc.toString('latin1').replaceAll('\0', '');
  // "sP3C" is how a compact Display P3 profile calls itself.
  const names = {
    'Display P3': /Display P3|sP3C/,
    'Adobe RGB': /Adobe RGB/,
    ProPhoto: /ProPhoto/,
    'Rec. 2020': /Rec\. ?2020/,
    sRGB: /sRGB/,
  };
  const known = Object.entries(names).find(([, pattern]) => pattern.test(readable))?.[0];
  return known ?? `profile ${createHash('sha256').update(icc).digest('hex').slice(0, 6)}`;
};

/** True when some pixel is see-through: an alpha channel that is solid everywhere counts as none. */
async function isTransparent(view: RawPicture): Promise<boolean> {
  if (view.channels !== 4 && view.channels !== 2) return false;
  return !(await fromRaw(view).stats()).isOpaque;
}

/**
 * Inspects a received file and writes its views.
 * @throws RefusedError with the reason when it can't be taken in.
 */
export async function inspect(job: InspectJob): Promise<OriginalFacts> {
  const format = sniff(await headOf(job.path));
  const isSvg = format === 'svg';
  let meta: Metadata;
  let view: RawPicture;
  let size: Size;
  try {
    // Animations are counted from the header; their frames are decoded when they are made.
    meta = await (await openFile(job.path, isSvg, true)).metadata();
    size = isSvg ? drawingSize(meta) : uprightSize(meta);
    const pixels = size.width * size.height;
    if (!isSvg && pixels > job.limitPixels) {
      const [has, may] = [pixels, job.limitPixels].map((n) => Math.round(n / 1e6));
      throw new RefusedError(
        'too-many-pixels',
        `The picture has ${has} megapixels (${size.width} × ${size.height}); up to ${may} can be taken in. Export it smaller and add it again.`,
      );
    }
    view = await decodeView(job, isSvg, size);
  } catch (error) {
    if (error instanceof RefusedError) throw error;
    throw new RefusedError('damaged');
  }
  const words = await findWords(await readFile(job.path));
  await writeViews(job, view);
  return {
    hash: job.hash,
    bytes: job.bytes,
    format,
    ...size,
    orientation: isSvg ? 1 : (meta.orientation ?? 1),
    profile: profileName(meta.icc),
    frames: format === 'tiff' ? 1 : (meta.pages ?? 1),
    transparent: await isTransparent(view),
    colour: await meanColour(view),
    attention: await attentionOf(view),
    content: await measureContent(job, format, size),
    ...words,
  };
}
