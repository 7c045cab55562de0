// A passage as HTML: paragraphs, lists, emphasis and links, and nothing else.
import type { Passage, Run } from '../contract/index.ts';
import { linkProblem } from '../html/link.ts';
import { escapeHtml, indent, tag } from '../html/html.ts';

function runMarkup({ text, strong, emphasis, link }: Run): string {
  let inside = escapeHtml(text).replace(/\n/g, '<br>');
  if (emphasis) inside = `<em>${inside}</em>`;
  if (strong) inside = `<strong>${inside}</strong>`;
  // What an earlier version let in leads nowhere.
  return link !== undefined && link.trim() !== '' && linkProblem(link) === null
    ? `${tag('a', { href: link.trim() })}${inside}</a>`
    : inside;
}

const inside = (runs: readonly Run[]): string => runs.map(runMarkup).join('');

/** "" for a passage that says nothing. */
export function passageMarkup(passage: Passage): string {
  const lines: string[] = [];
  for (let at = 0; at < passage.length; at++) {
    const { kind, runs } = passage[at]!;
    if (kind === 'paragraph') {
      if (runs.some(({ text }) => text.trim() !== '')) lines.push(`<p>${inside(runs)}</p>`);
      continue;
    }
    const items: string[] = [];
    for (; passage[at]?.kind === 'item'; at++) items.push(`<li>${inside(passage[at]!.runs)}</li>`);
    at -= 1;
    lines.push(`<ul>\n${indent(items.join('\n'))}\n</ul>`);
  }
  return lines.join('\n');
}
