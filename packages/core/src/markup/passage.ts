// A passage as HTML: paragraphs, lists, emphasis and links, and nothing else.
import type { Language, Passage, Run } from '../contract/index.ts';
import { marked, type Said } from '../html/languages.ts';
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

/** A passage of a page, in a box of its own where it is in another language than the page. */
export function saidPassage({ text, language }: Said<Passage>, around: Language): string {
  const inner = passageMarkup(text);
  const { lang, dir } = marked(language, around);
  return inner === '' || lang === null ? inner : `${tag('div', { lang, dir })}\n${indent(inner)}\n</div>`;
}

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
