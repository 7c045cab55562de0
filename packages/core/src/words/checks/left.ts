// What programs left in a text: markup, addresses, a file's size and format.
import { decoded } from '../text/entities.ts';
import { withCapital, wordsOf } from '../text/text.ts';
import { finding, type WordCheck } from './finding.ts';

const TAG = /<\/?[a-z][a-z0-9-]{0,20}(?:\s[^<>]{0,400})?\/?>/gi;
const ENTITY = /&(?:[a-z][a-z0-9]{1,30}|#\d{1,7}|#x[\da-f]{1,6});/gi;
/** "{{ photo.alt }}", "{% alt %}", "${title}", "%alt%", "[[alt]]": filled in by a program that never did. */
const TEMPLATE =
  /\{\{[^{}]{0,200}\}\}|\{%[^{}]{0,200}%\}|\$\{[^{}]{0,200}\}|(?<!\d)%[a-z_]{2,30}%|\[\[[^[\]]{0,200}\]\]|^\{[\w. ]{1,60}\}$/gi;
/** "[gallery id=12]", "[caption]…[/caption]". */
const SHORTCODE =
  /\[\/?[a-z][a-z_-]{1,30}(?:\s+[a-z_-]{1,30}=[^\]]{0,200})\]|\[(?:\/?caption|\/[a-z_-]{2,30})\]/gi;
/** "**bold**", "__bold__", "[words](address)", "![words](address)". */
const BOLD = /(\*\*|__)(?=\S)([^*_]{1,400}?\S)\1/g;
const LINKED = /!?\[([^[\]]{1,400})\]\([^()\s]{1,400}\)/g;
/** Who writes about markup may show some. */
const ABOUT_MARKUP = /\b(?:tags?|elements?|markup|html|code|editor|elemente?|auszeichnung|quelltext)\b/i;

/** The text as somebody meant it: without tags and signs, entities as their letters. */
const withoutMarkup = (alt: string): string =>
  decoded(
    alt
      .replace(TEMPLATE, ' ')
      .replace(LINKED, '$1')
      .replace(SHORTCODE, ' ')
      .replace(TAG, ' ')
      .replace(BOLD, '$2'),
  )
    .replace(/\s+/g, ' ')
    .replace(/\s+([.,;:!?])/g, '$1')
    .trim();

const holds = (text: string, patterns: readonly RegExp[]): boolean =>
  patterns.some((pattern) => text.search(pattern) >= 0);

export const holdsMarkup: WordCheck = (context) => {
  const { alt, role } = context.words;
  if (!holds(alt, [TAG, ENTITY, TEMPLATE, SHORTCODE, BOLD, LINKED])) return null;
  // A listing that the picture shows is its text; a lesson may name a tag.
  if (role === 'text' || (ABOUT_MARKUP.test(alt.replace(TAG, ' ')) && !holds(alt, [ENTITY, TEMPLATE])))
    return null;
  const rest = withoutMarkup(alt);
  return finding(context, 'holds-markup', context.says.markup, {
    mend: { alt: wordsOf(rest).length > 0 ? withCapital(rest) : '' },
  });
};

const WEB = /(?:https?:\/\/|www\.|mailto:|ftp:\/\/|file:\/\/)\S+/i;
const MAIL = /[\w.+-]{1,64}@[a-z\d-]{1,63}(?:\.[a-z\d-]{1,63}){1,4}/i;
const TOP_LEVEL = 'com|net|org|info|example|test|eu|de|at|ch|fr|it|nl|es|uk|co|io|dev|app|shop|online';
const DOMAIN = new RegExp(
  `(?<![\\w@.-])(?:[a-z\\d-]{1,63}\\.){1,4}(?:${TOP_LEVEL})(?:/\\S*)?(?![\\w-])`,
  'i',
);
/** A path and nothing else: "/uploads/2026/room", "../images/ferries/". */
const isPath = (text: string): boolean =>
  !/\s/.test(text) && /^(?:\.{0,2}\/|[a-z]:\\)/i.test(text) && /[/\\]/.test(text.slice(3));

/** Words that lead to an address and go with it, in front of nothing else. */
const LEADS = new Set('see at on visit via more source siehe unter auf quelle mehr'.split(' '));
const MARKS = /[,;:(–—-]$/;

/** What is said before an address that ends a text, or null where taking it away would leave a torn sentence. */
function beforeAddress(alt: string): string | null {
  const found = [WEB, MAIL, DOMAIN].flatMap((pattern) => pattern.exec(alt) ?? []);
  const at = found.length > 0 ? alt.indexOf(found[0]!) : -1;
  if (at < 0 || /[^\s.)]/.test(alt.slice(at + found[0]!.length))) return null;
  const words = alt.slice(0, at).trim().split(/\s+/);
  while (words.length > 0 && LEADS.has(words.at(-1)!.toLowerCase().replace(':', ''))) words.pop();
  // "See the shop at …" without its address sends nobody anywhere: only what a mark parts can go.
  const rest = words.join(' ');
  return MARKS.test(rest) && words.length >= 2 ? rest.replace(MARKS, '').trimEnd() : null;
}

export const holdsAddress: WordCheck = (context) => {
  const { alt, role } = context.words;
  const text = alt.trim();
  // On a sign or a van an address is what there is to read.
  if (role === 'text') return null;
  if (!WEB.test(text) && !MAIL.test(text) && !DOMAIN.test(text) && !isPath(text)) return null;
  const rest = beforeAddress(text);
  const bare = /\s/.test(text) ? null : { alt: '' };
  return finding(context, 'holds-address', context.says.address, {
    mend: rest === null ? bare : { alt: rest },
  });
};

const UNIT = '(?:px|pixels?|dpi|ppi|bit|kb|kib|mb|mib|bytes?|mp|megapixels?)';
const FORMAT = '(?:jpe?g|png|gif|webp|avif|tiff?|svg|heic|raw|bmp|pdf|srgb|rgb|cmyk|adobe rgb|image/[a-z+]+)';
const NUMBER = '\\d{1,6}(?:[.,]\\d{1,3})?';
/** Pieces that say something of a file, and the marks between them. */
const PIECES = new RegExp(
  [
    `${NUMBER}(?:\\s?${UNIT})?\\s?(?:x|×|\\*|by|mal)\\s?${NUMBER}(?:\\s?${UNIT})?`,
    `${NUMBER}\\s?${UNIT}`,
    FORMAT,
    '\\d{2,5}w',
    '\\d{3,4}[pi]|[48]k|(?:full |ultra )?hd',
    '(?:image|photo|picture|file|size|format|bild|foto|datei|größe)(?![\\p{L}])',
    '@?[1-4]x',
    '\\d{1,2}:\\d{1,2}',
    'f/\\d{1,2}(?:[.,]\\d)?',
    '1/\\d{1,5}\\s?s?',
    'iso\\s?\\d{2,6}',
    '\\d{1,4}\\s?mm',
    '[\\s,;|()/·–-]',
  ].join('|'),
  'giuy',
);
/** A size in brackets or at the end: "Red teapot (1200x800)". Boards and monitors have sizes of their own, with spaces or a unit. */
const SIZE_BEHIND = /(?:\(\s?\d{3,5}\s?[x×]\s?\d{3,5}(?:\s?px)?\s?\)|\b\d{3,5}x\d{3,5}(?:px)?)\.?$/i;
const OF_A_SCREEN = /\b(?:monitor|display|screen|resolution|bildschirm|auflösung|zoll|inch)\b/i;

const SAYS_DATA = new RegExp(`\\d|\\b${FORMAT}\\b`, 'i');

/** True where nothing is said but what a file is. */
function isFileData(text: string): boolean {
  let at = 0;
  while (at < text.length) {
    PIECES.lastIndex = at;
    const piece = PIECES.exec(text);
    if (!piece || piece[0] === '') return false;
    at += piece[0].length;
  }
  // "Photo" alone is a placeholder.
  return SAYS_DATA.test(text);
}

export const fileData: WordCheck = (context) => {
  const { alt, role } = context.words;
  const text = alt.trim();
  // "2:1" on a scoreboard, "PDF" on a button.
  if (role === 'text' || (role === 'functional' && /^\p{L}+$/u.test(text))) return null;
  const behind = OF_A_SCREEN.test(text) ? null : SIZE_BEHIND.exec(text);
  const isAll = isFileData(text) && !/^\d{1,6}$/.test(text);
  if (!isAll && !behind) return null;
  return finding(context, 'file-data', context.says.fileData, {
    mend: { alt: isAll ? '' : text.slice(0, behind!.index).trimEnd().replace(/,$/, '') },
  });
};
