// The page of a hand-over: every figure of a set, slot by slot, and the stylesheet that gives slots their widths.
import type { PhotoRow, PlanContext, RowVariant, SlotId } from '../contract/index.ts';
import { cssWidths } from '../css/sizes.ts';
import { slotsOf } from '../plan/plan.ts';
import { escapeHtml, indent } from './html.ts';
import { figureMarkup } from './picture.ts';

export interface PageOptions {
  title: string;
  rows: readonly PhotoRow[];
  setSlots: readonly SlotId[];
  context: Pick<PlanContext, 'slots' | 'languages'>;
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
}

/** index.html: the first picture loads at once with high priority, the others lazily. */
export function pageMarkup({ title, rows, setSlots, context, urlOf }: PageOptions): string {
  let first = true;
  const sections = context.slots.flatMap((slot) => {
    const figures = rows
      .filter((row) => slotsOf(row, setSlots).includes(slot.id))
      .flatMap((row) => {
        const figure = figureMarkup({ row, slot, first, urlOf: (variant) => urlOf(row, variant) });
        if (figure) first = false;
        return figure ? [figure] : [];
      });
    if (figures.length === 0) return [];
    const heading = `<h2 id="${slot.id}">${escapeHtml(slot.name)}</h2>`;
    const body = `<div class="place place-${slot.id}">\n${indent(figures.join('\n'))}\n</div>`;
    return [`<section aria-labelledby="${slot.id}">\n${indent(`${heading}\n${body}`)}\n</section>`];
  });
  return `<!doctype html>
<html lang="${escapeHtml(context.languages[0] ?? 'en')}">
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>${escapeHtml(title)}</title>
    <link rel="stylesheet" href="styles.css">
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

const BASE = `/* Widths of the places; the sizes attributes in the markup say the same. */
*, ::before, ::after { box-sizing: border-box; }
/* Widths are measured on the page without its scroll bar (cqw), which units of the viewport would count in. */
body { container-type: inline-size; margin: 0; background: #fff; color: #221f2b; font: 1rem/1.5 system-ui, sans-serif; }
header, h2 { padding: 0 16px; }
h1 { margin: 16px 0; font-size: 1.5rem; }
h2 { margin: 32px 0 12px; font-size: 1rem; }
.photo { margin: 0; }
.photo picture { display: block; }
.photo img { display: block; width: 100%; height: auto; }
.photo figcaption { padding: 6px 0 0; font-size: 0.875rem; }
.photo details { padding: 4px 0 0; font-size: 0.875rem; }
.photo-hero details { padding: 4px 16px 0; }
.photo-hero figcaption { padding: 6px 16px 0; }
.place { display: flex; flex-wrap: wrap; gap: 24px 12px; padding: 0 16px; }
.place-hero { display: block; padding: 0; }
.place-hero .photo + .photo { margin-top: 24px; }
`;

/** styles.css: base rules, and each slot's widths from its width rule. */
export function stylesheet({ slots: places }: Pick<PlanContext, 'slots'>): string {
  const slots = places.map((slot) => {
    const shapes = slot.shapes
      .filter((part) => part.shape !== 'own')
      .reverse()
      .map((part) => {
        const rule = `.photo-${slot.id} img { aspect-ratio: ${part.shape.replace(':', ' / ')}; }`;
        return part.from > 0 ? `@media (min-width: ${part.from}px) { ${rule} }` : rule;
      });
    return [`/* ${slot.name} */`, cssWidths(`.photo-${slot.id}`, slot.rule), ...shapes].join('\n');
  });
  return `${BASE}\n${slots.join('\n\n')}\n`;
}
