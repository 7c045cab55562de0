// What belongs to a site: its places, devices, policy and languages. Together they are what a plan needs to know.
import type { Arranged } from './arrangement.ts';
import type { ShapeId, Size } from './geometry.ts';
import type { Language, PlaceWords } from './language.ts';
import type { WidthRule } from './width.ts';

/** How faithful variants are, by name; see `TARGETS` for the visible difference that each allows. */
export type TargetName = 'exacting' | 'clean' | 'lean';

export interface Policy {
  /**
   * The modern format served beside the JPEG or PNG that every browser reads; "smaller": of the two that one which
   * needs fewer bytes for a picture; "both": that one first, and the other for browsers that read no better.
   */
  modern: 'avif' | 'webp' | 'smaller' | 'both';
  target: TargetName;
  /** false: files stay as the quick pass made them. */
  thorough?: boolean;
  /** Densities above this one count as this one; 2 where nothing is said. */
  density?: 1 | 1.5 | 2;
  /**
   * What goes out inside the files, as XMP: nothing but the picture; the credit, of the photo's words or of its original;
   * or alt text, description, title and caption too.
   */
  metadata?: 'none' | 'credit' | 'words';
  /** false: a JPEG arrives from top to bottom, not first whole and blurred. */
  progressive?: boolean;
  /** The modern format keeps colours beyond sRGB, as Display P3, where a photo has them; the JPEG stays sRGB. */
  wideColours?: boolean;
  /** "plain": file names without the fingerprint of their content. */
  naming?: 'fingerprint' | 'plain';
  /** Where the files lie on the site, before every address in copied markup; relative to the page where it is absent. */
  prefix?: string;
}

/** A place's name within its site: it stands in markup, file names and edits, and never changes. */
export type SlotId = string;

/** One shape of a slot and the viewport widths it serves: from ≤ viewport < to, in CSS px; null has no end. */
export interface SlotShape {
  shape: ShapeId;
  from: number;
  to: number | null;
}

/** How high a picture may stand. */
export interface Tallest {
  /** In CSS px, or in hundredths of the window's height. */
  height: number;
  unit: 'px' | 'vh';
  /** true: as wide as planned, and cut off above and below; false: seen whole, and narrower. */
  cut: boolean;
}

/** A kind of place on the pages of a site. Editors read "place". */
export interface Slot {
  id: SlotId;
  name: string;
  /** What an editor reads beside the name. */
  hint: string;
  rule: WidthRule;
  /** Largest viewport first; more than one means art direction with `<picture media>`. */
  shapes: readonly SlotShape[];
  /** Bytes of the file that a phone (390 px at 2×) is sent. */
  budget: number;
  /** "first": loads at once as the page's first picture does; "lazy": waits until it comes near. */
  loading: 'first' | 'lazy';
  /** Largest display box in CSS px for slots that show the whole photo; null where width alone decides. */
  fit: Size | null;
  /** How high it may stand; absent where its shape alone says so. */
  tallest?: Tallest;
  /** The width as an editor said or typed it; absent where it was never written out. */
  said?: string;
  /** Where its width was measured; absent where it was not. */
  measured?: MeasuredWidth;
  /** What is built there, where it is an arrangement's cell: its width and shape follow from this. */
  arranged?: Arranged;
  /** What it says on pages beside its name. */
  words?: PlaceWords;
  /** The arrangement whose large pictures these are: photos stand here because they stand there. */
  of?: SlotId;
}

/** How well a place's width agrees with a page that it was measured on. */
export interface MeasuredWidth {
  /** Name of the page's file. */
  page: string;
  /** ISO 8601 date. */
  on: string;
  /** Window widths it was measured at. */
  windows: number;
  /** Largest difference between rule and page, in CSS px. */
  worst: number;
}

export interface DeviceClass {
  name: string;
  /** Viewport width in CSS px. */
  viewport: number;
  /** Device pixels per CSS px. */
  density: number;
  /** Share of visits; all shares sum to 1. */
  share: number;
}

/** What plan and markup need to know of a site. */
export interface PlanContext {
  slots: readonly Slot[];
  devices: readonly DeviceClass[];
  policy: Policy;
  /** The first is the one that new words are written in. */
  languages: readonly Language[];
}

/** An arrangement that stands on every page of a site, with the photos that one of its sets puts there. */
export interface Everywhere {
  set: number;
  slot: SlotId;
  /** Where on the pages: over or under what each of them holds. */
  at: 'above' | 'below';
}

export interface SiteDecisions {
  name: string;
  /** Where the site is found, or "". */
  address: string;
  policy: Policy;
  languages: Language[];
  devices: DeviceClass[];
  everywhere: Everywhere[];
  /** Words that the site wants to be found by; no file and no page depends on them. */
  terms: string[];
  /** Put away: not among the sites one works on. */
  archived: boolean;
}

export interface Site extends SiteDecisions, PlanContext {
  id: number;
  /** Short names of arrangements that are gone: pages may still name them, so no other is called so. */
  retired?: readonly SlotId[];
  version: number;
  policy: Policy;
  languages: Language[];
  devices: DeviceClass[];
  slots: Slot[];
}
