// Drawings: what they lose when they are cleaned, whether they may go out as drawings, and the files that do.
import { readFile } from 'node:fs/promises';
import type { DrawingFacts, OriginalFacts, Rect, Size, Turning } from '@dusky-otter/core/contract';
import { PHONE } from '@dusky-otter/core/slots';
import sharp from 'sharp';
import { RefusedError } from '../problems.ts';
import { fromRaw, type RawPicture } from './raw.ts';
import type { CleanDrawing } from './svg.ts';

const BROKEN_DRAWING =
  'May be damaged: the drawing is no well-formed XML, and a part of it may be missing. Look at it closely, or export it again.';

/** What a browser may pay for a drawing, in ms of `drawingCost`: of five on a page each is drawn in a fifth of a second. */
const DEAREST = 150;
/** What a pixel of an embedded picture adds: it is decoded. */
const EMBEDDED_PIXEL = 1e-5;
/** Processor time in s for a view, above which a drawing is taken for dear whatever was counted: large areas painted over. */
const SLOWEST = 1.5;

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

const EMBEDDED = /(?:href|src)=["']data:image\/[a-z+-]{2,10};base64,([^"']*)["']/gi;

/** Pixels of all pictures that lie inside a drawing, as their headers say. */
async function embeddedPixels(svg: string): Promise<number> {
  let pixels = 0;
  for (const [, data] of svg.matchAll(EMBEDDED)) {
    const size = await sharp(Buffer.from(data!, 'base64'), { limitInputPixels: false })
      .metadata()
      .catch(() => ({ width: 0, height: 0 }));
    pixels += size.width * size.height;
  }
  return pixels;
}

/** @throws RefusedError for a drawing that holds pictures with more pixels than one may have */
export async function checkEmbedded(path: string, limit: number): Promise<void> {
  const { cleanSvg } = await cleaner();
  const pixels = await embeddedPixels(cleanSvg(await readFile(path, 'utf8')).svg);
  if (pixels > limit)
    throw new RefusedError(
      'too-many-pixels',
      `The pictures inside the drawing have ${Math.round(pixels / 1e6)} megapixels; up to ${Math.round(limit / 1e6)} can be taken in. Embed them smaller and add it again.`,
    );
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
 * @param seconds processor time that drawing it took
 */
export async function drawingFacts(
  path: string,
  view: RawPicture,
  seconds: number,
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
        : clean.cost + EMBEDDED_PIXEL * (await embeddedPixels(svg)) > DEAREST || seconds > SLOWEST
          ? 'it would hold up the browsers of visitors while they draw it'
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
