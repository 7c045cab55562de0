// Drawings: what they lose when they are cleaned, whether they may go out as drawings, and the files that do.
import { readFile } from 'node:fs/promises';
import {
  PHONE,
  type DrawingFacts,
  type OriginalFacts,
  type Rect,
  type Size,
  type Turning,
} from '@dusky-otter/core';
import sharp from 'sharp';
import { fromRaw, type RawPicture } from './raw.ts';
import type { CleanDrawing } from './svg.ts';

const BROKEN_DRAWING =
  'May be damaged: the drawing is no well-formed XML, and a part of it may be missing. Look at it closely, or export it again.';

/** The cleaner brings a whole document model along: it is loaded only where there is a drawing. */
const cleaner = () => import('./svg.ts');

/** Whether the drawing can be read as it is, too: cleaning mends some faults, and what stood there may be lost. */
async function isDrawable(source: Buffer): Promise<boolean> {
  // Entities of its own are the cleaner's business: spelled out they can be of any length.
  if (source.includes('<!ENTITY')) return true;
  return sharp(source, { failOn: 'warning', limitInputPixels: false })
    .metadata()
    .then(
      () => true,
      () => false,
    );
}

/** What a drawing lost while it was cleaned, as a sentence, or null. */
async function lossOf(source: Buffer, { leftOut, wellFormed }: CleanDrawing): Promise<string | null> {
  if (!wellFormed || !(await isDrawable(source))) return BROKEN_DRAWING;
  if (leftOut === 0) return null;
  return `The drawing shows ${leftOut === 1 ? 'a picture that lies' : `${leftOut} pictures that lie`} in another file, which is left out. Embed it in the drawing and add it again.`;
}

/** Bytes of the smaller of what is sent of flat and of painted pictures, at the width of a phone's screen. */
async function bitmapBytes(view: RawPicture): Promise<number> {
  const width = PHONE.viewport * PHONE.density;
  const small = () => fromRaw(view).resize({ width, withoutEnlargement: true });
  const files = [small().webp({ lossless: true, effort: 4 }), small().avif({ quality: 60, effort: 1 })];
  const sizes = await Promise.all(files.map(async (file) => (await file.toBuffer()).length));
  return Math.min(...sizes);
}

/**
 * What is said against a drawing, and what it would be if it went out as one.
 * @param view as screens show it
 */
export async function drawingFacts(
  path: string,
  view: RawPicture,
): Promise<Pick<OriginalFacts, 'damage'> & { drawing: DrawingFacts }> {
  const { cleanSvg, isSound } = await cleaner();
  const source = await readFile(path);
  const clean = cleanSvg(source.toString());
  const { svg } = clean;
  const damage = await lossOf(source, clean);
  const unsafe =
    damage !== null
      ? 'a part of it may be missing'
      : // A drawing in an <img> can load no fonts: each machine would set the words in what it has.
        /<(?:text|tspan|textPath)\b/i.test(svg)
        ? 'its words would be set in another font on other machines'
        : isSound(svg)
          ? null
          : 'it can’t be written as one that every browser reads';
  return { damage, drawing: { bytes: Buffer.byteLength(svg), bitmap: await bitmapBytes(view), unsafe } };
}

/** The file of a drawing that goes out as one: cleaned, cut and turned as its frame says. */
export async function drawingFile(
  path: string,
  own: Pick<OriginalFacts, 'width' | 'height'>,
  frame: { turning: Turning; crop: Rect },
  size: Size,
): Promise<Buffer> {
  const { cleanSvg, framedSvg } = await cleaner();
  const { svg } = cleanSvg(await readFile(path, 'utf8'));
  const natural = await sharp(Buffer.from(svg), { limitInputPixels: false }).metadata();
  return Buffer.from(framedSvg(svg, { natural, own }, frame, size));
}
