// A long description between the text that is kept and the document that the editor shows.
import { blocksOf, textOfBlocks, type DescriptionBlock } from '@dusky-otter/core';
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

function blockOf(node: JSONContent): DescriptionBlock[] {
  if (node.type !== 'table') return [{ kind: 'paragraph', text: textIn(node) }];
  const [head, ...lines] = (node.content ?? []).map((row) => (row.content ?? []).map(textIn));
  return head ? [{ kind: 'table', head, lines }] : [];
}

/** The text for the editor's document. A paragraph that looks like a barred line stays one: nothing is made of it. */
export const textOfDoc = (doc: JSONContent): string => textOfBlocks((doc.content ?? []).flatMap(blockOf));
