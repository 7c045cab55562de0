// The page designs that ship, as styles: two plain ones, each light, dark, or as the visitor's system says.
import { arrangementIn, arrangementsIn } from '../arrange/cells.ts';
import type { PlanContext, SetPage, Slot, SlotId } from '../contract/index.ts';
import { cssLength } from '../css/sizes.ts';
import { figureStyles } from './styles.ts';

/** Class of the box on a page that an arrangement is planned for. */
export const columnClass = (slot: SlotId): string => `in-${slot}`;

/** A figure that stands at a side: texts flow around it. */
export function isFloated(slot: Slot): boolean {
  const options = arrangementIn(slot)?.options;
  return options?.kind === 'figure' && (options.side === 'left' || options.side === 'right');
}

const LIGHT = '--paper: #fbfaf6; --ink: #22202a; --quiet: #57535f; --rule: #d9d4c8; --link: #1f5a73;';
const DARK = '--paper: #17181c; --ink: #ecebe6; --quiet: #b3b0aa; --rule: #3a3b41; --link: #93cfe4;';

/** What both designs stand on. Text is at least 7:1, quiet text 4.5:1 on its paper. */
const BASE = `*, ::before, ::after { box-sizing: border-box; }
html { -webkit-text-size-adjust: 100%; }
body { ${LIGHT} margin: 0 0 64px; background: var(--paper); color: var(--ink); font: 1.0625rem/1.6 Georgia, "Times New Roman", serif; overflow-wrap: break-word; color-scheme: light; }
body.dark { ${DARK} color-scheme: dark; }
@media (prefers-color-scheme: dark) { body.visitor { ${DARK} color-scheme: dark; } }
body a { color: var(--link); text-underline-offset: 0.15em; }
body a:focus-visible { outline: 3px solid var(--link); outline-offset: 2px; }
header p, header nav { display: inline-block; margin: 0; margin-inline-end: 24px; vertical-align: top; }
header p { font-weight: 700; }
header nav ul, nav.languages ul { display: flex; flex-wrap: wrap; gap: 0 20px; margin: 0; padding: 0; list-style: none; }
header nav a, nav.languages a, header p a { display: inline-block; padding: 6px 0; }
header nav a[aria-current], nav.languages a[aria-current] { color: var(--ink); text-decoration-thickness: 2px; }
h1, h2, h3 { line-height: 1.2; text-wrap: balance; }
h1 { margin: 24px 0 20px; font-size: clamp(1.75rem, 5vw, 2.75rem); }
h2 { margin: 48px 0 14px; font-size: 1.375rem; }
h3 { margin: 24px 0 8px; font-size: 1.125rem; }
p, ul { margin: 0 0 1em; }
figcaption, small { color: var(--quiet); font-size: 0.9375rem; }
.dusky-worded small { color: inherit; }
.part { margin-block: 0 32px; margin-inline: var(--edge) 0; }
.text { max-width: min(720px, calc(100% - 32px)); }
.place { max-width: min(1140px, calc(100% - 32px)); }
.part.edge { max-width: none; margin-inline: 0; }
.part.edge figcaption { padding-inline: 16px; }
.flow::after { content: ""; display: block; clear: both; }
.dusky-text { max-width: 720px; }
@media print { body, body.dark, body.visitor { ${LIGHT} background: none; } header nav { display: none; } }
`;

/** A column as wide as what is planned for one, with a rule below its head. */
const PLAIN = `.plain { --edge: max(16px, calc((100% - 1140px) / 2)); }
.plain header { margin: 0 var(--edge) 28px; padding: 20px 0 0; border-bottom: 1px solid var(--rule); }
`;

/** Large type, everything from an edge at the side on, and more room. */
const WIDE = `.wide { --edge: max(16px, min(6vw, calc((100% - 1140px) / 2))); font-family: "Segoe UI", "Helvetica Neue", Arial, sans-serif; font-size: 1.125rem; }
.wide header { padding: 28px var(--edge) 0; }
.wide h1 { margin: 40px 0 32px; font-size: clamp(2.25rem, 8vw, 5rem); line-height: 1.05; letter-spacing: -0.02em; }
.wide h2 { margin-top: 72px; font-size: clamp(1.5rem, 4vw, 2.25rem); letter-spacing: -0.01em; }
.wide .part { margin-block-end: 48px; }
.wide .text { max-width: min(860px, calc(100% - 2 * var(--edge))); font-size: 1.25rem; line-height: 1.5; }
`;

/**
 * A box is as wide as is planned for, and begins where everything does, or as near as it fits. What is planned by the
 * window's width knows nothing of a scroll bar: it is never wider than what that leaves.
 */
const SIZED = `.sized { width: var(--wide); max-width: 100%; margin-inline-start: clamp(0px, var(--edge, 100vw), (100% - var(--wide)) / 2); }
`;

/** The width of each arrangement's box, by the window's: what its files are planned for. */
function boxes({ slots }: Pick<PlanContext, 'slots'>): string {
  const rules = arrangementsIn(slots).flatMap(({ shortName, container }) => {
    const own = `.${columnClass(shortName)}`;
    const widths = container.map(({ from, ...piece }) => {
      const rule = `${own} { --wide: ${cssLength(piece)}; }`;
      return from > 0 ? `@media (min-width: ${from}px) { ${rule} }` : rule;
    });
    const wholeWindow = container.every(({ vw, px }) => vw === 1 && px === 0);
    return wholeWindow ? [...widths, `${own} > h2 { padding-inline: 16px; }`] : widths;
  });
  return rules.length > 0 ? `${SIZED}${rules.join('\n')}\n` : '';
}

/** styles.css: the page's own rules, then those that go with its figures wherever they are pasted. */
export function pageStyles(context: Pick<PlanContext, 'slots'>, { design }: Pick<SetPage, 'design'>): string {
  const own = design === 'own' ? '' : `${BASE}${design === 'wide' ? WIDE : PLAIN}`;
  return `/* This page alone. */\n${own}${boxes(context)}\n${figureStyles(context)}`;
}
