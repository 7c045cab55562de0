// A long description between the text that is kept and the document that the editor shows.
import { blocksOf, textOfBlocks } from '@dusky-otter/core/words';
import type { JSONContent } from '@tiptap/core';

const paragraph = (text: string): JSONContent => ({
  type: 'paragraph',
  ...(text && { content: [{ type: 'text', text }] }),
});

const tableRow = (kind: 'tableHeader' | 'tableCell', cells: readonly string[]): JSONContent => ({
  type: 'tableRow',
  content: cells.map((cell) => ({ type: kind, content: [paragraph(cell)] })),
});

/** The editor's document for a text. */
export function docOf(text: string): JSONContent {
  const blocks = blocksOf(text);
  const content = blocks.map((block) =>
    block.kind === 'paragraph'
      ? paragraph(block.text)
      : {
          type: 'table',
          content: [
            tableRow('tableHeader', block.head),
            ...block.lines.map((line) => tableRow('tableCell', line)),
          ],
        },
  );
  return { type: 'doc', content: content.length > 0 ? content : [paragraph('')] };
}

/** All text below a node; what stands in paragraphs of its own is parted by spaces. */
function textIn(node: JSONContent): string {
  if (node.type === 'text') return node.text ?? '';
  return (node.content ?? []).map(textIn).join(node.type === 'paragraph' ? '' : ' ');
}

const isBarred = (line: string): boolean => /^\|.*\|$/.test(line.trim());

/** Paragraphs that follow each other and are written as lines of a table are one. */
function joined(nodes: readonly JSONContent[]): string[] {
  const parts: string[] = [];
  let barred = false;
  for (const node of nodes) {
    if (node.type === 'table') {
      const [head, ...lines] = (node.content ?? []).map((row) => (row.content ?? []).map(textIn));
      if (head) parts.push(textOfBlocks([{ kind: 'table', head, lines }]));
      barred = false;
      continue;
    }
    const text = textIn(node);
    if (barred && isBarred(text)) parts.push(`${parts.pop()}\n${text.trim()}`);
    else parts.push(text);
    barred = isBarred(text);
  }
  return parts;
}

/** The text for the editor's document, tables that were typed with bars among it. */
export const textOfDoc = (doc: JSONContent): string =>
  textOfBlocks(joined(doc.content ?? []).flatMap(blocksOf));

/** True where the text holds a table that the document shows as lines. */
export const hasTypedTable = (doc: JSONContent): boolean =>
  blocksOf(textOfDoc(doc)).filter(({ kind }) => kind === 'table').length >
  (doc.content ?? []).filter(({ type }) => type === 'table').length;
