// A page in an editor's own HTML file: a marked spot is filled, and what the arrangements need is linked in its head.

/** Marks the spot that takes the page, as a comment: it harms no page that is looked at without us. */
export const SPOT = '<!-- dusky: page -->';
/** Marks where the title goes; it may stand several times, or not at all. */
export const TITLE_SPOT = '<!-- dusky: title -->';

export const LONGEST_TEMPLATE = 200_000;

const MARK = /<!--\s*dusky:\s*(page|title)\s*-->/gi;
/** The end of the head, where it is written out. */
const HEAD_END = /<\/head\s*>/i;

/** What is wrong with a template, as a sentence, or null. */
export function templateProblem(template: string): string | null {
  if (template.trim() === '') return 'A page of your own needs your HTML file.';
  if (template.length > LONGEST_TEMPLATE) return 'The HTML file is longer than 200,000 characters.';
  const spots = [...template.matchAll(MARK)].filter(([, name]) => name!.toLowerCase() === 'page').length;
  if (spots !== 1)
    return `The HTML file has ${spots === 0 ? 'no' : `${spots}`} marked spot${spots > 1 ? 's' : ''} for the page: write ${SPOT} once, where it is to stand.`;
  return HEAD_END.test(template)
    ? null
    : 'The HTML file has no </head>: what the page needs is linked there.';
}

/**
 * The filled template.
 * @param title as HTML
 * @param head what goes at the end of the head
 * @param page what goes into the marked spot
 */
export function filledTemplate(template: string, title: string, head: string, page: string): string {
  return template
    .replace(HEAD_END, (end) => `${head}\n${end}`)
    .replace(MARK, (_, name: string) => (name.toLowerCase() === 'page' ? page : title));
}
