// Addresses inside stylesheets and documents: found, and put in place of what they name. For pages that are measured
// without a network: everything they load stands in them afterwards.
import { tokenTypes as TYPE } from 'css-tree/tokenizer';
import { ident } from 'css-tree/utils';
import { harmless, tokensOf, type Readdress } from '../css/harmless.ts';

/** Stylesheets inside each other that are followed. */
const DEEPEST = 8;
/** Characters of a page's styles in all. */
const MOST_STYLES = 20_000_000;

/** Every url() of a stylesheet under another address; what loads nothing any more becomes an empty picture. */
export const readdressed = (css: string, to: Readdress): string => harmless(css, { address: to });

/** What stands behind the address of an @import, as a rule around the sheet: layer, supports, media. */
function around(css: string, conditions: string): string {
  let rest = conditions.trim();
  let inside = css;
  const layer = /^layer(?:\(([^)]*)\)|(?![\w(-]))\s*/i.exec(rest);
  if (layer) rest = rest.slice(layer[0].length);
  const supports = /^supports\(((?:[^()]|\([^()]*\))*)\)\s*/i.exec(rest);
  if (supports) rest = rest.slice(supports[0].length);
  if (rest !== '') inside = `@media ${rest} {\n${inside}\n}`;
  if (supports) inside = `@supports (${supports[1]}) {\n${inside}\n}`;
  return layer ? `@layer ${layer[1] ?? ''} {\n${inside}\n}` : inside;
}

export interface SheetSource {
  /** Where a sheet lies, and its text; null where there is none. */
  sheet: (address: string, from: string) => { path: string; css: string } | null;
  /** What an address inside the sheet at `from` becomes. */
  file: (address: string, from: string) => string | null;
}

/**
 * A stylesheet with all that it imports inside it, and nothing in it that would be loaded from elsewhere. Imports in
 * circles and deeper than eight are left out.
 * @param path where the sheet lies
 */
export function wholeSheet(css: string, path: string, source: SheetSource): string {
  let left = MOST_STYLES;
  const inline = (text: string, at: string, above: readonly string[]): string => {
    left -= text.length;
    if (left < 0) return '';
    const imports: string[] = [];
    const own = harmless(text, {
      address: (address) => source.file(address, at),
      imported: (address, conditions) => {
        const sheet = above.length < DEEPEST ? source.sheet(address, at) : null;
        if (sheet && !above.includes(sheet.path))
          imports.push(around(inline(sheet.css, sheet.path, [...above, sheet.path]), conditions));
      },
    });
    return [...imports, own].join('\n');
  };
  return inline(css, path, [path]);
}

/** Window widths that are looked at for a page's own rules. */
const MOST_BREAKPOINTS = 200;

/** Window widths at which a stylesheet's rules change, as its media conditions say: in px, or em of 16 px. */
export function breakpointsIn(css: string): number[] {
  const found = new Set<number>();
  let inCondition = false;
  for (const { type, text } of tokensOf(css)) {
    if (type === TYPE.AtKeyword) inCondition = ident.decode(text.slice(1)).toLowerCase() === 'media';
    else if (type === TYPE.LeftCurlyBracket || type === TYPE.Semicolon) inCondition = false;
    else if (inCondition && type === TYPE.Dimension) {
      const said = /^([+-]?[\d.]+)(px|r?em)$/i.exec(text);
      const px = said ? Number(said[1]) * (said[2]!.toLowerCase() === 'px' ? 1 : 16) : NaN;
      // On both sides of it: min-width holds from there on, max-width up to there.
      if (Number.isFinite(px))
        for (const window of [Math.ceil(px) - 1, Math.ceil(px), Math.floor(px) + 1]) found.add(window);
    }
  }
  return [...found].sort((a, b) => a - b).slice(0, MOST_BREAKPOINTS);
}

/**
 * A relative address as a path inside a folder: percent signs undone, query and fragment left out, never above the
 * folder. Null for addresses of other hosts and schemes.
 * @param from path of the file that says it
 */
export function pathOf(address: string, from: string): string | null {
  const bare = address.trim().replace(/[?#].*$/s, '');
  if (bare === '' || /^(?:[a-z][a-z\d+.-]*:|\/\/)/i.test(bare)) return null;
  const parts = bare.startsWith('/') ? [] : from.split('/').slice(0, -1);
  for (const raw of bare.replaceAll('\\', '/').split('/')) {
    let part = raw;
    try {
      part = decodeURIComponent(raw);
    } catch {
      // A percent sign that means itself.
    }
    if (part === '' || part === '.') continue;
    if (part === '..') parts.pop();
    else parts.push(part);
  }
  return parts.join('/');
}
