// Text that an editor writes for a page: what may stand in it, and as plain text.
import type { Paragraph, Passage, Run } from '../contract/index.ts';
import { linkProblem } from './link.ts';

const MOST_PARAGRAPHS = 200;
const MOST_RUNS = 500;
/** Characters of a passage, in all. */
const LONGEST_PASSAGE = 50_000;

const RUN_PARTS: readonly string[] = ['text', 'strong', 'emphasis', 'link'];

function runProblem(run: unknown): string | null {
  const broken = 'A text is made of paragraphs and lists.';
  if (typeof run !== 'object' || run === null || Object.keys(run).some((name) => !RUN_PARTS.includes(name)))
    return broken;
  const { text, strong, emphasis, link } = run as Record<string, unknown>;
  if (typeof text !== 'string' || ![strong, emphasis].every((mark) => mark === undefined || mark === true))
    return broken;
  if (link === undefined) return null;
  return typeof link === 'string' ? linkProblem(link) : broken;
}

/** What is wrong with a passage, as a sentence, or null. Whatever is sent may be looked at. */
export function passageProblem(passage: unknown): string | null {
  const broken = 'A text is made of paragraphs and lists.';
  if (!Array.isArray(passage) || passage.length > MOST_PARAGRAPHS) return broken;
  let length = 0;
  for (const paragraph of passage as unknown[]) {
    if (typeof paragraph !== 'object' || paragraph === null) return broken;
    const { kind, runs, ...others } = paragraph as Record<string, unknown>;
    if ((kind !== 'paragraph' && kind !== 'item') || Object.keys(others).length > 0) return broken;
    if (!Array.isArray(runs) || runs.length > MOST_RUNS) return broken;
    for (const run of runs as unknown[]) {
      const problem = runProblem(run);
      if (problem) return problem;
      length += (run as Run).text.length;
    }
  }
  return length <= LONGEST_PASSAGE ? null : `A text has up to ${LONGEST_PASSAGE} characters.`;
}

/** What a paragraph says, without its looks. */
export const textOfParagraph = ({ runs }: Paragraph): string => runs.map(({ text }) => text).join('');

/** The beginning of a passage, to name it by. */
export const beginningOf = (passage: Passage): string =>
  passage.map(textOfParagraph).join(' ').replace(/\s+/g, ' ').trim().slice(0, 80);
