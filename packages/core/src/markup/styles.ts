// The stylesheet that goes with figures wherever they are pasted: it reaches nothing but what carries its classes, and
// holds its own against what a host page says about pictures.
import type { PlanContext, Slot, SlotId, WidthPiece } from '../contract/index.ts';
import { cssLength, cssNumber } from '../css/sizes.ts';
import { pieceAt } from '../css/width-rule.ts';
import { ratioOf } from '../geometry/geometry.ts';
import { tallestCss, widestByHeight } from '../slots/tallest.ts';
import { rowsOf, USUAL_GAP } from '../slots/typed-width.ts';

/** Every class, custom property and id of ours begins with this: none of it meets a name of the host page. */
export const OWN = 'dusky';

export const figureClass = (slot: SlotId): string => `${OWN}-photo ${OWN}-in-${slot}`;
export const rowClass = (slot: SlotId): string => `${OWN}-row ${OWN}-row-${slot}`;

/**
 * `!important` stands where a host's rules for pictures, however many ids and classes they name, would stretch, cut or
 * crowd ours; colours, fonts and spacing of texts are the host's.
 *
 * A part of the viewport's width is a part of `--dusky-vw`. Alone, a figure is as wide as its container and at most as
 * planned. In a row the container counts as a window with 16 px free on both sides, so that as many stand beside each
 * other as in the window, in narrow columns and beside scroll bars too.
 */
const BASE = `/* Photos: each is as wide as its container, and at most as wide as its place. */
.${OWN}-photo { --${OWN}-vw: 1vw; display: block !important; box-sizing: border-box !important; float: none !important; width: 100% !important; min-width: 0 !important; margin-left: 0 !important; margin-right: 0 !important; padding: 0 !important; border: 0 !important; }
.${OWN}-photo picture, .${OWN}-photo > a { display: block !important; width: auto !important; max-width: none !important; margin: 0 !important; padding: 0 !important; border: 0 !important; }
.${OWN}-photo img { display: block !important; box-sizing: border-box !important; float: none !important; width: 100% !important; min-width: 0 !important; max-width: 100% !important; height: auto !important; min-height: 0 !important; margin: 0 !important; padding: 0 !important; border: 0 !important; object-fit: cover !important; }
img.${OWN}-photo { margin: 0 !important; height: auto !important; min-height: 0 !important; object-fit: cover !important; }
.${OWN}-photo figcaption { padding: 6px 0 0; font-size: 0.875rem; }
.${OWN}-photo details { padding: 4px 0 0; font-size: 0.875rem; overflow-x: auto; }
.${OWN}-photo details th, .${OWN}-photo details td { padding: 4px 12px 4px 0; text-align: start; vertical-align: top; }
.${OWN}-photo .${OWN}-said { display: block; padding: 4px 0 0; font-size: 0.875rem; }
.${OWN}-row { display: flex !important; flex-wrap: wrap !important; align-items: flex-start; gap: 24px ${USUAL_GAP}px; box-sizing: border-box !important; width: 100% !important; margin-left: 0 !important; margin-right: 0 !important; padding: 0 !important; container: ${OWN}-row / inline-size; }
.${OWN}-row > .${OWN}-photo { --${OWN}-vw: min(1vw, 1cqw + 0.32px); flex: none !important; }
`;

/** What a window has beside its column, in all; CSS px. */
const ROW_MARGIN = 32;

/** A hair less than planned: rounded up, the last of a row would find no room. CSS px. */
const HAIR = 0.02;

/**
 * A width rule as the most that a figure may take. Alone it goes by the window; in a row, where a change of the rule needs
 * the room as well, by the window and its container.
 */
function widest(slot: Slot): string {
  const own = `${OWN}-in-${slot.id}`;
  return [
    ...slot.rule.map((piece) => atWindow(piece.from, `.${own} { ${mostOf(piece)} }`)),
    ...slot.rule
      .slice(1)
      .map(({ from }, n) => {
        const before = slot.rule[n]!;
        const narrow = `@container ${OWN}-row (max-width: ${cssNumber(Math.max(0, from - ROW_MARGIN - HAIR))}px)`;
        return atWindow(from, `${narrow} { .${own} { ${mostOf(before)} } }`);
      })
      .reverse(),
  ].join('\n');
}

const atWindow = (from: number, rule: string): string =>
  from > 0 ? `@media (min-width: ${cssNumber(from)}px) { ${rule} }` : rule;

/** One line of a rule; `100cqw` and 32 px stand for `100vw` inside a row. */
function mostOf(piece: WidthPiece): string {
  const said = cssLength(piece)
    .replace(/(-?[\d.]+)vw/g, `$1 * var(--${OWN}-vw)`)
    .replace(/^calc\((.*)\)$/, '$1');
  // A fitted photo ends where its own box does.
  return `max-width: min(${said.includes('var(') ? `${said} - ${HAIR}px` : said}, var(--${OWN}-most, 100vw)) !important;`;
}

const ratios = (slot: Slot): string[] =>
  slot.shapes
    .filter((part) => part.shape !== 'own')
    .reverse()
    .map((part) => {
      const rule = `.${OWN}-in-${slot.id} img { aspect-ratio: ${part.shape.replace(':', ' / ')} !important; }`;
      return part.from > 0 ? `@media (min-width: ${part.from}px) { ${rule} }` : rule;
    });

/** What a place's height leaves: pictures cut to it, or as narrow as they are seen whole in it. */
function heightRules(slot: Slot): string[] {
  const { tallest } = slot;
  const own = `.${OWN}-in-${slot.id}`;
  if (tallest?.cut) return [`${own} img, img${own} { max-height: ${tallestCss(tallest)} !important; }`];
  return slot.shapes
    .filter(({ shape }) => shape !== 'own')
    .reverse()
    .flatMap(({ shape, from }) => {
      const widest = widestByHeight(slot, ratioOf(shape, { width: 1, height: 1 }));
      return widest === null ? [] : [atWindow(from, `${own} { --${OWN}-most: ${widest}; }`)];
    });
}

/** Rows of a place whose pictures were said to stand so many across: no more of them, with the space said between. */
function rowRules(slot: Slot): string[] {
  const said = rowsOf(slot);
  if (!said) return [];
  const row = `.${OWN}-row-${slot.id}`;
  const starts = [...new Set([...slot.rule, ...said.across].map(({ from }) => from))].sort((a, b) => a - b);
  return [
    `${row} { gap: ${Math.max(USUAL_GAP, said.gap)}px ${said.gap}px; }`,
    ...starts.map((from) => {
      const { count } = said.across.find((part) => from >= part.from)!;
      const { vw, px } = pieceAt(slot.rule, from);
      const all = cssLength({ vw: vw * count, px: px * count + said.gap * (count - 1) });
      return atWindow(from, `${row} { max-width: ${all} !important; }`);
    }),
  ];
}

/** The stylesheet for figures of these places. */
export const figureStyles = ({ slots }: Pick<PlanContext, 'slots'>): string =>
  `${BASE}\n${slots
    // Arrangements have stylesheets of their own; see markup/arranged.
    .filter(({ arranged, of }) => arranged === undefined && of === undefined)
    .map((slot) =>
      [
        `/* ${slot.name.replace(/\*\//g, '* /')} */`,
        widest(slot),
        ...ratios(slot),
        ...heightRules(slot),
        ...rowRules(slot),
      ].join('\n'),
    )
    .join('\n\n')}\n`;
