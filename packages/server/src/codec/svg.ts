// SVG may carry scripts and links to elsewhere; it is only ever drawn from a cleaned copy.
import createDOMPurify from 'dompurify';
import { JSDOM } from 'jsdom';
import { RefusedError } from '../problems.ts';

let purify: ReturnType<typeof createDOMPurify> | null = null;

/** References inside the drawing stay; everything that points outside goes. */
function makePurify(): ReturnType<typeof createDOMPurify> {
  const made = createDOMPurify(new JSDOM('').window);
  made.addHook('uponSanitizeAttribute', (_node, attribute) => {
    const { attrName, attrValue } = attribute;
    const pointsOut = /href$/i.test(attrName) && !attrValue.trim().startsWith('#');
    if (pointsOut || /url\(\s*['"]?(?!\s*['"]?#)/i.test(attrValue)) attribute.keepAttr = false;
  });
  made.addHook('uponSanitizeElement', (node, { tagName }) => {
    if (tagName !== 'style' || node.textContent === null) return;
    // Drawing programs colour by style sheets: the rules stay, what they would fetch goes.
    node.textContent = node.textContent
      .replace(/@import[^;]*;?/gi, '')
      .replace(/url\((?!\s*['"]?#)[^)]*\)/gi, 'none');
  });
  return made;
}

/**
 * The drawing without scripts, event handlers, foreign content and references to other files.
 * @throws RefusedError when nothing drawable is left.
 */
export function cleanSvg(source: string): string {
  purify ??= makePurify();
  const clean = purify.sanitize(source, {
    USE_PROFILES: { svg: true, svgFilters: true },
    // Pictures from elsewhere would be fetched when drawn.
    ADD_TAGS: ['use'],
    FORBID_TAGS: ['image', 'feImage', 'a'],
    PARSER_MEDIA_TYPE: 'image/svg+xml',
  });
  if (!/<svg[\s>]/i.test(clean)) throw new RefusedError('damaged');
  return /\sxmlns=/.test(clean) ? clean : clean.replace(/<svg/i, '<svg xmlns="http://www.w3.org/2000/svg"');
}
