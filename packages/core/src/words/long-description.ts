// A long description as plain text that people can read anywhere: paragraphs between empty lines, and tables whose lines
// begin and end with a bar, as GitHub Flavored Markdown writes them. What else Markdown knows is text like any other.

export type DescriptionBlock =
  | { kind: 'paragraph'; text: string }
  /** The first line heads the columns. Lines are as long as that one. */
  | { kind: 'table'; head: string[]; lines: string[][] };

/** The line below the head: `| --- | :-: |`. */
const RULE = /^\|(?:\s*:?-+:?\s*\|)+$/;
const isBarred = (line: string): boolean => line.length > 1 && line.startsWith('|') && line.endsWith('|');

/** Cells of a barred line; `\\|` is a bar inside a cell, `\\\\` a backslash. */
function cellsOf(line: string): string[] {
  const cells: string[] = [];
  let cell = '';
  for (let at = 1; at < line.length; at++) {
    const [here, behind] = [line[at]!, line[at + 1]];
    if (here === '\\' && (behind === '|' || behind === '\\')) cell += line[++at]!;
    else if (here === '|') {
      cells.push(cell.trim());
      cell = '';
    } else cell += here;
  }
  return cells;
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

function tableOf(lines: readonly string[]): DescriptionBlock | null {
  if (lines.length < 2 || !lines.every(isBarred) || !RULE.test(lines[1]!)) return null;
  const [head, , ...rest] = lines.map(cellsOf);
  const width = head!.length;
  return {
    kind: 'table',
    head: head!,
    lines: rest.map((cells) => Array.from({ length: width }, (_, n) => cells[n] ?? '')),
  };
}

/** What a long description is made of, in order. Line breaks inside a paragraph are spaces. */
export function blocksOf(text: string): DescriptionBlock[] {
  return text
    .split(/\n[^\S\n]*\n/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => {
      const lines = part.split('\n').map((line) => line.trim());
      return tableOf(lines) ?? { kind: 'paragraph', text: oneLine(part) };
    });
}

const barred = (cells: readonly string[]): string =>
  `| ${cells.map((cell) => oneLine(cell).replace(/[\\|]/g, (mark) => `\\${mark}`)).join(' | ')} |`;

/** The text that `blocksOf` reads as these blocks; empty paragraphs are left out. */
export function textOfBlocks(blocks: readonly DescriptionBlock[]): string {
  return blocks
    .map((block) =>
      block.kind === 'paragraph'
        ? oneLine(block.text)
        : [block.head, block.head.map(() => '---'), ...block.lines]
            .map((cells, n) => (n === 1 ? `| ${cells.join(' | ')} |` : barred(cells)))
            .join('\n'),
    )
    .filter((part) => part !== '')
    .join('\n\n');
}

/** The address that a long description consists of, where it is nothing else; null for one that is written out. */
export function descriptionAddress(text: string): string | null {
  const bare = text.trim();
  return /^(?:https?:\/\/|\/)\S+$/i.test(bare) ? bare : null;
}
