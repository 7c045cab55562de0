// The page of a hand-over: every figure of a set, slot by slot, and the stylesheet that gives slots their widths.
import type { Language, PhotoRow, PlanContext, RowVariant, Slot, SlotId } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { slotsOf } from '../plan/plan.ts';
import { arrangementIn } from '../arrange/cells.ts';
import { PHONE } from '../slots/devices.ts';
import { standable } from '../slots/slots.ts';
import { isRightToLeft } from '../words/translated.ts';
import { arrangedMarkup } from './arranged/arranged.ts';
import { escapeHtml, indent, tag } from './html.ts';
import { figureMarkup, rowMarkup } from './picture.ts';
import { figureStyles, OWN } from './styles.ts';

export interface PageOptions {
  title: string;
  rows: readonly PhotoRow[];
  setSlots: readonly SlotId[];
  context: Pick<PlanContext, 'slots' | 'languages' | 'policy'>;
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
  /** Of the page; the first of the site's where left out. */
  language?: Language;
  /** Language of a photo's words, where it is not the page's. */
  wordsLanguage?: (row: PhotoRow) => Language;
  /** From the page's folder to that of the styles. */
  base?: string;
  /** Arrangements on it need the script beside the styles. */
  scripted?: boolean;
}

/** index.html: the first picture loads at once with high priority, the others lazily. */
export function pageMarkup(options: PageOptions): string {
  const { title, rows, setSlots, context, urlOf, wordsLanguage, base = '', scripted = false } = options;
  const language = options.language ?? context.languages[0] ?? 'en';
  let first = true;
  const sections = standable(context.slots).flatMap((slot) => {
    const standing = rows.filter((row) => slotsOf(row, setSlots).includes(slot.id));
    const arrangement = arrangementIn(slot);
    if (arrangement) {
      const both = context.policy.modern === 'both';
      const markup = arrangedMarkup({
        ...{ arrangement, rows: standing, urlOf, first, both, language },
        ...(wordsLanguage && { wordsLanguage }),
      });
      if (markup === '') return [];
      first = false;
      return [arrangedPart(slot, markup)];
    }
    const figures = standing.flatMap((row) => {
      const figure = figureMarkup({
        row,
        slot,
        first,
        both: context.policy.modern === 'both',
        language,
        ...(wordsLanguage && { wordsLanguage: wordsLanguage(row) }),
        urlOf: (variant) => urlOf(row, variant),
      });
      if (figure) first = false;
      return figure ? [figure] : [];
    });
    return figures.length > 0 ? [sectionMarkup(slot, rowMarkup(slot, figures))] : [];
  });
  return `<!doctype html>
${tag('html', { lang: language, dir: isRightToLeft(language) ? 'rtl' : null })}
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>${escapeHtml(title)}</title>
    <link rel="stylesheet" href="${base}styles.css">${scripted ? `\n    <script src="${base}script.js" defer></script>` : ''}
  </head>
  <body>
    <header><h1>${escapeHtml(title)}</h1></header>
    <main>
${indent(sections.join('\n'), 3)}
    </main>
  </body>
</html>
`;
}

/** One place of the page under its name. */
function sectionMarkup(slot: Slot, inside: string): string {
  const id = `${OWN}-${slot.id}`;
  const heading = `<h2 id="${id}">${escapeHtml(slot.name)}</h2>`;
  const kind = reachesEdges(slot) ? ' class="edge"' : '';
  return `<section aria-labelledby="${id}"${kind}>\n${indent(`${heading}\n${inside}`)}\n</section>`;
}

/** An arrangement under its title; it is a section by itself. */
const arrangedPart = (slot: Slot, markup: string): string =>
  `<div class="${reachesEdges(slot) ? 'part edge' : 'part'}">\n${indent(`<h2>${escapeHtml(slot.name)}</h2>\n${markup}`)}\n</div>`;

/** Whether a place is as wide as a phone's window: then it has no margin beside it. */
const reachesEdges = (slot: Slot): boolean => widthAt(slot.rule, PHONE.viewport) >= PHONE.viewport;

const PAGE = `*, ::before, ::after { box-sizing: border-box; }
body { margin: 0; background: #fff; color: #221f2b; font: 1rem/1.5 system-ui, sans-serif; }
header, section, .part { padding: 0 16px; }
.edge { padding: 0; }
.edge h2, .edge figcaption, .edge details { padding-left: 16px; padding-right: 16px; }
h1 { margin: 16px 0; font-size: 1.5rem; }
h2 { margin: 32px 0 12px; font-size: 1rem; }
`;

/** styles.css: the page's own rules, then those that go with its figures wherever they are pasted. */
export const stylesheet = (context: Pick<PlanContext, 'slots'>): string =>
  `/* This page alone. */\n${PAGE}\n${figureStyles(context)}`;
