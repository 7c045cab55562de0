// Text that an editor writes for a page.

/** A stretch of text that looks alike. */
export interface Run {
  text: string;
  strong?: true;
  emphasis?: true;
  /** Where it leads. */
  link?: string;
}

/** A paragraph, or an item of a list; items that follow each other are one list. */
export interface Paragraph {
  kind: 'paragraph' | 'item';
  runs: readonly Run[];
}

/** Text that an editor has written for a page. */
export type Passage = readonly Paragraph[];
