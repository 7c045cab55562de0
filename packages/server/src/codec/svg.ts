// SVG may carry scripts and links to elsewhere; it is only ever drawn from a cleaned copy.
import createDOMPurify from 'dompurify';
import { JSDOM } from 'jsdom';
import { frameSpace, isTurned, turningMatrix, type Rect, type Size, type Turning } from '@dusky-otter/core';
import { RefusedError } from '../problems.ts';
import { checkDrawing } from './svg-limits.ts';

export interface CleanDrawing {
  svg: string;
  /** Pictures that lie elsewhere and were left out. */
  leftOut: number;
  /** False where a part of it may be missing: what follows a fault is read as well as it can be. */
  wellFormed: boolean;
}

let purify: ReturnType<typeof createDOMPurify> | null = null;
let leftOut = 0;

/** A picture that the drawing carries inside itself. */
const EMBEDDED = /^data:image\/(?:png|jpe?g|gif|webp);base64,/i;

/** True for `url(…)` that is not of the drawing itself. */
const fetches = (value: string): boolean =>
  [...value.matchAll(/url\(([^)]{0,200})/gi)].some(([, inside]) => !/^\s?['"]?#/.test(inside!));

/** References inside the drawing and pictures embedded in it stay; everything that points outside goes. */
function makePurify(): ReturnType<typeof createDOMPurify> {
  const made = createDOMPurify(new JSDOM('').window);
  made.addHook('uponSanitizeAttribute', (node, attribute) => {
    const { attrName, attrValue } = attribute;
    const isReference = /href$/i.test(attrName);
    const isPicture = node.nodeName.toLowerCase() === 'image';
    if (isReference && isPicture && EMBEDDED.test(attrValue.trim())) {
      attribute.forceKeepAttr = true;
      return;
    }
    const pointsOut = isReference && !attrValue.trim().startsWith('#');
    if (pointsOut && isPicture) leftOut += 1;
    if (pointsOut || fetches(attrValue)) attribute.keepAttr = false;
  });
  made.addHook('uponSanitizeElement', (node, { tagName }) => {
    if (tagName !== 'style' || node.textContent === null) return;
    // Drawing programs colour by style sheets: the rules stay, what they would fetch goes.
    node.textContent = node.textContent
      .replace(/@import[^;]{0,500};?/gi, '')
      .replace(/url\(([^)]{0,500})\)/gi, (whole, inside: string) =>
        /^\s?['"]?#/.test(inside) ? whole : 'none',
      );
  });
  return made;
}

/**
 * The drawing without scripts, event handlers, foreign content and references to other files.
 * @throws RefusedError when nothing drawable is left, or the drawing asks for too much.
 */
export function cleanSvg(source: string): CleanDrawing {
  const wellFormed = checkDrawing(source);
  purify ??= makePurify();
  leftOut = 0;
  const clean = purify.sanitize(source, {
    USE_PROFILES: { svg: true, svgFilters: true },
    ADD_TAGS: ['use', 'image'],
    // Pictures from elsewhere would be fetched when drawn.
    FORBID_TAGS: ['feImage', 'a'],
    PARSER_MEDIA_TYPE: 'image/svg+xml',
  });
  if (!/<svg[\s>]/i.test(clean)) throw new RefusedError('damaged');
  const svg = /\sxmlns=/.test(clean)
    ? clean
    : clean.replace(/<svg/i, '<svg xmlns="http://www.w3.org/2000/svg"');
  return { svg, leftOut, wellFormed };
}

/** Whether browsers read a drawing that is a file of its own: they are strict, and show nothing of one with a fault. */
export function isSound(svg: string): boolean {
  try {
    return (
      new JSDOM(svg, { contentType: 'image/svg+xml' }).window.document.documentElement.localName === 'svg'
    );
  } catch {
    return false;
  }
}

/** The cleaned drawing, told to be drawn at a size in px. Without a `viewBox` it gets one of its natural size. */
export function sizedSvg(svg: string, natural: Size, size: Size): string {
  // What was cleaned is well-formed: no attribute holds a bare ">".
  return svg.replace(/<svg\b[^>]*>/i, (root) => {
    const bare = root.replace(/\s(?:width|height|preserveAspectRatio)\s?=\s?(?:"[^"]*"|'[^']*')/gi, '');
    const box = /\sviewBox\s?=/i.test(bare) ? '' : ` viewBox="0 0 ${natural.width} ${natural.height}"`;
    return `${bare.slice(0, 4)} width="${size.width}" height="${size.height}" preserveAspectRatio="none"${box}${bare.slice(4)}`;
  });
}

const number = (value: number): string => String(Math.round(value * 1e6) / 1e6);

/**
 * The cleaned drawing as its frame shows it, told to be drawn at a size in px.
 * @param own the size that its own space counts with, see `drawingSize`
 * @param crop in the space of the crops
 */
export function framedSvg(
  svg: string,
  { natural, own }: { natural: Size; own: Size },
  { turning, crop }: { turning: Turning; crop: Rect },
  size: Size,
): string {
  const space = frameSpace(own, turning);
  const isWhole = crop.width === space.width && crop.height === space.height;
  if (isWhole && !isTurned(turning)) return sizedSvg(svg, natural, size);
  const matrix = turningMatrix(own, turning).map(number).join(' ');
  const box = [crop.x, crop.y, crop.width, crop.height].join(' ');
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="${box}" preserveAspectRatio="none">` +
    `<g transform="matrix(${matrix})">${sizedSvg(svg, natural, own)}</g></svg>`
  );
}
