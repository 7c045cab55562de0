// What kind of picture is it, and what follows from that.
import type { DrawingFacts, OriginalFacts, PictureContent } from '../contract/index.ts';
import { bytesInWords } from './units.ts';

export type PictureKind = 'photograph' | 'flat-graphic' | 'transparent-graphic' | 'animation' | 'drawing';

export interface Treatment {
  kind: PictureKind;
  /** Goes out without any loss. */
  lossless: boolean;
  /** Why, as a sentence for the editor. */
  reason: string;
}

/** A palette holds as many; with fewer colours a picture is flat whatever it shows. */
export const PALETTE = 256;
/** Share of what is not plain ground that few colours must cover; soft edges of letters make up the rest. */
const COVERED = 0.6;
/** Formats whose own loss has left noise in every flat area: nothing is exact in them any more. */
const LOSSY_SOURCES: readonly OriginalFacts['format'][] = ['jpeg', 'avif', 'heic'];

/** Whether files of a format have lost exact colours: counting them tells nothing. */
export const losesColours = (format: OriginalFacts['format']): boolean => LOSSY_SOURCES.includes(format);

const percent = (share: number): string => `${Math.floor(share * 100)} %`;
const inThousands = (count: number): string => String(count).replace(/\B(?=(\d{3})+$)/g, ' ');

/**
 * Few colours and hard edges: 256 colours at most, or 64 colours that cover most of what the ground leaves. A pot
 * on white has a large ground, too, but no few colours cover the pot.
 */
export function isFlat({ colours, commonest, common }: PictureContent): boolean {
  if (colours <= PALETTE) return true;
  const rest = 1 - commonest;
  return rest > 0 && (common - commonest) / rest >= COVERED;
}

type Facts = Pick<OriginalFacts, 'format' | 'frames' | 'transparent' | 'drawing'> & {
  content: PictureContent | null;
};

const isSmaller = ({ bytes, bitmap }: DrawingFacts): boolean => bytes <= bitmap;

/** What becomes of a drawing that goes out as bitmaps, and why: the beginning of a reason. */
function whyBitmap({ drawing }: Facts): string {
  if (!drawing) return '';
  if (drawing.unsafe !== null) return `A drawing, but ${drawing.unsafe}: it goes out as bitmaps. `;
  if (isSmaller(drawing)) return 'A drawing that goes out as bitmaps, as was chosen for it. ';
  return `A drawing of ${bytesInWords(drawing.bytes)}, more than a phone’s bitmap (${bytesInWords(drawing.bitmap)}): it goes out as bitmaps. `;
}

/**
 * The kind of a picture, what becomes of it, and the reason in a sentence.
 * @param asDrawing false where a drawing is to go out as bitmaps whatever it weighs
 */
export function treatmentOf(facts: Facts, asDrawing = true): Treatment {
  const { drawing } = facts;
  if (asDrawing && drawing && drawing.unsafe === null && isSmaller(drawing)) {
    return {
      kind: 'drawing',
      lossless: true,
      reason: `A drawing: it goes out as one, ${bytesInWords(drawing.bytes)} at every size, where a phone’s bitmap alone has ${bytesInWords(drawing.bitmap)}.`,
    };
  }
  const treatment = pixelTreatmentOf(facts);
  return { ...treatment, reason: whyBitmap(facts) + treatment.reason };
}

/** What becomes of pixels. */
function pixelTreatmentOf(facts: Facts): Treatment {
  const { content, frames } = facts;
  if (frames > 1) {
    return {
      kind: 'animation',
      lossless: false,
      reason: `An animation of ${frames} frames: it stays animated, as WebP and GIF.`,
    };
  }
  const exact = content !== null && !losesColours(facts.format) && isFlat(content);
  const counted = content ? inThousands(content.colours) : '';
  const colours =
    content === null
      ? ''
      : content.colours <= PALETTE
        ? `${counted} ${content.colours === 1 ? 'colour' : 'colours'} in all`
        : exact
          ? `64 colours cover ${percent(content.common)} of it`
          : `${counted} colours`;
  if (facts.transparent) {
    return {
      kind: 'transparent-graphic',
      lossless: exact,
      reason: exact
        ? `A graphic with transparency, ${colours}: it stays lossless, as WebP and PNG, so that edges stay clean.`
        : `A picture with transparency${colours && `, ${colours}`}: a PNG stands beside the modern format, for JPEG knows no transparency.`,
    };
  }
  if (exact) {
    return {
      kind: 'flat-graphic',
      lossless: true,
      reason: `A flat graphic, ${colours}: it stays lossless, as WebP and PNG, so that edges stay clean.`,
    };
  }
  const stored = facts.format === 'png' ? ' stored as PNG' : '';
  return {
    kind: 'photograph',
    lossless: false,
    reason: `A photograph${stored}${colours && `, ${colours}`}: small errors hide in it, so a photographic format needs far fewer bytes.`,
  };
}
