// Looks at a file that has just arrived: is it a whole picture, what is known of it, how do screens show it.
import { open, readFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import type { InputFormat, OriginalFacts, PictureContent, Size } from '@dusky-otter/core/contract';
import { guessFocalPoint } from '@dusky-otter/core/saliency';
import { contentOf, losesColours } from '@dusky-otter/core/weight';
import type { Metadata, Sharp } from 'sharp';
import { RefusedError, sentenceOfDisk } from '../problems.ts';
import { writeWhole } from '../vault/vault.ts';
import { checkEmbedded, drawingFacts } from './drawing.ts';
import { findWords } from './found-words.ts';
import type { Inspected, InspectJob, ViewHashes, ViewPaths, ViewsJob } from './protocol.ts';
import { DISPLAY_P3, usesWide } from './gamut.ts';
import { sniff } from './sniff.ts';
import { complaintOf } from './soundness/soundness.ts';
import { MOSTLY, type Complaint } from './soundness/complaint.ts';
import { fromRaw, rawOf, type RawPicture } from './raw.ts';
import { drawingSize, isMoving, openFile, openingOf, type Opening } from './source.ts';

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
async function decodeView(source: Sharp, format: InputFormat): Promise<RawPicture> {
  const upright = format === 'svg' ? fromRaw(await rawOf(source)) : source.autoOrient();
  return rawOf(
    upright.resize(BENCH_VIEW, BENCH_VIEW, { fit: 'inside', withoutEnlargement: true }).toColourspace('srgb'),
  );
}

/** The size at which a drawing is looked at: it is drawn that large, not larger and scaled down. */
function viewSize({ width, height }: Size): Size {
  const scale = Math.min(1, BENCH_VIEW / Math.max(width, height));
  return {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
  };
}

/** Long side in px at which the first guess of a focal point looks for the subject. */
const GUESS_SIDE = 200;

/** A first guess of the focal point, and what draws the eye, as fractions. */
async function attentionOf(view: RawPicture): Promise<OriginalFacts['attention']> {
  const small = await rawOf(
    fromRaw(view).resize(GUESS_SIDE, GUESS_SIDE, { fit: 'inside', withoutEnlargement: true }),
  );
  return guessFocalPoint(small);
}

/** Long side in px of the sample that colours are counted in: every so many pixels, none mixed. */
const CONTENT_SIDE = 1600;

async function measureContent(
  path: string,
  opening: Opening,
  view: RawPicture,
): Promise<PictureContent | null> {
  if (losesColours(opening.format)) return null;
  // A drawing has no pixels of its own: the view is one it was drawn in.
  if (opening.format === 'svg') return contentOf(view);
  const source = await openFile(path, opening);
  return contentOf(
    await rawOf(
      source
        .resize(CONTENT_SIDE, CONTENT_SIDE, { fit: 'inside', withoutEnlargement: true, kernel: 'nearest' })
        .toColourspace('srgb'),
    ),
  );
}

async function writeViews(paths: ViewPaths, incoming: string, view: RawPicture): Promise<ViewHashes> {
  const encode = { quality: 80, effort: 1 } as const;
  const bench = await fromRaw(view).webp(encode).toBuffer();
  const row = await fromRaw(view)
    .resize(ROW_VIEW, ROW_VIEW, { fit: 'inside', withoutEnlargement: true })
    .webp(encode)
    .toBuffer();
  await writeWhole(paths.bench, incoming, bench);
  await writeWhole(paths.row, incoming, row);
  const [benchHash, rowHash] = [bench, row].map((file) => createHash('sha256').update(file).digest('hex'));
  return { bench: benchHash!, row: rowHash! };
}

/** Makes the views of an original anew. */
export async function makeViews(job: ViewsJob): Promise<ViewHashes> {
  const source = await openFile(job.path, openingOf(job.facts));
  return writeViews(job.views, job.incoming, await decodeView(source, job.facts.format));
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

const inMillions = (pixels: number): string =>
  (pixels / 1e6).toLocaleString('en-GB', { maximumFractionDigits: pixels < 1e7 ? 1 : 0 });

/** @throws RefusedError where a picture, or all frames of an animation together, have too many pixels */
function checkPixels(size: Size, frames: number, limit: number): void {
  const pixels = size.width * size.height;
  if (pixels > limit) {
    throw new RefusedError(
      'too-many-pixels',
      `The picture has ${inMillions(pixels)} megapixels (${size.width} × ${size.height}); up to ${inMillions(limit)} can be taken in. Export it smaller and add it again.`,
    );
  }
  if (pixels * frames > limit) {
    throw new RefusedError(
      'too-many-pixels',
      `The animation has ${frames} frames of ${inMillions(pixels)} megapixels; up to ${inMillions(limit)} in all frames together can be taken in. Export fewer or smaller frames and add it again.`,
    );
  }
}

interface Opened {
  opening: Opening;
  meta: Metadata;
  size: Size;
  view: RawPicture;
  /** Processor time that it took to be decoded, or drawn. */
  seconds: number;
  /** It has colours that sRGB can't show. */
  wide: boolean;
  complaint: Complaint | null;
  aside: string | null;
}

const PRESENT = { heic: 'pictures', tiff: 'pages' } as const;

/** What of a sound file is left out, or looks otherwise than it was meant. */
function asideOf(
  format: InputFormat,
  { pictures, hdr, inks }: { pictures: number; hdr: boolean; inks: boolean },
): string | null {
  const sentences = [
    (format === 'heic' || format === 'tiff') &&
      pictures > 1 &&
      `The file holds ${pictures} ${PRESENT[format]}; ${format === 'heic' ? 'its main one' : 'the first'} is used. Export the others one by one if they are wanted.`,
    inks &&
      'Made of four inks (CMYK), without a profile that says which: its colours are a guess. Export it as sRGB where it was made if they look wrong.',
    hdr &&
      'Its brightness is made for HDR screens and may look pale here. Export it as JPEG where it does, and put that in its place.',
  ];
  return sentences.filter(Boolean).join(' ') || null;
}

async function openAndDecode(
  job: InspectJob,
  format: InputFormat,
  complaint: Complaint | null,
): Promise<Opened> {
  const isSvg = format === 'svg';
  const opening: Opening = { format, lenient: complaint !== null };
  // Loaded only for phones' photos: a decoder of two megabytes. Its header comes first, for its pixels are made at once.
  const heic = format === 'heic' ? await (await import('./heic.ts')).heicHeader(job.path) : null;
  if (heic) checkPixels(heic, 1, job.limitPixels);
  if (isSvg) await checkEmbedded(job.path, job.limitPixels);
  // Animations are counted from the header; their frames are decoded when they are made.
  const whole = await openFile(job.path, { ...opening, animated: true });
  const meta = await whole.metadata();
  const size = isSvg ? drawingSize(meta) : uprightSize(meta);
  if (!isSvg) checkPixels(size, isMoving(format) ? (meta.pages ?? 1) : 1, job.limitPixels);
  const sized = { ...opening, ...(isSvg && { size }) };
  // What was decoded to be opened is not decoded again.
  const again = heic ? whole.clone() : null;
  const from = process.cpuUsage();
  const drawn = isSvg ? { ...sized, size: viewSize(size) } : sized;
  const view = await decodeView(heic ? whole : await openFile(job.path, drawn), format);
  const { user, system } = process.cpuUsage(from);
  const wide =
    profileName(meta.icc) === DISPLAY_P3 && (await usesWide(again ?? (await openFile(job.path, sized))));
  const aside = asideOf(format, {
    pictures: heic?.pictures ?? meta.pages ?? 1,
    hdr: heic?.hdr ?? false,
    inks: meta.space === 'cmyk' && meta.icc === undefined,
  });
  return { opening: sized, meta, size, view, seconds: (user + system) / 1e6, wide, complaint, aside };
}

/**
 * Decodes strictly; where a decoder or the file's own structure complains, but most of the picture is there, once more
 * leniently. See docs/methods/damaged-files.md for what each format does.
 */
async function decodedOf(job: InspectJob, format: InputFormat): Promise<Opened> {
  let refused: unknown = null;
  const strict = await openAndDecode(job, format, null).catch((error: unknown) => {
    if (error instanceof RefusedError || sentenceOfDisk(error)) throw error;
    refused = error;
    return null;
  });
  const complaint = await complaintOf(job.path, format, strict !== null);
  if (strict && !complaint) return strict;
  if (!complaint || complaint.share < MOSTLY) throw new RefusedError('damaged', undefined, refused);
  if (strict) return { ...strict, complaint, opening: { ...strict.opening, lenient: true } };
  return openAndDecode(job, format, complaint).catch((error: unknown) => {
    throw error instanceof RefusedError ? error : new RefusedError('damaged', undefined, error);
  });
}

const damageOf = ({ complaint }: Opened): string | null =>
  complaint &&
  `May be damaged: ${complaint.sentence}${complaint.share < 1 ? `, about ${Math.max(1, Math.round((1 - complaint.share) * 100))} % of the picture is missing` : ''}. Look at it closely, or copy it from the camera again.`;

/**
 * Inspects a received file and writes its views.
 * @param isDrawing is told when it is one: those may take less time than others
 * @throws RefusedError with the reason when it can't be taken in.
 */
export async function inspect(job: InspectJob, isDrawing: () => void = () => undefined): Promise<Inspected> {
  const format = sniff(await headOf(job.path));
  if (format === 'svg') isDrawing();
  const opened = await decodedOf(job, format);
  const { opening, meta, size, view, seconds } = opened;
  const isSvg = format === 'svg';
  const words = await findWords(await readFile(job.path));
  const views = await writeViews(job.views, job.incoming, view);
  const facts: OriginalFacts = {
    hash: job.hash,
    bytes: job.bytes,
    format,
    ...size,
    orientation: isSvg ? 1 : (meta.orientation ?? 1),
    profile: profileName(meta.icc),
    frames: isMoving(format) ? (meta.pages ?? 1) : 1,
    transparent: await isTransparent(view),
    colour: await meanColour(view),
    attention: await attentionOf(view),
    content: await measureContent(job.path, opening, view),
    ...(isSvg ? await drawingFacts(job.path, view, seconds) : { damage: damageOf(opened) }),
    ...(opened.aside && { aside: opened.aside }),
    ...(opened.wide && { wide: true as const }),
    ...words,
  };
  return { facts, views };
}
