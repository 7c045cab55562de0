// Sets, and how far their work has come.
import type { OriginalFacts } from './photo.ts';
import type { Language } from './language.ts';
import type { SetPage } from './page.ts';
import type { SlotId } from './site.ts';

export interface SetDecisions {
  name: string;
  /** Open slots: every photo without placements of its own stands in them. */
  slots: SlotId[];
  /** An editor has said where the photos stand, or left what was proposed. */
  arranged: boolean;
  /** The page was looked at and found right, and nothing has changed since. */
  rehearsed: boolean;
  /** Put away: not among the sets one works on. */
  archived: boolean;
  /** Its page; null: one that follows from where its photos stand. */
  page: SetPage | null;
}

/** Where photos of a set are seen. */
export interface SetPlaces {
  /** Open slots: every photo without placements of its own stands in them. */
  open: readonly SlotId[];
  /** Those that its page shows; null: all in which photos stand. */
  shown: readonly SlotId[] | null;
}

export interface PhotoSet extends SetDecisions {
  id: number;
  siteId: number;
  version: number;
  /** Its files went out, and nothing has changed since. */
  handedOver: boolean;
}

export type Stop = 'frame' | 'weigh' | 'describe' | 'arrange';
export type Filter = 'all' | 'words' | 'crop' | 'budget' | 'small' | 'unplaced' | 'ready';

/** Bytes of what a screen is sent for all photos of a set, and whether everything of it is made. */
export interface SentBytes {
  sent: number;
  complete: boolean;
}

/** Photos by how their words stand. */
export interface WordCounts {
  described: number;
  decorative: number;
  /** Something that a check finds is kept on purpose. */
  kept: number;
  /** Somebody must still look at them. */
  open: number;
}

/** What the photos of a set that stand in one place add up to. */
export interface PlaceCounts {
  photos: number;
  /** Bytes that a phone is sent for them; 0 where the page does not show the place. */
  phone: SentBytes;
  /** Those with open work at each stop. */
  open: Record<Exclude<Stop, 'arrange'>, number>;
}

/** What a set's photos add up to, those in the bin apart. */
export interface SetCounts {
  /** Photos under each filter. */
  filters: Record<Filter, number>;
  /** Photos with open work at each stop. */
  open: Record<Stop, number>;
  /** How far the words have come: each photo counts once. */
  words: WordCounts;
  binned: number;
  /** What stands in each place, also in those that the page does not show. */
  places: Record<SlotId, PlaceCounts>;
  /** Photos with placements of their own. */
  placed: number;
  /** Bytes of the originals. */
  camera: number;
  phone: SentBytes;
  laptop: SentBytes;
}

/** A file that could not be taken in, with its reason. */
export interface Refusal {
  id: number;
  fileName: string;
  bytes: number;
  code: string;
  sentence: string;
}

/** A file that may take the place of a photo's original, until an editor says what becomes of it. */
export interface Offer {
  id: number;
  photo: number;
  fileName: string;
  original: OriginalFacts;
}

export interface Preparation {
  wanted: number;
  made: number;
  failed: number;
  paused: boolean;
  /** The second pass, which looks for smaller files: those it is over for, of those that it may make smaller. */
  thorough: { wanted: number; made: number; saved: number; now: boolean };
  /** What is being made, in words, or null when idle. */
  doing: string | null;
}

/** What one window can take back and do again in a set. */
export interface EditDepth {
  undo: number;
  redo: number;
  /** Sentence for the newest edit that can be taken back, or done again. */
  undoLabel: string | null;
  redoLabel: string | null;
  savedAt: string | null;
}

export interface SetSummary {
  id: number;
  name: string;
  archived: boolean;
  photos: number;
  /** Hashes of the first photos' originals, for pictures. */
  pictures: string[];
  counts: SetCounts | null;
  refusals: number;
  /** Files that may take a photo's place, until somebody says so. */
  offers: number;
  arranged: boolean;
  rehearsed: boolean;
  handedOver: boolean;
  /** When it was last worked on, ISO 8601, or null. */
  workedAt: string | null;
  /** Why the set can't be opened, as a sentence; null where it can. */
  problem: string | null;
}

/** What the photos on a set's page lack in one of the site's further languages. */
export interface LanguageLack {
  language: Language;
  /** Photos that have an alt text in the first language and none in this one. */
  photos: number;
  /** The first of them. */
  first: number | null;
  /** Placements with words of their own that have none in this language. */
  here: number;
}
