// The page of a set: what stands on it in order, what it is called, and how it looks.
import type { InOthers } from './language.ts';
import type { Passage } from './passage.ts';
import type { SlotId } from './site.ts';

export type PagePart =
  | { kind: 'heading'; text: string; others?: InOthers }
  | { kind: 'text'; passage: Passage; others?: InOthers<Passage> }
  /** Links to the same page in the site's other languages. */
  | { kind: 'languages' }
  /** A place with the photos that stand in it; an arrangement is one. With its title above it, or without. */
  | { kind: 'place'; slot: SlotId; titled: boolean };

/** What a page says beside its parts. */
export interface PageTexts {
  title: string;
  description: string;
  /** Of the link back. */
  home: string;
}

/** How a page looks. "own" is the editor's template. */
export type PageDesign = 'plain' | 'wide' | 'own';

export interface SetPage {
  title: string;
  /** What search engines and previews of links say of it. */
  description: string;
  /** Its folder on the site. Stays when the title changes, so that links to it keep working. */
  folder: string;
  /** The link back; null for none. */
  home: { text: string; address: string } | null;
  /** It stands in the menu of the site's pages. */
  menu: boolean;
  design: PageDesign;
  /** "visitor": as the visitor's system says. */
  tone: 'light' | 'dark' | 'visitor';
  /** An HTML file with a marked spot, for the design "own"; see `templateProblem`. */
  template: string;
  parts: readonly PagePart[];
  others?: InOthers<Partial<PageTexts>>;
}

/** A page of the site, as others lead to it. */
export interface PageEntry {
  /** Id of its set. */
  set: number;
  title: string;
  description: string;
  folder: string;
  menu: boolean;
  /** Photos that stand in its set. */
  photos: number;
  /** Arrangements on it, in its order. */
  parts: { slot: SlotId; title: string; photos: number; others?: InOthers }[];
  /** Its title and description in other languages. */
  others?: InOthers<Partial<Omit<PageTexts, 'home'>>>;
}

/** An arrangement as it stands on the page of another set of the site. */
export interface Elsewhere {
  set: number;
  /** Of its page. */
  title: string;
  slot: SlotId;
  photos: number;
  /** Hashes of the originals of the first of them. */
  pictures: string[];
}
