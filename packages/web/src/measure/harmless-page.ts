// A page in which nothing acts, leads anywhere or loads anything, whatever it is called and however it is nested.

/** What counts as a picture; the sealed frame looks for the same. */
export const PICTURES = 'img, input[type="image" i], svg image';

/** Elements that run, load or lead somewhere. Boxes that pages are laid out around stay, empty. */
const AWAY =
  'script, base, template, meta[http-equiv], link, param, track, portal, fencedframe, noembed, noframes, plaintext, xmp';
const EMPTIED =
  'iframe, frame, object, embed, video, audio, source[src], use, feimage, a, area, form, button, input';
const LOADING = [
  'src',
  'srcdoc',
  'data',
  'poster',
  'href',
  'xlink:href',
  'action',
  'formaction',
  'ping',
  'background',
  'code',
  'archive',
  'manifest',
  'longdesc',
  'cite',
  'profile',
  'imagesrcset',
  'attributionsrc',
];

/** Elements whose names are properties of their document (HTML, 3.1.6), and those that are properties of their form. */
const NAMED = 'embed[name], form[name], iframe[name], img[name], object[name], object[id]';
const IN_FORMS = 'button, fieldset, input, object, output, select, textarea, img';

// Asked of the prototypes: a page may have elements that are called as these methods are.
export const all = (document: Document, selector: string): Element[] => {
  // eslint-disable-next-line @typescript-eslint/unbound-method, @typescript-eslint/no-deprecated -- called on the document; no selector of an outdated element is meant
  const find: (this: Document, selector: string) => NodeListOf<Element> = Document.prototype.querySelectorAll;
  return [...find.call(document, selector)];
};
const read = (element: Element, name: string): string | null =>
  Element.prototype.getAttribute.call(element, name);
const remove = (element: Element, name: string): void =>
  Element.prototype.removeAttribute.call(element, name);

/** Takes names away that would stand in the way of what documents and forms have by themselves. */
function giveBackNames(document: Document): void {
  for (const element of all(document, NAMED))
    for (const attribute of ['name', 'id']) {
      const name = read(element, attribute);
      if (name !== null && name in Document.prototype) remove(element, attribute);
    }
  for (const element of all(document, IN_FORMS))
    for (const attribute of ['name', 'id']) {
      const name = read(element, attribute);
      if (name !== null && name in HTMLFormElement.prototype) remove(element, attribute);
    }
}

/** Takes away what acts or leads somewhere. Stylesheets that are linked must be in the page by then. */
export function takeAway(document: Document): void {
  giveBackNames(document);
  // Without scripts, what stands in for them is shown.
  for (const element of all(document, 'noscript')) element.replaceWith(...element.childNodes);
  for (const element of all(document, AWAY)) element.remove();
  for (const element of all(document, EMPTIED)) {
    if (element.matches(PICTURES)) continue;
    const leads = element.matches('a[href], area[href]');
    for (const name of LOADING) remove(element, name);
    // Links look otherwise than anchors: they stay links, and lead nowhere.
    if (leads) element.setAttribute('href', '#');
  }
  for (const element of all(document, '*')) {
    for (const name of Element.prototype.getAttributeNames.call(element)) {
      const value = read(element, name)!;
      // Nothing listens here anyway; what is not in the page can't be let through by mistake.
      if (/^(?:on|background$)/i.test(name) || /^\s*(?:javascript|vbscript):/i.test(value))
        remove(element, name);
    }
  }
}

/** Elements with declarations, or attributes of drawings that are read as such, in which something could be loaded. */
export function declaring(document: Document): { element: Element; name: string; css: string }[] {
  const found: { element: Element; name: string; css: string }[] = [];
  for (const element of all(document, '[style], svg *')) {
    const isDrawn = element.namespaceURI === 'http://www.w3.org/2000/svg';
    for (const name of Element.prototype.getAttributeNames.call(element)) {
      if (name !== 'style' && !(isDrawn && READ_AS_CSS.has(name.toLowerCase()))) continue;
      const css = read(element, name)!;
      if (/[(\\]/.test(css)) found.push({ element, name, css });
    }
  }
  return found;
}

const READ_AS_CSS = new Set(
  'fill stroke filter mask clip-path marker marker-start marker-mid marker-end cursor'.split(' '),
);

const DOCTYPE = ({ doctype }: Document): string => {
  if (!doctype) return '';
  const { name, publicId, systemId } = doctype;
  const ids = publicId
    ? ` PUBLIC "${publicId}"${systemId ? ` "${systemId}"` : ''}`
    : systemId
      ? ` SYSTEM "${systemId}"`
      : '';
  return `<!DOCTYPE ${name}${ids}>`;
};

const written = (document: Document): string => `${DOCTYPE(document)}${document.documentElement.outerHTML}`;

/** Times that a page is read again before it is given up. */
const ROUNDS = 6;

/**
 * A cleaned page as text that reads as it was cleaned. Nested wrongly, elements stand elsewhere once their text is read
 * again: so it is read, cleaned and written until nothing changes.
 * @param styles texts of style elements, and of attributes that are read as CSS, which may stand in it
 * @returns null for a page that is another one each time it is read
 */
export function settled(document: Document, styles: ReadonlySet<string>): string | null {
  let now = written(document);
  for (let round = 0; round < ROUNDS; round++) {
    const again = new DOMParser().parseFromString(now, 'text/html');
    takeAway(again);
    for (const style of all(again, 'style')) if (!styles.has(style.textContent)) style.textContent = '';
    for (const { element, name, css } of declaring(again)) if (!styles.has(css)) remove(element, name);
    const next = written(again);
    if (next === now) return now;
    now = next;
  }
  return null;
}
