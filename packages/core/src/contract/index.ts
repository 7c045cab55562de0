// The types that cross the wire between server and web, and that the core computes with. Plain data only.

/** A rectangle in oriented original pixels: integers, inside the picture. */
export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Size {
  width: number;
  height: number;
}

/** Focal point as fractions of the oriented picture, 0 to 1. A guess until an editor confirms it. */
export interface FocalPoint {
  x: number;
  y: number;
  confirmed: boolean;
}

/** A ratio "w:h", or "own" for the photo's own shape. */
export type ShapeId = 'own' | `${number}:${number}`;

export type OutputFormat = 'avif' | 'webp' | 'jpeg' | 'png' | 'gif';
export type InputFormat = 'jpeg' | 'png' | 'webp' | 'avif' | 'gif' | 'tiff' | 'svg';

export type Role = 'informative' | 'decorative' | 'functional' | 'text' | 'complex';

export interface Words {
  /** null: nobody has said yet what the photo is here for. */
  role: Role | null;
  alt: string;
  caption: string;
  title: string;
  credit: string;
  longDescription: string;
}

/** Measured on the whole picture, sampled without mixing neighbours. */
export interface PictureContent {
  /** Distinct colours, counted up to 65 536. */
  colours: number;
  /** Share of pixels in the commonest colour, 0 to 1. */
  commonest: number;
  /** Share of pixels in the 64 commonest colours. */
  common: number;
}

/** What was read from an original when it was taken in. Width and height are after EXIF orientation. */
export interface OriginalFacts {
  hash: string;
  bytes: number;
  format: InputFormat;
  width: number;
  height: number;
  /** EXIF orientation as stored in the file, 1 to 8. */
  orientation: number;
  /** Name of the embedded colour profile, or null. */
  profile: string | null;
  /** Number of frames; more than 1 is an animation. */
  frames: number;
  transparent: boolean;
  /** What its pixels are like; null where the file's own loss has left no two alike (JPEG, AVIF), or unmeasured. */
  content: PictureContent | null;
  /** ISO 8601 local time without zone, as cameras write it, or null. */
  takenAt: string | null;
  hasPosition: boolean;
  camera: string | null;
  /** Dominant colour as #rrggbb, the placeholder while a picture loads. */
  colour: string;
  /** The first guess of what a crop should be about, as fractions. */
  attention: { x: number; y: number };
  found: { alt: string; caption: string; title: string; credit: string };
  /** What is wrong with the file although most of its picture is there, as a sentence; null for a sound one. */
  damage: string | null;
}

export type SlotId = 'hero' | 'column' | 'half' | 'grid' | 'viewer';

/** How faithful variants are, by name; see `TARGETS` for the visible difference that each allows. */
export type TargetName = 'exacting' | 'clean' | 'lean';

export interface Policy {
  /** The modern format served beside the JPEG or PNG that every browser reads. */
  modern: 'avif' | 'webp';
  target: TargetName;
}

/** The editor's decisions on one photo in one set. */
export interface PhotoDecisions {
  focal: FocalPoint;
  /** Crops that an editor moved; a shape that is missing here follows the focal point. */
  crops: Partial<Record<ShapeId, Rect>>;
  words: Words;
  /** Slots of its own, or null for those of the set. */
  slots: SlotId[] | null;
  binned: boolean;
}

export interface Photo extends PhotoDecisions {
  id: number;
  version: number;
  fileName: string;
  original: OriginalFacts;
}

export interface EncoderSettings {
  /** A fixed quality, where none is searched for. */
  quality?: number;
  /** Largest visible difference; the quality is searched for. */
  target?: number;
  /** File px per CSS px at which the variant is looked at: errors of a dense file are seen less. */
  density?: number;
  effort?: number;
  progressive?: boolean;
  lossless?: boolean;
  /** A palette where the picture has few enough colours for an exact one. */
  palette?: boolean;
}

/** One file that is wanted: photo × crop × pixel width × format. */
export interface PlannedVariant {
  key: string;
  slot: SlotId;
  shape: ShapeId;
  crop: Rect;
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
}

/** A planned variant with what is stored of it: bytes is null until it is made. */
export interface RowVariant {
  key: string;
  slot: SlotId;
  shape: ShapeId;
  width: number;
  height: number;
  format: OutputFormat;
  bytes: number | null;
  contentHash: string | null;
  /** Encoder quality that was found, or null for what is lossless or not made. */
  quality: number | null;
  /** Visible difference from the crop at this size; 0 for lossless, null when not measured or not made. */
  difference: number | null;
  /** Largest visible difference that was asked for, or null where none is. */
  target: number | null;
  /** Why making it failed, if it did. */
  failure: string | null;
}

/** One row of the worktable. */
export interface PhotoRow extends Photo {
  variants: RowVariant[];
}

/** A file that could not be taken in, with its reason. */
export interface Refusal {
  id: number;
  fileName: string;
  bytes: number;
  code: string;
  sentence: string;
}

export interface SetDecisions {
  name: string;
  slots: SlotId[];
  order: number[];
  /** An editor has said that the places are right; a new set begins with places of its own accord. */
  arranged: boolean;
  /** The page was looked at and found right, and nothing has changed since. */
  rehearsed: boolean;
  /** The site's policy: a change here is a change for all its sets. */
  policy: Policy;
}

/** What is known of a stored variant. */
export interface StoredFacts {
  bytes: number;
  contentHash: string;
  quality: number | null;
  difference: number | null;
}

export interface PhotoSet extends SetDecisions {
  id: number;
  version: number;
  /** Its files went out, and nothing has changed since. */
  handedOver: boolean;
  /** Speaking names that have gone out, each with the photo it belongs to for good. */
  published: Record<string, number>;
}

export interface Preparation {
  wanted: number;
  made: number;
  failed: number;
  paused: boolean;
  /** What is being made, in words, or null when idle. */
  doing: string | null;
}

export interface EditDepth {
  undo: number;
  redo: number;
  /** Sentence for the newest edit that can be taken back, or done again. */
  undoLabel: string | null;
  redoLabel: string | null;
  savedAt: string | null;
}

export interface SetState {
  site: { id: number; name: string };
  set: PhotoSet;
  rows: PhotoRow[];
  refusals: Refusal[];
  preparation: Preparation;
  edits: EditDepth;
}

export interface SetSummary {
  id: number;
  name: string;
  photos: number;
  cover: string | null;
  /** Why the set can't be opened, as a sentence; null where it can. */
  problem: string | null;
}

export type TakeInResult =
  | { kind: 'new'; row: PhotoRow }
  | { kind: 'already-here'; row: PhotoRow }
  | { kind: 'back-from-bin'; row: PhotoRow }
  | { kind: 'from-another-set'; row: PhotoRow; setName: string }
  | { kind: 'refused'; refusal: Refusal };

/** What the server tells listeners of a set. */
export type SetEvent =
  | { type: 'preparation'; preparation: Preparation }
  | ({ type: 'variant'; photoId: number; key: string } & StoredFacts)
  | { type: 'failed'; photoId: number; keys: string[]; sentence: string }
  /** Stored files that turned out to be lost or changed: they are being made again. */
  | { type: 'unmade'; keys: string[] }
  /** Events were missed: what is known of the set must be read anew. */
  | { type: 'reset' }
  | { type: 'rows'; rows: PhotoRow[] }
  | { type: 'set'; set: PhotoSet; edits: EditDepth }
  | { type: 'refusals'; refusals: Refusal[] };

/** RFC 9457 problem document. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  code: string;
  /** With 409: the newer state. */
  rows?: PhotoRow[];
  set?: PhotoSet;
}
