// What is put on a page, built from photos: its kind with the options of that kind, and how its pictures are ordered.
import type { ShapeId } from './geometry.ts';
import type { InOthers, PlaceWords } from './language.ts';
import type { Passage } from './passage.ts';

import type { WidthRule } from './width.ts';

/** How many stand beside each other from a width of the arrangement on, in CSS px; ascending, the first from 0. */
export type Columns = readonly { from: number; count: number }[];

/** Where captions stand: below their pictures; over them while they are pointed at or have the focus; in the viewer alone. */
export type Captions = 'below' | 'over' | 'viewer';

/** What a click on a picture does that leads nowhere else: it opens the viewer, or nothing. */
export type Click = 'viewer' | 'nothing';

/** What surrounds a picture. */
interface Framed {
  /** "mat": paper around it, within its width. */
  frame: 'none' | 'line' | 'mat';
  /** How far its corners are rounded, CSS px. */
  corners: number;
  shadow: 'none' | 'soft' | 'deep';
}

interface Several extends Framed {
  captions: Captions;
  click: Click;
  /** Links lead to the files, where no script opens the viewer; false: no file is offered anywhere. */
  files: boolean;
  /** The viewer offers the file, too. */
  download: boolean;
  /** Between pictures, CSS px. */
  gap: number;
  /** What a picture does while it is pointed at or has the focus. */
  effect: 'lighten' | 'grow' | 'none';
  /** So many on a page, with links to the others; null: all on one. */
  perPage: number | null;
  /** Each picture has a page of its own beside the viewer. */
  ownPages: boolean;
}

/** One picture that texts may flow around. */
export interface FigureOptions extends Framed {
  kind: 'figure';
  side: 'left' | 'right' | 'centre' | 'full';
  /** As a part of its container, 0 to 1, or in CSS px; never both a width and a height. */
  width: { part: number } | { px: number };
  caption: 'below' | 'beside' | 'none';
  shape: ShapeId;
}

/** Pictures of one shape in columns. */
export interface GridOptions extends Several {
  kind: 'grid';
  /** Of its cells. */
  shape: ShapeId;
  /** "cut": pictures fill their cells; "whole": each is seen whole within its cell. */
  fit: 'cut' | 'whole';
  columns: Columns;
}

/** Pictures in their own shapes, in rows that are as wide as the arrangement and about as high as said. */
export interface RowsOptions extends Several {
  kind: 'rows';
  /** Height that rows are to have, CSS px. */
  height: number;
}

/** One picture large, the others small below or beside it. */
export interface StripOptions {
  kind: 'strip';
  shape: ShapeId;
  side: 'below' | 'beside';
}

/** One picture at a time. */
export interface RotatingOptions {
  kind: 'rotating';
  shape: ShapeId;
  /** In windows too narrow for words over a picture; null: the same in all. */
  narrowShape: ShapeId | null;
  /** How one follows the other. */
  change: 'fade' | 'slide';
  /** How long each stands; null where nothing moves by itself. Seconds, 3 to 60. */
  seconds: number | null;
  arrows: 'inside' | 'outside';
  /** Size of its buttons, CSS px. */
  buttons: number;
  /** Colour of the signs on its buttons; what lies behind them is the other one. */
  signs: 'light' | 'dark';
  /** Where its words stand: below, or over the picture with a button that leads on. */
  texts: 'below' | 'over';
  /** Colour of words over the picture. */
  ink: 'light' | 'dark';
  /** How much of what lies behind those words is covered in the other colour, 0 to 0.9. */
  scrim: number;
}

/** A picture that can be looked at closely. */
export interface ZoomOptions {
  kind: 'zoom';
  shape: ShapeId;
  /** How many times as large, 1.5 to 4. */
  times: number;
}

/** What stands between the pictures of a feed. */
export interface FeedPart {
  /** Id of the photo that it stands before; null: behind all of them. */
  before: number | null;
  heading: string;
  passage: Passage;
  others?: InOthers<{ heading?: string; passage?: Passage }>;
}

/** Pictures one after the other, down the page or sideways. One that leads to a film is its poster. */
export interface FeedOptions {
  kind: 'feed';
  direction: 'down' | 'sideways';
  shape: ShapeId;
  between: readonly FeedPart[];
}

/** A gallery that an index leads to, with one of the index's photos as its cover: the page of a set, or an arrangement on it. */
export interface Gallery {
  photo: number;
  set: number;
  /** Short name of the arrangement on that page; the page itself where it is left out. */
  part?: string;
  text: string;
  others?: InOthers;
}

/** Covers of galleries, in columns. */
export interface IndexOptions {
  kind: 'index';
  shape: ShapeId;
  columns: Columns;
  gap: number;
  galleries: readonly Gallery[];
}

/** One picture that opens a viewer of all. */
export interface CoverOptions {
  kind: 'cover';
  shape: ShapeId;
  /** Links lead to the files, where no script opens the viewer; false: no file is offered anywhere. */
  files: boolean;
  /** The viewer offers the file, too. */
  download: boolean;
  /** Each picture has a page of its own beside the viewer. */
  ownPages: boolean;
}

export type ArrangementOptions =
  | FigureOptions
  | GridOptions
  | RowsOptions
  | StripOptions
  | RotatingOptions
  | ZoomOptions
  | FeedOptions
  | CoverOptions
  | IndexOptions;

export type ArrangementKind = ArrangementOptions['kind'];

/** What an arrangement is made of but for its names and its pictures. */
export interface Arranged {
  options: ArrangementOptions;
  /** Width of what it stands in, by the window's. */
  container: WidthRule;
  /** Ids of photos that were put in order by hand; those that it does not name follow in their set's order. */
  order?: readonly number[];
}

export interface Arrangement extends Arranged {
  /** Names it within its site and in the markup; never used again for another. */
  shortName: string;
  /** What people read: small letters, digits and hyphens stand in the short name alone. */
  title: string;
  words?: PlaceWords;
}

/** How the pictures of an arrangement follow each other. */
export type Order = 'hand' | 'taken' | 'name' | 'colour' | { seed: number };
