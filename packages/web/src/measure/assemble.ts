// A page made into one document that loads nothing: its stylesheets inside, stand-ins for its pictures, its scripts and
// everything else that could act or reach out taken away.
import { pathOf } from '@dusky-otter/core/pages';
import { srcsetUnder } from '@dusky-otter/core/source';
import { all, declaring, PICTURES, settled, takeAway } from './harmless-page.ts';
import { NOTHING, standIn } from './pictures.ts';
import { SiteError, type SiteFiles } from './site-files.ts';
import { StyleReader, type StyleText } from './styles.ts';

const LARGEST_PAGE = 8_000_000;
const MOST_ELEMENTS = 60_000;
const MOST_PICTURES = 1_500;

export interface PictureOfPage {
  /** What the page calls it: the file's name, or its alt text. */
  name: string;
  drawing: boolean;
}

export interface AssembledPage {
  html: string;
  pictures: PictureOfPage[];
  /** Windows at which its stylesheets change something. */
  breakpoints: number[];
  /** Stylesheets that it names and that are not there: what is measured without them is not to be trusted. */
  unstyled: string[];
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

/** A text of styles, and where it goes once it is read. */
interface StylePlace extends StyleText {
  put: (css: string) => void;
}

/** False for a sheet that waits to be chosen. */
const isRead = (link: Element): boolean =>
  !link.getAttribute('rel')!.toLowerCase().includes('alternate') && !link.hasAttribute('disabled');

/** False for a sheet that nobody needs to see the page. */
const isForScreens = (link: Element): boolean =>
  !['print', 'speech'].includes((link.getAttribute('media') ?? '').trim().toLowerCase());

/** Stylesheets that a page names and that are not among the files, as it names them. */
function unstyledBy(document: Document, page: string, sheets: ReadonlyMap<string, string>): string[] {
  const named = [...document.querySelectorAll('link[rel~="stylesheet" i][href]')].filter(
    (link) => isRead(link) && isForScreens(link),
  );
  const gone = named.filter((link) => {
    const path = pathOf(link.getAttribute('href')!, page);
    return path === null || !sheets.has(path);
  });
  return [...new Set(gone.map((link) => link.getAttribute('href')!.trim().slice(0, 120)))];
}

/** Styles of the page in their places: each sheet that is linked becomes an element that holds it. */
function stylesOf(document: Document, page: string, sheets: ReadonlyMap<string, string>): StylePlace[] {
  /** Sheets that were linked; their text is never in a document as it is: browsers read it even where nobody sees it. */
  const linked = new Map<Element, { css: string; at: string }>();
  for (const link of document.querySelectorAll('link[rel~="stylesheet" i]')) {
    const path = pathOf(link.getAttribute('href') ?? '', page);
    const css = path === null ? undefined : sheets.get(path);
    if (css === undefined || !isRead(link)) continue;
    const style = document.createElement('style');
    for (const name of ['media', 'id', 'class']) {
      const value = link.getAttribute(name);
      if (value !== null) style.setAttribute(name, value);
    }
    // It is read from where it lies, not from where the page does.
    linked.set(style, { css, at: path! });
    link.replaceWith(style);
  }
  return [...document.querySelectorAll('style')].map((style) => ({
    ...(linked.get(style) ?? { css: style.textContent, at: page }),
    media: style.getAttribute('media') ?? 'all',
    part: false,
    put: (css) => (style.textContent = css),
  }));
}

/** What attributes say in CSS. */
const attributesOf = (document: Document, page: string): StylePlace[] =>
  declaring(document).map(({ element, name, css }) => ({
    ...{ css, at: page, media: 'all', part: true },
    put: (text) => element.setAttribute(name, text),
  }));

/** Reads every stylesheet of the site: a page may import any of them. */
async function sheetsOf(files: SiteFiles): Promise<Map<string, string>> {
  const sheets = new Map<string, string>();
  for (const [path, file] of files)
    if (/\.css$/i.test(path) && file.size < 5_000_000) sheets.set(path, await file.text());
  return sheets;
}

/**
 * @param page path of the page among the files
 * @param signal stops it, wherever it is
 * @throws SiteError where it is too large, or has no picture
 */
export async function assemble(files: SiteFiles, page: string, signal: AbortSignal): Promise<AssembledPage> {
  const file = files.get(page);
  if (!file) throw new SiteError(`There is no ${page} in this site.`);
  if (file.size > LARGEST_PAGE) throw new SiteError('This page is larger than 8 MB: it can’t be measured.');
  const text = await textOf(file);
  checkText(text);
  const document = new DOMParser().parseFromString(text, 'text/html');
  if (all(document, '*').length > MOST_ELEMENTS)
    throw new SiteError(`This page has more than ${MOST_ELEMENTS} elements: it can’t be measured.`);
  const sheets = await sheetsOf(files);
  signal.throwIfAborted();
  const from = folderOf(document, page);
  const unstyled = unstyledBy(document, from, sheets);
  const beside = besidePictures(document);
  // Sheets come into the page before links are taken away.
  const styles = stylesOf(document, from, sheets);
  takeAway(document);
  styles.push(...attributesOf(document, from));
  const found = [...document.querySelectorAll(PICTURES)];
  if (found.length > MOST_PICTURES)
    throw new SiteError(`This page has more than ${MOST_PICTURES} pictures: it can’t be measured.`);
  const pictures = found.map((element) => ({ name: nameOf(element), drawing: isDrawing(element) }));
  const reader = new StyleReader(signal);
  try {
    const known = new Map<string, string>();
    const missing = new Set<string>();
    const texts = styles.map(({ css, at, media, part }) => ({ css, at, media, part }));
    const named = await reader.wanted({ sheets: [...sheets], names: [...files.keys()], texts });
    const pathIn = (address: string): string | null => {
      const path = pathOf(address, from);
      return path !== null && files.has(path) ? path : null;
    };
    for (const address of addressesIn(document)) {
      const path = pathIn(address);
      if (path === null) missing.add(address);
      else named.push(path);
    }
    for (const path of new Set(named)) {
      signal.throwIfAborted();
      known.set(path, await standIn(path, files.get(path)!));
    }
    const { texts: written, breakpoints } = await reader.written(known);
    styles.forEach(({ put }, n) => put(written[n]!));
    readdressPictures(document, (address) => known.get(pathIn(address) ?? '') ?? NOTHING);
    const html = settled(document, new Set(written));
    if (html === null)
      throw new SiteError('This page reads otherwise each time it is read: it can’t be measured.');
    const backgrounds = styles.reduce((sum, { css }) => sum + (css.match(BACKGROUND)?.length ?? 0), 0);
    const notices = [...noticesOf(document, text, missing.size), ...beside, ...backgroundsSaid(backgrounds)];
    return { html, pictures, breakpoints, unstyled, notices };
  } finally {
    reader.close();
  }
}

/** Brackets inside each other in one page. Chromium reads styles by calling itself, and falls when it is too deep. */
const DEEPEST = 1_000;

/** @throws SiteError for text that a browser can't be given, or that takes it long */
function checkText(text: string): void {
  if ((text.match(/<[a-z]/gi)?.length ?? 0) > MOST_ELEMENTS)
    throw new SiteError(`This page has more than ${MOST_ELEMENTS} elements: it can’t be measured.`);
  let depth = 0;
  for (const bracket of text.match(/[([{)\]}]/g) ?? []) {
    depth = '([{'.includes(bracket) ? depth + 1 : Math.max(0, depth - 1);
    if (depth > DEEPEST)
      throw new SiteError(
        `More than ${DEEPEST} brackets stand inside each other in this page: it can’t be measured.`,
      );
  }
}

/** Where the page's addresses start from: its own place, or what it says itself. */
function folderOf(document: Document, page: string): string {
  const base = all(document, 'base[href]')[0]?.getAttribute('href') ?? null;
  return base === null
    ? page
    : `${pathOf(base, page) ?? ''}${base.endsWith('/') ? '/' : ''}x`.replace(/^\//, '');
}

/** A picture that is laid behind something by a stylesheet. */
const BACKGROUND = /background(?:-image)?\s*:[^;{}]{0,400}?url\(/gi;

const backgroundsSaid = (count: number): string[] =>
  count === 0
    ? []
    : [
        `${count === 1 ? 'A background is' : `${count} backgrounds are`} laid behind boxes by its styles: they are as wide as their boxes, and are not measured.`,
      ];

/** What stands beside a page's own pictures, and is not measured with it; asked before anything is taken away. */
function besidePictures(document: Document): string[] {
  const frames = all(document, 'iframe, frame, object[data], embed[src]').length;
  const unscripted = all(document, 'noscript').filter((one) =>
    /<(?:img|picture)\b/i.test(one.innerHTML),
  ).length;
  return [
    ...(frames > 0
      ? [
          `${frames === 1 ? 'A frame stands' : `${frames} frames stand`} on it: what is inside belongs to other pages. Measure those by themselves.`,
        ]
      : []),
    ...(unscripted > 0
      ? ['Pictures within noscript are measured, since no script runs here: visitors may see others.']
      : []),
  ];
}

/** What an editor should know of a page. */
const noticesOf = (document: Document, text: string, missing: number): string[] => [
  ...(missing > 0
    ? [
        `${missing} ${missing === 1 ? 'picture is' : 'pictures are'} not among the files: measured as a browser shows what is missing.`,
      ]
    : []),
  ...(document.querySelector('meta[name="viewport" i]')
    ? []
    : ['The page says nothing of its viewport: phones lay it out as 980 px wide and shrink it.']),
  ...(/<script\b/i.test(text) ? ['Its scripts were not run: what they build is not there.'] : []),
];

/** Addresses that pictures name, each once. */
function addressesIn(document: Document): Set<string> {
  const found = new Set<string>();
  // What is looked through is thrown away.
  readdressPictures(document.cloneNode(true) as Document, (address) => {
    found.add(address);
    return '';
  });
  return found;
}
