// Escaping, and writing one element with its attributes.

const ESCAPES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Text made safe for element content and for double-quoted attributes. */
export const escapeHtml = (text: string): string => text.replace(/[&<>"']/g, (c) => ESCAPES[c]!);

/** An attribute's text: line breaks are written as such, since indenting must not reach into it. */
const escapeAttribute = (text: string): string =>
  escapeHtml(text)
    .replace(/\r\n?|\n/g, '&#10;')
    .replace(/\t/g, '&#9;');

/** A start tag. Attributes that are null are left out; "" is written as such. */
export function tag(name: string, attributes: Record<string, string | number | null>): string {
  const written = Object.entries(attributes)
    .filter(([, value]) => value !== null)
    .map(([key, value]) => ` ${key}="${escapeAttribute(String(value))}"`);
  return `<${name}${written.join('')}>`;
}

/** Indents every line of a block by two spaces a level. */
export const indent = (block: string, levels = 1): string => block.replace(/^(?=.)/gm, '  '.repeat(levels));
