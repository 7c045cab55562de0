// A passage between what is kept and the document that the editor shows.
import type { Paragraph, Passage, Run } from '@dusky-otter/core/contract';
import type { JSONContent } from '@tiptap/core';

const textNode = ({ text, strong, emphasis, link }: Run): JSONContent => ({
  type: 'text',
  text,
  marks: [
    ...(strong ? [{ type: 'bold' }] : []),
    ...(emphasis ? [{ type: 'italic' }] : []),
    ...(link !== undefined ? [{ type: 'link', attrs: { href: link } }] : []),
  ],
});

const paragraphNode = ({ runs }: Paragraph): JSONContent => ({
  type: 'paragraph',
  content: runs.filter(({ text }) => text !== '').map(textNode),
});

/** The editor's document for a passage; items that follow each other are one list. */
export function docOfPassage(passage: Passage): JSONContent {
  const content: JSONContent[] = [];
  for (const paragraph of passage) {
    const node = paragraphNode(paragraph);
    if (paragraph.kind === 'paragraph') {
      content.push(node);
      continue;
    }
    const item = { type: 'listItem', content: [node] };
    const before = content.at(-1);
    if (before?.type === 'bulletList') before.content!.push(item);
    else content.push({ type: 'bulletList', content: [item] });
  }
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

function runOf({ text = '', marks = [] }: JSONContent): Run {
  const link = marks.find(({ type }) => type === 'link')?.attrs?.href as unknown;
  return {
    text,
    ...(marks.some(({ type }) => type === 'bold') && { strong: true as const }),
    ...(marks.some(({ type }) => type === 'italic') && { emphasis: true as const }),
    ...(typeof link === 'string' && { link }),
  };
}

function paragraphsIn(node: JSONContent, kind: Paragraph['kind']): Paragraph[] {
  if (node.type === 'paragraph')
    return [{ kind, runs: (node.content ?? []).filter(({ type }) => type === 'text').map(runOf) }];
  const inside = node.type === 'listItem' ? 'item' : kind;
  return (node.content ?? []).flatMap((child) => paragraphsIn(child, inside));
}

/** The passage for the editor's document. Empty paragraphs at its end are left out. */
export function passageOfDoc(doc: JSONContent): Paragraph[] {
  const all = paragraphsIn(doc, 'paragraph');
  while (all.length > 0 && all.at(-1)!.runs.length === 0) all.pop();
  return all;
}
