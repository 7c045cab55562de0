// SVG may carry scripts and links to elsewhere; it is only ever drawn from a cleaned copy.
import createDOMPurify from 'dompurify';
import { JSDOM } from 'jsdom';
import { RefusedError } from '../problems.ts';

/** A vector drawing has no pixels of its own: it counts as a picture with this long side. */
export const SVG_LONG_SIDE = 3200;

let purify: ReturnType<typeof createDOMPurify> | null = null;

/**
 * The drawing without scripts, event handlers, foreign content and references to other files.
 * @throws RefusedError when nothing drawable is left.
 */
export function cleanSvg(source: string): string {
  purify ??= createDOMPurify(new JSDOM('').window);
  const clean = purify.sanitize(source, {
    USE_PROFILES: { svg: true, svgFilters: true },
    // Pictures and stylesheets from elsewhere would be fetched when drawn; same-file references stay.
    FORBID_TAGS: ['image', 'feImage', 'style', 'a'],
    ALLOWED_URI_REGEXP: /^#/,
    PARSER_MEDIA_TYPE: 'image/svg+xml',
  });
  if (!/<svg[\s>]/i.test(clean)) throw new RefusedError('damaged');
  return /\sxmlns=/.test(clean) ? clean : clean.replace(/<svg/i, '<svg xmlns="http://www.w3.org/2000/svg"');
}
