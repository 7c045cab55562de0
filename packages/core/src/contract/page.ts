// The page of a set: what stands on it in order, what it is called, and how it looks.
import type { Passage } from './passage.ts';
import type { SlotId } from './site.ts';

export type PagePart =
  | { kind: 'heading'; text: string }
  | { kind: 'text'; passage: Passage }
  /** A place with the photos that stand in it; an arrangement is one. With its title above it, or without. */
  | { kind: 'place'; slot: SlotId; titled: boolean };

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
  parts: { slot: SlotId; title: string; photos: number }[];
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
