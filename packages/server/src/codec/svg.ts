// SVG may carry scripts and links to elsewhere; it is only ever drawn from a cleaned copy.
import createDOMPurify from 'dompurify';
import { JSDOM } from 'jsdom';
import { SaxesParser } from 'saxes';
import type { Rect, Size, Turning } from '@dusky-otter/core/contract';
import { DRAWING_PROPERTIES, drawingDeclarations, drawingSheet, drawingValue } from '@dusky-otter/core/css';
import { frameSpace, isTurned, turningMatrix } from '@dusky-otter/core/geometry';
import { RefusedError } from '../problems.ts';
import { drawingCost } from './svg-cost.ts';
import { checkDrawing } from './svg-limits.ts';

export interface CleanDrawing {
  svg: string;
  /** Pictures that lie elsewhere and were left out. */
  leftOut: number;
  /** False where a part of it may be missing: what follows a fault is read as well as it can be. */
  wellFormed: boolean;
  /** What browsers pay for it, see `drawingCost`. */
  cost: number;
}

/** What is drawn at all, in ms of `drawingCost`; our own renderer takes about ten times as long for filters. */
const DEAREST = 5_000;

/** Times that a drawing is cleaned before it is given up. */
const ROUNDS = 4;

let purify: ReturnType<typeof createDOMPurify> | null = null;
let leftOut = 0;

/** A picture that the drawing carries inside itself. */
const EMBEDDED = /^data:image\/(?:png|jpe?g|gif|webp);base64,/i;

/** Attributes whose values browsers read as CSS, beside those that are properties. */
const READ_AS_CSS = new Set(['gradienttransform', 'patterntransform', 'from', 'to', 'by', 'values']);
/** What an animation may not move: where something leads, or what a whole element looks like. */
const UNMOVED = /^(?:(?:xlink:)?href|src|style|class|id|on.*)$/i;
/** The beginning of an address, as one that an animation would put into an attribute. */
const SCHEME = /^\s*(?:[a-z][a-z\d+.-]*:|\/\/)/i;

/** References inside the drawing and pictures embedded in it stay; everything that points outside goes. */
function makePurify(): ReturnType<typeof createDOMPurify> {
  const made = createDOMPurify(new JSDOM('').window);
  made.addHook('uponSanitizeAttribute', (node, attribute) => {
    const { attrName, attrValue } = attribute;
    const name = attrName.toLowerCase();
    const isReference = /href$/.test(name);
    const isPicture = node.nodeName.toLowerCase() === 'image';
    if (isReference && isPicture && EMBEDDED.test(attrValue.trim())) {
      attribute.forceKeepAttr = true;
      return;
    }
    const pointsOut = isReference && !attrValue.trim().startsWith('#');
    if (pointsOut && isPicture) leftOut += 1;
    const moves = name === 'attributename' && UNMOVED.test(attrValue.trim());
    if (pointsOut || moves || (READ_AS_CSS.has(name) && SCHEME.test(attrValue))) attribute.keepAttr = false;
    else if (name === 'style') attribute.attrValue = drawingDeclarations(attrValue);
    else if (READ_AS_CSS.has(name) || DRAWING_PROPERTIES.has(name))
      attribute.attrValue = drawingValue(attrValue);
  });
  made.addHook('uponSanitizeElement', (node, { tagName }) => {
    // Drawing programs colour by style sheets: the rules stay, what they would fetch goes.
    if (tagName === 'style' && node.textContent !== null) node.textContent = drawingSheet(node.textContent);
  });
  return made;
}

const purified = (source: string): string => {
  purify ??= makePurify();
  return purify.sanitize(source, {
    USE_PROFILES: { svg: true, svgFilters: true },
    ADD_TAGS: ['use', 'image'],
    // Pictures from elsewhere would be fetched when drawn.
    FORBID_TAGS: ['feImage', 'a'],
    PARSER_MEDIA_TYPE: 'image/svg+xml',
  });
};

/**
 * The drawing without scripts, event handlers, foreign content and references to other files, cleaned until nothing
 * changes.
 * @throws RefusedError when nothing drawable is left, or the drawing asks for too much.
 */
export function cleanSvg(source: string): CleanDrawing {
  // One look at a drawing asks for it several times.
  if (cleaned?.source === source) return cleaned.drawing;
  const drawing = cleanedOf(source);
  cleaned = { source, drawing };
  return drawing;
}

let cleaned: { source: string; drawing: CleanDrawing } | null = null;

function cleanedOf(source: string): CleanDrawing {
  const wellFormed = checkDrawing(source);
  leftOut = 0;
  let clean = purified(source);
  const pointingOut = leftOut;
  for (let round = 0; ; round++) {
    const again = purified(clean);
    if (again === clean) break;
    // What is another thing each time it is read is no drawing.
    if (round === ROUNDS) throw new RefusedError('damaged');
    clean = again;
  }
  if (!/<svg[\s>]/i.test(clean)) throw new RefusedError('damaged');
  const svg = /\sxmlns=/.test(clean)
    ? clean
    : clean.replace(/<svg/i, '<svg xmlns="http://www.w3.org/2000/svg"');
  const cost = drawingCost(svg);
  if (cost > DEAREST)
    throw new RefusedError(
      'too-heavy',
      'The drawing would take minutes to draw: its filters, masks or patterns are used too often. Simplify it, or export it as PNG, and add it again.',
    );
  return { svg, leftOut: pointingOut, wellFormed, cost };
}

/** Whether browsers read a drawing that is a file of its own: they are strict, and show nothing of one with a fault. */
export function isSound(svg: string): boolean {
  const parser = new SaxesParser({ xmlns: true });
  let [sound, root] = [true, ''];
  parser.on('error', () => (sound = false));
  parser.on('opentag', ({ local }) => (root ||= local));
  parser.write(svg).close();
  return sound && root === 'svg';
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
