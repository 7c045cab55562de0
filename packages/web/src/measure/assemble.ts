// A page made into one document that loads nothing: its stylesheets inside, stand-ins for its pictures, its scripts and
// everything else that could act or reach out taken away.
import {
  breakpointsIn,
  pathOf,
  readdressed,
  srcsetUnder,
  wholeSheet,
  type SheetSource,
} from '@dusky-otter/core';
import { NOTHING, standIn } from './pictures.ts';
import { SiteError, type SiteFiles } from './site-files.ts';

/** What counts as a picture; the sealed frame looks for the same. */
export const PICTURES = 'img, input[type="image" i], svg image';

const LARGEST_PAGE = 8_000_000;
const MOST_ELEMENTS = 60_000;
const MOST_PICTURES = 1_500;

export interface PagePicture {
  /** What the page calls it: the file's name, or its alt text. */
  name: string;
  drawing: boolean;
}

export interface AssembledPage {
  html: string;
  pictures: PagePicture[];
  /** Windows at which its stylesheets change something. */
  breakpoints: number[];
  /** What an editor should know of it. */
  notices: string[];
}

/** The charset that a page declares for itself, or undefined. */
function declaredIn(head: string): string | undefined {
  const at = head.search(/charset/i);
  const name = at < 0 ? null : /^charset\s*=\s*["']?([\w-]+)/i.exec(head.slice(at));
  if (name) return name[1];
  return head.startsWith('<?xml') ? /encoding=["']([\w-]+)/i.exec(head.slice(0, 200))?.[1] : undefined;
}

/** Text of a page: as its first bytes say, or its own declaration, else as browsers guess in the west. */
async function textOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 2048));
  const marked =
    bytes[0] === 0xef
      ? 'utf-8'
      : bytes[0] === 0xff && bytes[1] === 0xfe
        ? 'utf-16le'
        : bytes[0] === 0xfe && bytes[1] === 0xff
          ? 'utf-16be'
          : null;
  const said = declaredIn(head);
  try {
    return new TextDecoder(marked ?? said ?? 'windows-1252').decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Elements that run, load or lead somewhere. Boxes that pages are laid out around stay, empty. */
const AWAY =
  'script, base, template, meta[http-equiv], link:not([rel~="stylesheet" i]), param, track, portal, fencedframe';
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

function takeAway(document: Document): void {
  // Without scripts, what stands in for them is shown.
  for (const element of document.querySelectorAll('noscript')) element.replaceWith(...element.childNodes);
  for (const element of document.querySelectorAll(AWAY)) element.remove();
  for (const element of document.querySelectorAll(EMPTIED)) {
    if (element.matches(PICTURES)) continue;
    const leads = element.matches('a[href], area[href]');
    for (const name of LOADING) element.removeAttribute(name);
    // Links look otherwise than anchors: they stay links, and lead nowhere.
    if (leads) element.setAttribute('href', '#');
  }
  for (const element of document.querySelectorAll('*')) {
    for (const { name, value } of [...element.attributes]) {
      // Nothing listens here anyway; what is not in the page can't be let through by mistake.
      if (/^(?:on|background$)/i.test(name) || /^\s*(?:javascript|vbscript):/i.test(value))
        element.removeAttribute(name);
    }
  }
}

/** Every picture and its sources under other addresses. */
function readdressPictures(document: Document, to: (address: string) => string): void {
  for (const element of document.querySelectorAll(`${PICTURES}, picture source`)) {
    for (const name of ['src', 'href', 'xlink:href']) {
      const address = element.getAttribute(name);
      if (address !== null && !address.startsWith('data:')) element.setAttribute(name, to(address));
    }
    const srcset = element.getAttribute('srcset');
    if (srcset !== null) element.setAttribute('srcset', srcsetUnder(srcset, to));
    // All of them are there at once.
    element.removeAttribute('loading');
  }
}

const nameOf = (element: Element): string => {
  const address = element.getAttribute('src') ?? element.getAttribute('href') ?? '';
  const file = address.startsWith('data:') ? '' : (pathOf(address, '') ?? address).split('/').at(-1)!;
  return (file || element.getAttribute('alt') || 'a picture without a name').slice(0, 120);
};

const isDrawing = (element: Element): boolean =>
  /\.svg(?:[?#]|$)|^data:image\/svg/i.test(element.getAttribute('src') ?? '');

/** Styles of the page in their places: each sheet that is linked becomes an element that holds it. */
function inlineSheets(document: Document, page: string, source: SheetSource): string[] {
  const texts: string[] = [];
  for (const link of document.querySelectorAll('link[rel~="stylesheet" i]')) {
    const rel = link.getAttribute('rel')!.toLowerCase();
    const found =
      rel.includes('alternate') || link.hasAttribute('disabled')
        ? null
        : source.sheet(link.getAttribute('href') ?? '', page);
    if (!found) {
      link.remove();
      continue;
    }
    const style = document.createElement('style');
    style.textContent = wholeSheet(found.css, found.path, source);
    for (const name of ['media', 'id', 'class']) {
      const value = link.getAttribute(name);
      if (value !== null) style.setAttribute(name, value);
    }
    texts.push(`@media ${link.getAttribute('media') ?? 'all'} {} ${style.textContent}`);
    link.replaceWith(style);
  }
  for (const style of document.querySelectorAll('style')) {
    if (texts.some((text) => text.endsWith(style.textContent))) continue;
    style.textContent = wholeSheet(style.textContent, page, source);
    texts.push(`@media ${style.getAttribute('media') ?? 'all'} {} ${style.textContent}`);
  }
  for (const element of document.querySelectorAll('[style]')) {
    const style = element.getAttribute('style')!;
    if (/[(\\]/.test(style))
      element.setAttribute(
        'style',
        readdressed(style, (address) => source.file(address, page)),
      );
  }
  return texts;
}

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

/** Reads every stylesheet of the site: a page may import any of them. */
async function sheetsOf(files: SiteFiles): Promise<Map<string, string>> {
  const sheets = new Map<string, string>();
  for (const [path, file] of files)
    if (/\.css$/i.test(path) && file.size < 5_000_000) sheets.set(path, await file.text());
  return sheets;
}

/**
 * @param page path of the page among the files
 * @throws SiteError where it is too large, or has no picture
 */
export async function assemble(files: SiteFiles, page: string): Promise<AssembledPage> {
  const file = files.get(page);
  if (!file) throw new SiteError(`There is no ${page} in this site.`);
  if (file.size > LARGEST_PAGE) throw new SiteError('This page is larger than 8 MB: it can’t be measured.');
  const text = await textOf(file);
  const document = new DOMParser().parseFromString(text, 'text/html');
  if (document.querySelectorAll('*').length > MOST_ELEMENTS)
    throw new SiteError(`This page has more than ${MOST_ELEMENTS} elements: it can’t be measured.`);
  const folder = document.querySelector('base[href]')?.getAttribute('href') ?? null;
  const from =
    folder === null
      ? page
      : `${pathOf(folder, page) ?? ''}${folder.endsWith('/') ? '/' : ''}x`.replace(/^\//, '');
  takeAway(document);
  const sheets = await sheetsOf(files);
  /** Files that are named, and what stands for each. */
  const [wanted, known] = [new Set<string>(), new Map<string, string>()];
  const found = [...document.querySelectorAll(PICTURES)];
  if (found.length > MOST_PICTURES)
    throw new SiteError(`This page has more than ${MOST_PICTURES} pictures: it can’t be measured.`);
  const pictures = found.map((element) => ({ name: nameOf(element), drawing: isDrawing(element) }));
  const source = (standing: (path: string) => string): SheetSource => ({
    sheet: (address, at) => {
      const path = pathOf(address, at);
      const css = path === null ? undefined : sheets.get(path);
      return css === undefined ? null : { path: path!, css };
    },
    file: (address, at) => {
      if (/^data:/i.test(address)) return address;
      const path = pathOf(address, at);
      return path !== null && files.has(path) ? standing(path) : null;
    },
  });
  const missing = new Set<string>();
  // First it is found out which files are named, then what stands for each.
  const probe = document.cloneNode(true) as Document;
  const naming = source((path) => {
    wanted.add(path);
    return 'data:,';
  });
  inlineSheets(probe, from, naming);
  readdressPictures(probe, (address) => {
    const stood = naming.file(address, from);
    if (stood === null) missing.add(address);
    return stood ?? '';
  });
  for (const path of wanted) known.set(path, await standIn(path, files.get(path)!));
  const real = source((path) => known.get(path) ?? NOTHING);
  const styles = inlineSheets(document, from, real);
  readdressPictures(document, (address) => real.file(address, from) ?? NOTHING);
  const notices = [
    ...(missing.size > 0
      ? [
          `${missing.size} ${missing.size === 1 ? 'picture is' : 'pictures are'} not among the files: measured as a browser shows what is missing.`,
        ]
      : []),
    ...(document.querySelector('meta[name="viewport" i]')
      ? []
      : ['The page says nothing of its viewport: phones lay it out as 980 px wide and shrink it.']),
    ...(/<script\b/i.test(text) ? ['Its scripts were not run: what they build is not there.'] : []),
  ];
  return {
    html: `${DOCTYPE(document)}${document.documentElement.outerHTML}`,
    pictures,
    breakpoints: breakpointsIn(styles.join('\n')),
    notices,
  };
}
