// What a screen reader says of a piece of markup, in order: roles and names by the rules of Accessible Name and
// Description Computation 1.2 and HTML Accessibility API Mappings, without a look at the page.
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
  /** Why a listener loses by it, or null. */
  care: string | null;
}

/** Names are computed from a document that is never shown: it has no styles that hide anything. */
const unstyled = { getPropertyValue: () => '' } as unknown as CSSStyleDeclaration;
const NAMING = { getComputedStyle: () => unstyled };

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
};

/** Parts that have a name of their own beside their role. */
const BY_TAG: Partial<Record<string, string>> = { summary: 'folded', figcaption: 'caption' };

const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** Of what is said in another language than the page; that one stands outside of what is read. */
const languageOf = (element: Element): string | null =>
  element.closest('[lang]')?.getAttribute('lang') ?? null;

/** A long description stands within the caption, and is heard on its own. */
const isDescription = (node: Node): node is Element =>
  node instanceof Element && ['DETAILS', 'P'].includes(node.tagName);

const captionIn = (element: Element): string =>
  [...element.childNodes]
    .filter((node) => !isDescription(node))
    .map(({ textContent }) => textContent)
    .join('');

function announced(element: Element): Announcement | null {
  const role = getRole(element);
  if (role === 'presentation' || role === 'none') return null;
  const tag = element.tagName.toLowerCase();
  const level = /^h([1-6])$/.exec(tag)?.[1];
  const said = level === undefined ? (BY_TAG[tag] ?? SAID[role ?? '']) : `heading ${level}`;
  if (said === undefined) return null;
  const named = ['img', 'link', 'heading'].includes(role ?? '') || tag === 'summary' || tag === 'figcaption';
  const name = named
    ? plain(
        tag === 'summary'
          ? element.textContent
          : tag === 'figcaption'
            ? captionIn(element)
            : computeAccessibleName(element, NAMING),
      )
    : '';
  const description = named ? plain(computeAccessibleDescription(element, NAMING)) : '';
  return {
    role: said,
    text: [name, description].filter(Boolean).join(', '),
    language: languageOf(element),
    inside: [],
    care: role === 'img' && name === '' ? 'Has no words: a screen reader may read the file name.' : null,
  };
}

/** What is announced with all that is in it: nothing of it is said again. */
const WHOLE = new Set(['image', 'folded']);
/** Roles that only say that something holds together: each brings its parts along. */
const HOLDS = new Set(['link', 'figure', 'list', 'list item', 'table', 'row']);

function within(node: Node): Announcement[] {
  return [...node.childNodes].flatMap((child): Announcement[] => {
    if (child.nodeType === Node.TEXT_NODE) {
      const text = plain(child.textContent ?? '');
      const element = child.parentElement!;
      return text === '' ? [] : [{ role: '', text, language: languageOf(element), inside: [], care: null }];
    }
    if (!(child instanceof Element) || child.tagName === 'SCRIPT' || child.tagName === 'STYLE') return [];
    const own = announced(child);
    if (own === null) return within(child);
    if (own.role === 'caption')
      return [...(own.text ? [own] : []), ...[...child.childNodes].filter(isDescription).flatMap(within)];
    if (WHOLE.has(own.role) || own.role.startsWith('heading')) return [own];
    const inside = within(child);
    if (HOLDS.has(own.role)) {
      // What says nothing at all is decorative, or was forgotten.
      const care = own.role === 'figure' && inside.length === 0 ? 'Nothing of it is heard.' : own.care;
      return [{ ...own, inside, care }];
    }
    return [own, ...inside];
  });
}

/** Marks what is heard twice: a caption or a link that says no more than its image. */
function withRepeats(list: readonly Announcement[]): Announcement[] {
  const heard = (one: Announcement): string =>
    one.text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  const names = new Map<string, number>();
  const count = (one: Announcement): void => {
    const name = heard(one);
    if (name !== '' && one.role !== 'link') names.set(name, (names.get(name) ?? 0) + 1);
    one.inside.forEach(count);
  };
  list.forEach(count);
  const marked = (one: Announcement): Announcement => ({
    ...one,
    inside: one.inside.map(marked),
    care:
      one.care ??
      (one.role !== 'link' && (names.get(heard(one)) ?? 0) > 1
        ? 'Heard twice.'
        : one.role === 'image' && /^(image|photo|picture)\b/i.test(one.text)
          ? 'Says “image” twice.'
          : null),
  });
  return list.map(marked);
}

/**
 * A page's content in a tree of this window that is never shown: names are computed with a window alone. What it would
 * load is taken out before.
 */
function inert(html: string): ShadowRoot {
  const page = new DOMParser().parseFromString(html, 'text/html');
  for (const element of page.querySelectorAll('[src], [srcset], [style]'))
    for (const name of ['src', 'srcset', 'style']) element.removeAttribute(name);
  for (const element of page.querySelectorAll('script, style, link, iframe, object, embed')) element.remove();
  const root = document.createElement('div').attachShadow({ mode: 'open' });
  root.append(document.importNode(page.querySelector('main') ?? page.body, true));
  return root;
}

/** @param html a whole page, as it goes out; what is in its `main` is read, or all of it where there is none */
export const announcementsOf = (html: string): Announcement[] => withRepeats(within(inert(html)));

/** One announcement as it is said aloud. */
export const aloud = ({ role, text, inside }: Announcement): string =>
  [role, role === 'link' && inside.length > 0 ? '' : text, ...inside.map(aloud)].filter(Boolean).join(', ');
