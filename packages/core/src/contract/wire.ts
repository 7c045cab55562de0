// What server and web tell each other.
import type { Photo, StoredFacts, Words } from './photo.ts';
import type { EditDepth, Offer, PhotoSet, Preparation, Refusal, SetCounts, SetSummary } from './set.ts';
import type { Site, SlotId } from './site.ts';

/** A photo as the server knows it: its decisions, and what is stored of the files that it wants. */
export interface SentPhoto extends Photo {
  /** By the keys of its plan; a key that is missing here is not made yet. */
  files: Record<string, StoredFacts>;
  /** Why files could not be made, by key. */
  failures: Record<string, string>;
  /** Names of other photos of the set with the same alt text. */
  sameAs: string[];
  /** The speaking part of its files' names; unlike those of all other photos of the set. */
  speaking: string;
  /** When this was so, in ms of the server's clock: what depends on other photos changes without a new version. */
  asOf: number;
}

/** What is read first of a set. Its photos come in pages. */
export interface SetHeader {
  site: Site;
  set: PhotoSet;
  counts: SetCounts;
  refusals: Refusal[];
  offers: Offer[];
  preparation: Preparation;
  edits: EditDepth;
  /** Id of the newest edit, 0 where there is none: what a window that opens the set now may take back is not newer. */
  newestEdit: number;
}

/** Some of the photos under a filter, in the set's order. */
export interface PhotoPage {
  /** How many stand under the filter in all. */
  total: number;
  /** Place of the first of `photos` among them, from 0. */
  from: number;
  photos: SentPhoto[];
}

/** All photos under a filter by id, each with its version: what a selection over all is made of. */
export interface PhotoList {
  ids: number[];
  versions: number[];
}

export interface SiteSummary extends Site {
  sets: SetSummary[];
}

export type TakeInResult =
  | { kind: 'new' | 'already-here' | 'back-from-bin'; photo: SentPhoto }
  | { kind: 'from-another-set'; photo: SentPhoto; setName: string }
  | { kind: 'refused'; refusal: Refusal }
  /** Words of photos: given to those of its name that are here, or kept for one that is still to come. */
  | { kind: 'words'; name: string; photos: string[] }
  /** Not added: a photo of that name is there, or it was sent for one. */
  | { kind: 'offered'; offer: Offer };

/** What an edit, an undo or a redo comes back with: the photos it changed as they are now, and the window's history. */
export interface EditAnswer {
  photos: SentPhoto[];
  set: PhotoSet;
  edits: EditDepth;
}

/** What the server tells listeners of a set. */
export type SetEvent =
  | { type: 'preparation'; preparation: Preparation }
  | ({ type: 'made'; photo: number; key: string } & StoredFacts)
  | { type: 'failed'; photo: number; keys: string[]; sentence: string }
  /** Stored files that turned out to be lost or changed: they are being made again. */
  | { type: 'unmade'; keys: string[] }
  /**
   * Photos that are no longer as they were: `changed` with the versions they have now, `near` without a change of
   * their own (another has the same words). Whoever shows them reads them anew. `listed`: which photos stand under a
   * filter, or in which order, may have changed as well.
   */
  | { type: 'photos'; changed: [id: number, version: number][]; near: number[]; listed: boolean }
  | { type: 'set'; set: PhotoSet }
  | { type: 'site'; site: Site }
  | { type: 'counts'; counts: SetCounts }
  | { type: 'refusals'; refusals: Refusal[] }
  | { type: 'offers'; offers: Offer[] }
  | { type: 'saved'; at: string }
  /** Events were missed: what is known of the set must be read anew. */
  | { type: 'reset' };

/** RFC 9457 problem document. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  code: string;
  /** With 409: the newer state. */
  photos?: SentPhoto[];
  set?: PhotoSet;
  site?: Site;
}

/** A place as photos stand in it, over all sets of its site. */
export interface PlaceUse {
  photos: number;
  /** What a phone is sent, in bytes, the heaviest first; the 100 heaviest. */
  weights: number[];
  /** The heaviest photo of the open set; null where none is made yet. */
  heaviest: { id: number; name: string; bytes: number } | null;
  /** Originals of the first photos, to show a few. */
  shown: { hash: string; width: number; height: number }[];
}

/** What a table of words would change of a set, before anything of it is done. */
export interface WordsPreview {
  /** Why nothing of it can be read, as a sentence; null where something can. */
  problem: string | null;
  /** Heads of columns that nobody knows. */
  unknown: string[];
  lines: number;
  /** Lines that say what is said already. */
  alike: number;
  changes: {
    line: number;
    photo: { id: number; fileName: string; words: Words; original: { hash: string } };
    /** What is not said yet. */
    added: Partial<Words>;
    /** What is said otherwise. */
    conflicts: Partial<Words>;
    /** Places where it is to go; null where the line says nothing of it. */
    slots: SlotId[] | null;
    unknownPlaces: string[];
    /** What it says in single places, beside what is said there now. */
    here: { slot: SlotId; now: Partial<Words>; added: Partial<Words>; conflicts: Partial<Words> }[];
  }[];
  /** Lines that can't be taken, each with the reason. */
  unclear: { line: number; fileName: string; sentence: string }[];
  /** Files that are not there yet. */
  waiting: { count: number; names: string[] };
}

/** What another policy would make of a set. */
export interface PolicyForecast {
  files: { now: number; then: number; toMake: number };
  /** Bytes that a phone and a retina laptop are sent, as far as files are made. */
  phone: { now: number; then: number };
  laptop: { now: number; then: number };
  /** Files that were made to see what they weigh. */
  tried: number;
  /** Nothing was carried over from some pictures to others. */
  exact: boolean;
}

/** What a screen would be sent with one quality for all pictures. */
export interface AlikeBytes {
  alike: number;
  /** Pictures that were made to see what they weigh, of those whose quality is searched for. */
  tried: number;
  of: number;
}

/** What a change of a place costs, before it is made. */
export interface PlaceCost {
  photos: number;
  /** Files that the place has afterwards. */
  files: number;
  /** Of them, those that are not made yet. */
  toMake: number;
  /** Files that nobody wants any more then; they go a week later. */
  toGo: number;
}
