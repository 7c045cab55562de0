// Addresses inside stylesheets and documents: found, and put in place of what they name. For pages that are measured
// without a network: everything they load stands in them afterwards.

/** What becomes of an address: another one, or null for nothing that could be loaded. */
export type Readdress = (address: string) => string | null;

/** Stylesheets inside each other that are followed. */
const DEEPEST = 8;
/** Characters of a page's styles in all. */
const MOST_STYLES = 20_000_000;

const COMMENT = /\/\*[^]*?\*\//g;
/** An address with what stands around it: between quotes, or bare. Spaces and quotes are taken off where it is read. */
const URL_TOKEN = /url\(([^()"']*|[^()"']*"(?:[^"\\]|\\[^])*"\s*|[^()"']*'(?:[^'\\]|\\[^])*'\s*)\)/gi;
/** Addresses may hold semicolons: one ends the rule only outside of quotes and brackets. */
const IMPORT = /@import\s+((?:"[^"]*"|'[^']*'|\([^)]*\)|[^;"'()])*);?/gi;
const IMPORTED = /^(?:url\(([^)]*)\)|"([^"]*)"|'([^']*)')/i;

/** What stands inside url(): without its spaces and quotes. */
function addressIn(inside: string): string {
  const bare = inside.trim();
  const quote = bare[0];
  return quote === '"' || quote === "'" ? bare.slice(1, bare.endsWith(quote) ? -1 : undefined) : bare;
}

/** Undoes escapes of CSS in an address (CSS Syntax 3, 4.3.7). */
const unescaped = (text: string): string =>
  text.replace(/\\([\da-f]{1,6})\s?|\\([^])/gi, (_, hex: string | undefined, plain: string | undefined) => {
    if (hex === undefined) return plain ?? '';
    const code = Number.parseInt(hex, 16);
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : '\uFFFD';
  });

/** An address as it may stand between double quotes in CSS inside a `<style>` element. */
const quoted = (address: string): string =>
  `"${address.replace(/["\\\n<]/g, (c) => `\\${c.codePointAt(0)!.toString(16)} `)}"`;

/** Letters that are written as escapes, as letters: `u\\72l(` loads as `url(` does. */
const plainNames = (css: string): string =>
  css
    .replace(/\\0{0,4}([46][1-9a-f]|[57][\da])\s?/gi, (_, hex: string) =>
      String.fromCharCode(Number.parseInt(hex, 16)),
    )
    .replace(/\\([g-z])/gi, '$1')
    // Addresses in plain strings: pictures behind boxes, which change no size.
    .replace(/(?:-webkit-)?image-set\s*\(/gi, 'no-image-set(');

/** Every url() of a stylesheet whose names are plain. */
const withAddresses = (css: string, to: Readdress): string =>
  css.replace(URL_TOKEN, (whole, inside: string) => {
    const address = unescaped(addressIn(inside)).trim();
    if (address === '' || address.startsWith('#')) return whole;
    return `url(${quoted(to(address) ?? 'data:,')})`;
  });

/** Every url() of a stylesheet under another address; what loads nothing any more becomes an empty picture. */
export const readdressed = (css: string, to: Readdress): string => withAddresses(plainNames(css), to);

/** What stands behind the address of an @import, as a rule around the sheet: layer, supports, media. */
function around(css: string, conditions: string): string {
  let rest = conditions.trim();
  let inside = css;
  const layer = /^layer(?:\(([^)]*)\))?\s*/i.exec(rest);
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
    const bare = plainNames(text.replace(COMMENT, ' ')).replace(/@charset\s+"[^"]*";/gi, '');
    const imports: string[] = [];
    const own = bare.replace(IMPORT, (_, said: string) => {
      const named = IMPORTED.exec(said);
      if (!named) return '';
      const address = unescaped(addressIn(named[1] ?? named[2] ?? named[3] ?? ''));
      const conditions = said.slice(named[0].length);
      const sheet = above.length < DEEPEST ? source.sheet(address, at) : null;
      if (sheet && !above.includes(sheet.path))
        imports.push(around(inline(sheet.css, sheet.path, [...above, sheet.path]), conditions));
      return '';
    });
    return [...imports, withAddresses(own, (address) => source.file(address, at))].join('\n');
  };
  return inline(css, path, [path]);
}

/** Window widths at which a stylesheet's rules change, as its media conditions say: in px, or em of 16 px. */
export function breakpointsIn(css: string): number[] {
  const found = new Set<number>();
  for (const [, condition] of css.replace(COMMENT, ' ').matchAll(/@media([^{;]*)\{/gi)) {
    for (const [, number, unit] of condition!.matchAll(/(\d+(?:\.\d+)?)\s*(px|r?em)\b/gi)) {
      const px = Number(number) * (unit!.toLowerCase() === 'px' ? 1 : 16);
      // On both sides of it: min-width holds from there on, max-width up to there.
      for (const window of [Math.ceil(px) - 1, Math.ceil(px), Math.floor(px) + 1]) found.add(window);
    }
  }
  return [...found].sort((a, b) => a - b).slice(0, 200);
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
