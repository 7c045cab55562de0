// What a screen reader says of a page, in order: roles and names by the rules of Accessible Name and Description
// Computation 1.2 and HTML Accessibility API Mappings.
import { computeAccessibleDescription, computeAccessibleName, getRole } from 'dom-accessibility-api';

export interface Announcement {
  /** "image", "link", "heading 2"; "" for plain text. */
  role: string;
  /** What is heard after it. */
  text: string;
  /** BCP 47, where it is said in another language than the page. */
  language: string | null;
  /** Announcements inside a link, a figure or a description. */
  inside: Announcement[];
  /** It only says that something holds together, and brings its parts along. */
  holds: boolean;
  /** Why a listener loses by it, or null. */
  care: string | null;
}

/** Roles that are said, as screen readers call them. */
const SAID: Partial<Record<string, string>> = {
  img: 'image',
  link: 'link',
  figure: 'figure',
  list: 'list',
  listitem: 'list item',
  table: 'table',
  row: 'row',
  columnheader: 'column heading',
  rowheader: 'row heading',
  cell: 'cell',
  button: 'button',
  navigation: 'navigation',
};

/** Roles that hold others together, and are said where they have a name, as what they say that they are. */
const GROUPS = new Set(['region', 'group']);

/** Parts that have a name of their own beside their role. */
const BY_TAG: Partial<Record<string, string>> = { summary: 'folded', figcaption: 'caption' };

const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** Of what is said in another language than the page; that one stands outside of what is read. */
const languageOf = (element: Element): string | null =>
  element.closest('[lang]')?.getAttribute('lang') ?? null;

/** Of any window: a page is read in a frame of its own. */
const isElement = (node: Node): node is Element => node.nodeType === Node.ELEMENT_NODE;

/** A long description stands within the caption, and is heard on its own; so is a link. */
const isApart = (node: Node): node is Element =>
  isElement(node) && ['DETAILS', 'P', 'A'].includes(node.tagName);

/** What nobody is told of: it is not drawn, or says so itself. */
const isHidden = (element: Element): boolean =>
  element.hasAttribute('inert') ||
  element.getAttribute('aria-hidden') === 'true' ||
  !element.checkVisibility({ visibilityProperty: true });

const captionIn = (element: Element): string =>
  [...element.childNodes]
    .filter((node) => !isApart(node))
    .map(({ textContent }) => textContent)
    .join('');

function announced(element: Element): Announcement | null {
  const role = getRole(element);
  if (role === 'presentation' || role === 'none') return null;
  const tag = element.tagName.toLowerCase();
  const level = /^h([1-6])$/.exec(tag)?.[1];
  const isGroup = GROUPS.has(role ?? '') && computeAccessibleName(element) !== '';
  const said =
    level !== undefined
      ? `heading ${level}`
      : isGroup
        ? (element.getAttribute('aria-roledescription') ?? role!)
        : (BY_TAG[tag] ?? SAID[role ?? '']);
  if (said === undefined) return null;
  const named =
    ['img', 'link', 'heading', 'button', 'navigation'].includes(role ?? '') ||
    isGroup ||
    tag === 'summary' ||
    tag === 'figcaption';
  const name = named
    ? plain(
        tag === 'summary'
          ? element.textContent
          : tag === 'figcaption'
            ? captionIn(element)
            : computeAccessibleName(element),
      )
    : '';
  const description = named ? plain(computeAccessibleDescription(element)) : '';
  return {
    role: said,
    text: [name, description].filter(Boolean).join(', '),
    language: languageOf(element),
    inside: [],
    holds: isGroup || HOLDS.has(said),
    care: role === 'img' && name === '' ? 'Has no words: a screen reader may read the file name.' : null,
  };
}

/** What is announced with all that is in it: nothing of it is said again. */
const WHOLE = new Set(['image', 'folded', 'button']);
const HOLDS = new Set(['link', 'figure', 'list', 'list item', 'table', 'row', 'navigation']);

/** Elements that say nothing whatever is in them. */
const UNSAID = new Set(['SCRIPT', 'STYLE', 'TEMPLATE', 'NOSCRIPT']);

const within = (node: Node): Announcement[] => [...node.childNodes].flatMap(saidOf);

function saidOf(node: Node): Announcement[] {
  if (node.nodeType === Node.TEXT_NODE) {
    const text = plain(node.textContent ?? '');
    const language = languageOf(node.parentElement!);
    return text === '' ? [] : [{ role: '', text, language, inside: [], holds: false, care: null }];
  }
  if (!isElement(node) || UNSAID.has(node.tagName) || isHidden(node)) return [];
  const own = announced(node);
  if (own === null) return within(node);
  if (own.role === 'caption')
    return [...(own.text ? [own] : []), ...[...node.childNodes].filter(isApart).flatMap(saidOf)];
  if (WHOLE.has(own.role) || own.role.startsWith('heading')) return [own];
  const inside = within(node);
  // A link that holds nothing but its own name says it once.
  const isNameAlone = own.role === 'link' && inside.every(({ role }) => role === '');
  if (isNameAlone) return [{ ...own, inside: [] }];
  if (!own.holds) return [own, ...inside];
  // What says nothing at all is decorative, or was forgotten.
  const care = own.role === 'figure' && inside.length === 0 ? 'Nothing of it is heard.' : own.care;
  return [{ ...own, inside, care }];
}

/** Marks what is heard twice: a caption or a link that says no more than its image. */
function withRepeats(list: readonly Announcement[]): Announcement[] {
  const heard = (one: Announcement): string =>
    one.text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  /** What says something of its own: links lead to what has the same name, and buttons are called as what they show. */
  const isTold = ({ role, holds }: Announcement) => !holds && role !== 'button';
  const names = new Map<string, number>();
  const count = (one: Announcement): void => {
    const name = heard(one);
    if (name !== '' && isTold(one)) names.set(name, (names.get(name) ?? 0) + 1);
    one.inside.forEach(count);
  };
  list.forEach(count);
  const marked = (one: Announcement): Announcement => ({
    ...one,
    inside: one.inside.map(marked),
    care:
      one.care ??
      (isTold(one) && (names.get(heard(one)) ?? 0) > 1
        ? 'Heard twice.'
        : one.role === 'image' && /^(image|photo|picture)\b/i.test(one.text)
          ? 'Says “image” twice.'
          : null),
  });
  return list.map(marked);
}

/** @param page its body, or a part of it, as it stands in a window */
export const announcementsOf = (page: Element): Announcement[] => withRepeats(within(page));

/** One announcement as it is said aloud. */
export const aloud = ({ role, text, inside }: Announcement): string =>
  [role, role === 'link' && inside.length > 0 ? '' : text, ...inside.map(aloud)].filter(Boolean).join(', ');
