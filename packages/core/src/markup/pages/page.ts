// The page of a set: its parts in order, in one of the designs that ship or in the editor's own file.
import { arrangementIn } from '../../arrange/cells.ts';
import { hasOwnPages } from '../../arrange/options.ts';
import type {
  Arrangement,
  Language,
  PageEntry,
  PhotoRow,
  PlanContext,
  RowVariant,
  SetPage,
  SetPlaces,
  Slot,
  SlotId,
} from '../../contract/index.ts';
import { widthAt } from '../../css/width-rule.ts';
import { filledTemplate } from '../../page/template.ts';
import { slugOf } from '../../naming/naming.ts';
import { slotsOf } from '../../plan/set-places.ts';
import { partId } from '../arranged/styles.ts';
import { PHONE } from '../../slots/devices.ts';
import { standable } from '../../slots/slots.ts';
import { isRightToLeft } from '../../words/translated.ts';
import { arrangedMarkup } from '../arranged/arranged.ts';
import type { ArrangedLook } from '../arranged/items.ts';
import { columnClass, isFloated } from '../designs.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { passageMarkup } from '../passage.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { figureMarkup, rowMarkup } from '../picture.ts';

/** A laptop's window, and the column of texts in it; CSS px. */
const LAPTOP = 1280;
const TEXT = 720;

export interface PageOptions {
  page: SetPage;
  rows: readonly PhotoRow[];
  setPlaces: SetPlaces;
  context: Pick<PlanContext, 'slots' | 'languages' | 'policy'>;
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
  /** The site's pages, for its menu and for indexes; this one among them. */
  entries?: readonly PageEntry[];
  addressOfPage?: (page: PageEntry) => string;
  /** Id of the set whose page it is. */
  set?: number;
  /** It is a further page of the set's: a gallery's. */
  further?: boolean;
  /** Arrangements of which another page than the first is shown, and the addresses of their pages. */
  turned?: ReadonlyMap<SlotId, NonNullable<ArrangedLook['page']>>;
  /** Address of a picture's own page, within arrangements whose pictures have some. */
  ownPageOf?: (arrangement: Arrangement, row: PhotoRow) => string;
  /** Of the page; the first of the site's where left out. */
  language?: Language;
  /** Language of a photo's words, where it is not the page's. */
  wordsLanguage?: (row: PhotoRow) => Language;
  /** From the page's folder to that of the styles. */
  base?: string;
  /** Arrangements on it need the script beside the styles. */
  scripted?: boolean;
}

/** What of a page's context an arrangement on it needs. */
export function lookOf(options: PageOptions, arrangement: Arrangement): Omit<ArrangedLook, 'first'> {
  const { urlOf, context, wordsLanguage, turned, ownPageOf, entries = [], addressOfPage } = options;
  const page = turned?.get(arrangement.shortName);
  return {
    arrangement,
    urlOf,
    both: context.policy.modern === 'both',
    language: languageOf(options),
    ...(wordsLanguage && { wordsLanguage }),
    ...(page && { page }),
    ...(ownPageOf &&
      hasOwnPages(arrangement) && { ownPageOf: (row: PhotoRow) => ownPageOf(arrangement, row) }),
    ...(addressOfPage && {
      pages: {
        of: (set: number) => entries.find((one) => one.set === set) ?? null,
        addressOf: addressOfPage,
      },
    }),
  };
}

const languageOf = ({ language, context }: PageOptions): Language => language ?? context.languages[0] ?? 'en';

/** The photos of one place; "" where none has its files. */
export function placeMarkup(slot: Slot, first: boolean, titled: boolean, options: PageOptions): string {
  const { rows, setPlaces, context, urlOf, wordsLanguage } = options;
  const standing = rows.filter((row) => slotsOf(row, setPlaces).includes(slot.id));
  const arrangement = arrangementIn(slot);
  if (arrangement) {
    const under = titled ? 'h3' : 'h2';
    return arrangedMarkup({ ...lookOf(options, arrangement), rows: standing, first, under });
  }
  const figures = standing.flatMap((row, n) => {
    const figure = figureMarkup({
      row,
      slot,
      first: first && n === 0,
      both: context.policy.modern === 'both',
      language: languageOf(options),
      ...(wordsLanguage && { wordsLanguage: wordsLanguage(row) }),
      urlOf: (variant) => urlOf(row, variant),
    });
    return figure ? [figure] : [];
  });
  return figures.length > 0 ? rowMarkup(slot, figures) : '';
}

/** Whether a place is as wide as a phone's window: then it has no margin beside it. */
const reachesEdges = (slot: Slot): boolean => widthAt(slot.rule, PHONE.viewport) >= PHONE.viewport;

/** A place as wide as a column of text, which one alone takes: it stands where the texts do. */
function isColumn(slot: Slot): boolean {
  const wide = widthAt(slot.rule, LAPTOP);
  return wide > TEXT / 2 && wide <= TEXT;
}

/** A place in a box of the width that it is planned for. */
export function boxed(slot: Slot, inside: string, titled: boolean): string {
  const arrangement = arrangementIn(slot);
  const kind = arrangement
    ? `part sized ${columnClass(slot.id)}`
    : reachesEdges(slot)
      ? 'part place edge'
      : isColumn(slot)
        ? 'part text'
        : 'part place';
  const heading = titled ? `<h2>${escapeHtml(slot.name)}</h2>\n` : '';
  // An arrangement has its own within.
  const open = tag('div', { class: kind, id: arrangement ? null : partId(slot.id) });
  return `${open}\n${indent(heading + inside)}\n</div>`;
}

/** Letters of a heading's id that its words give. */
const LONGEST_ID = 40;

/** Id of a heading by its words, which no other heading of the page has. @param given those that have one; it joins them */
function headingId(text: string, given: Set<string>): string {
  const base = `to-${slugOf(text, LONGEST_ID) || 'part'}`;
  let name = base;
  for (let n = 2; given.has(name); n += 1) name = `${base}-${n}`;
  given.add(name);
  return partId(name);
}

/** The parts of a page in order. Texts behind a figure that stands at a side flow around it, in its column. */
function partsMarkup(options: PageOptions): string {
  const { page, context } = options;
  const slots = new Map(standable(context.slots).map((slot) => [slot.id, slot]));
  const blocks: string[] = [];
  /** The column that texts flow in, with what stands there so far. */
  let flowing: { slot: Slot; inside: string[] } | null = null;
  const end = () => {
    if (flowing)
      blocks.push(
        `<div class="part sized flow ${columnClass(flowing.slot.id)}">\n${indent(flowing.inside.join('\n'))}\n</div>`,
      );
    flowing = null;
  };
  let first = true;
  const headings = new Set<string>();
  for (const part of page.parts) {
    if (part.kind === 'text') {
      const text = passageMarkup(part.passage);
      if (text === '') continue;
      if (flowing) (flowing as { inside: string[] }).inside.push(text);
      else blocks.push(`<div class="part text">\n${indent(text)}\n</div>`);
      continue;
    }
    end();
    if (part.kind === 'heading') {
      const open = tag('h2', { class: 'part text', id: headingId(part.text, headings) });
      blocks.push(`${open}${escapeHtml(part.text)}</h2>`);
      continue;
    }
    const slot = slots.get(part.slot);
    const inside = slot ? placeMarkup(slot, first, part.titled, options) : '';
    if (!slot || inside === '') continue;
    first = false;
    if (isFloated(slot)) {
      const heading = part.titled ? [`<h2>${escapeHtml(slot.name)}</h2>`] : [];
      flowing = { slot, inside: [...heading, inside] };
    } else blocks.push(boxed(slot, inside, part.titled));
  }
  end();
  return blocks.join('\n');
}

/** Links to the other pages of the site; none where it is its only one. */
function menuMarkup(options: PageOptions): string[] {
  const { entries = [], addressOfPage, set } = options;
  const listed = entries.filter(({ menu }) => menu);
  if (!addressOfPage || listed.length < 2) return [];
  const items = listed.map((entry) => {
    const open = tag('a', {
      href: addressOfPage(entry),
      // Within the set's page, but not the page itself: a further page of a gallery (WAI-ARIA 1.2, aria-current).
      'aria-current': entry.set !== set ? null : options.further ? 'true' : 'page',
    });
    return `<li>${open}${escapeHtml(entry.title)}</a></li>`;
  });
  const { phrases } = phrasesIn(languageOf(options));
  const nav = tag('nav', { 'aria-label': phrases.menu });
  return [`${nav}\n${indent(`<ul>\n${indent(items.join('\n'))}\n</ul>`)}\n</nav>`];
}

const homeMarkup = ({ home }: SetPage): string[] =>
  home ? [`<p>${tag('a', { href: home.address })}${escapeHtml(home.text)}</a></p>`] : [];

/** What stands above the title of every page: the link home and the menu. */
export const aboveOf = (options: PageOptions): string[] => [
  ...homeMarkup(options.page),
  ...menuMarkup(options),
];

/** What a page is made of, wherever it stands: a whole one, or the marked spot of a template. */
export interface WholePage {
  title: string;
  /** What its heading says, where that is not its title. */
  heading?: string;
  description: string;
  /** What stands above its title: the link home, the menu. */
  above: readonly string[];
  main: string;
}

/** A whole document in a page's design. */
export function documentMarkup(
  options: PageOptions,
  { title, heading: shown = title, description, above, main }: WholePage,
): string {
  const { page, base = '', scripted = false } = options;
  const language = languageOf(options);
  const links = [
    ...(description.trim() ? [tag('meta', { name: 'description', content: description.trim() })] : []),
    tag('link', { rel: 'stylesheet', href: `${base}styles.css` }),
    ...(scripted ? [`<script src="${base}script.js" defer></script>`] : []),
  ].join('\n');
  const heading = `<h1>${escapeHtml(shown)}</h1>`;
  if (page.design === 'own') {
    const inside = /<h1[\s>]/i.test(page.template) ? main : `${heading}\n${main}`;
    return filledTemplate(page.template, escapeHtml(title), links, inside);
  }
  return `<!doctype html>
${tag('html', { lang: language, dir: isRightToLeft(language) ? 'rtl' : null })}
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>${escapeHtml(title)}</title>
${indent(links, 2)}
  </head>
  ${tag('body', { class: `${page.design} ${page.tone}` })}
    <header>
${indent([...above, heading].join('\n'), 3)}
    </header>
    <main>
${indent(main, 3)}
    </main>
  </body>
</html>
`;
}

/** index.html: the first picture loads at once with high priority, the others lazily. */
export function pageMarkup(options: PageOptions): string {
  const { page } = options;
  const { title, description } = page;
  return documentMarkup(options, {
    ...{ title, description },
    above: aboveOf(options),
    main: partsMarkup(options),
  });
}
