// Originals, photos, and the decisions on them.
import type { Frame, Rect, ShapeId } from './geometry.ts';
import type { InOthers } from './language.ts';
import type { SlotId, TargetName } from './site.ts';

export type OutputFormat = 'avif' | 'webp' | 'jpeg' | 'png' | 'gif' | 'svg';
/** Formats that hold pixels. */
export type BitmapFormat = Exclude<OutputFormat, 'svg'>;
export type InputFormat = 'jpeg' | 'png' | 'webp' | 'avif' | 'gif' | 'tiff' | 'svg' | 'heic';

export type Role = 'informative' | 'decorative' | 'functional' | 'text' | 'complex';

export interface Words {
  /** null: nobody has said yet what the photo is here for. */
  role: Role | null;
  alt: string;
  caption: string;
  title: string;
  credit: string;
  /** Paragraphs and tables as `blocksOf` reads them, or nothing but the address of a document that says it. */
  longDescription: string;
  /** Where a functional photo leads, or "" for nowhere. */
  link: string;
  /** It leads there in a window of its own. */
  newWindow: boolean;
  /** What a check finds and an editor keeps on purpose: a note, by the check's code. */
  kept: Record<string, string>;
}

/** Parts of a photo's words that are written out. */
export type WordsText = Exclude<keyof Words, 'role' | 'newWindow' | 'kept'>;

/** Measured on the whole picture, sampled without mixing neighbours. */
export interface PictureContent {
  /** Distinct colours, counted up to 65 536. */
  colours: number;
  /** Share of pixels in the commonest colour, 0 to 1. */
  commonest: number;
  /** Share of pixels in the 64 commonest colours. */
  common: number;
}

/** What an SVG would be if it went out as one. */
export interface DrawingFacts {
  /** Of the cleaned drawing. */
  bytes: number;
  /** Of the bitmap that a phone would be sent in its place where it is as wide as the screen. */
  bitmap: number;
  /** Why it must not go out as a drawing, as the end of a sentence; null where it may. */
  unsafe: string | null;
}

/** A part of a picture, in fractions of its sides. */
export interface Extent {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A line of words that a picture shows. */
export interface ShownLine {
  text: string;
  /** In fractions of the upright picture's sides. */
  box: Extent;
}

/** Words that hang on a language, as a file may bring them in several. */
export type SpokenWords = Partial<Pick<Words, 'alt' | 'caption' | 'title' | 'longDescription'>>;

/** Words that a file brings along. */
export interface FoundWords {
  alt: string;
  caption: string;
  title: string;
  credit: string;
  longDescription?: string;
  /** The same as it says them in languages that it names. */
  others?: InOthers<SpokenWords>;
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
  /** What its pixels are like; null where the file's own loss has left no two alike (JPEG, AVIF, HEIC), or unmeasured. */
  content: PictureContent | null;
  /** ISO 8601 local time without zone, as cameras write it, or null. */
  takenAt: string | null;
  hasPosition: boolean;
  camera: string | null;
  /** Dominant colour as #rrggbb, the placeholder while a picture loads. */
  colour: string;
  /** The first guess of what a crop should be about, as fractions. */
  attention: {
    x: number;
    y: number;
    /** What draws the eye there; absent for photos that were taken in before it was looked for. */
    extent?: Extent;
  };
  /** Words that the file brought along; a long description is absent where it was taken in before that was looked for. */
  found: FoundWords;
  /** What is wrong with the file although most of its picture is there, as a sentence; null for a sound one. */
  damage: string | null;
  /** What was left out or can't be shown although the file is sound, as a sentence; absent where there is nothing. */
  aside?: string;
  /** Words that it shows, line by line; absent as long as nobody has looked for them. */
  shows?: readonly ShownLine[];
  /** In Display P3 with colours that sRGB can't show; absent where not, or where it was taken in before that was looked for. */
  wide?: true;
  /** Of an SVG; absent for one that was taken in before it was looked at. */
  drawing?: DrawingFacts;
}

/** How one photo's files come about in one place, where it is not as the policy says. Absent parts follow the policy. */
export interface QualityDecision {
  target?: TargetName;
  /** The format served beside the one that every browser reads. A drawing for which one is chosen goes out as bitmaps. */
  format?: 'avif' | 'webp';
  /** An animation goes out as one of its frames. */
  still?: boolean;
  /** Which of them, from 0; the first where nothing is said. */
  frame?: number;
  /** Of an animation only every so manieth frame goes out, each standing as long as those that it stands for: 2 to 10. */
  every?: number;
  /** A point that was chosen by hand; a bare encoder quality, 1 to 100, holds for every format. */
  pinned?: Pinned | number;
  /** Without any loss, or with loss although its kind goes out without. */
  lossless?: boolean;
  /** What a transparent picture is laid on, as #rrggbb: it is transparent no more. */
  background?: string;
  /** Largest pixel width of its files. */
  widest?: number;
}

/** A point of bytes against difference that was chosen by hand. */
export interface Pinned {
  /** The format whose quality it is. The others are searched for what is seen of it. */
  format: 'jpeg' | 'webp' | 'avif';
  /** Encoder quality, 1 to 100. */
  quality: number;
  /** Its visible difference. */
  difference: number;
}

/** One photo in one slot of one set, with what is decided for it there alone. */
export interface Placement {
  slot: SlotId;
  /** Where the picture leads, or "" for nowhere. */
  link: string;
  /** Words that differ here from the photo's own. */
  words: Partial<Words>;
  /** The same in the site's further languages. */
  others?: InOthers<Partial<Words>>;
  /** Of a film that it leads to: addresses of its captions as WebVTT, by language. */
  captions?: InOthers;
  /** A crop that differs here, by shape; in the space of the frame's crops. */
  crops: Frame['crops'];
}

/** The editor's decisions on one photo, and on it in one set. */
export interface PhotoDecisions {
  frame: Frame;
  /** In the language that was asked for. */
  words: Words;
  /** By place. */
  quality: Partial<Record<SlotId, QualityDecision>>;
  /** Placements of its own, or null: it stands in every open slot of its set. */
  placements: Placement[] | null;
  /** Where it stands in its set's order: a key that sorts by its characters' codes. */
  position: string;
  binned: boolean;
  /** Its picture was replaced, and nobody has read the words since. */
  toRead: boolean;
}

/** What an edit may change of a photo. */
export type PhotoChange = Partial<PhotoDecisions & Pick<Photo, 'fileName' | 'original'>>;

export interface Photo extends PhotoDecisions {
  id: number;
  version: number;
  fileName: string;
  original: OriginalFacts;
}

/** What an encoder is told beside the quality. */
export interface Recipe {
  /** Colour at full size; only JPEG gives it up otherwise. */
  fullChroma: boolean;
  /** JPEG: number of the encoder's quantisation table, 0 where nothing is said. */
  table?: number;
  /** JPEG: coefficients are rounded where that costs least to the eye for a bit saved. */
  trellis?: boolean;
  /** JPEG: scans of a progressive file are cut so that it becomes smallest. */
  scans?: boolean;
  /** AVIF and WebP: how long the encoder looks for the shorter way. */
  effort?: number;
  /** AVIF: bits a sample, 8 where nothing is said. */
  bitDepth?: 8 | 10;
  /** WebP: settings of the encoder's own for photographs. */
  photo?: boolean;
  /** WebP: colour is halved so that edges between colours stay sharp. */
  sharpChroma?: boolean;
  /** WebP: how much seams between blocks are softened is tried out, not assumed. */
  deblock?: boolean;
}

export interface EncoderSettings extends Partial<Recipe> {
  /** A fixed quality, where none is searched for. */
  quality?: number;
  /** Largest visible difference; the quality is searched for. */
  target?: number;
  /** File px per CSS px at which the variant is looked at: errors of a dense file are seen less. */
  density?: number;
  progressive?: boolean;
  lossless?: boolean;
  /** A palette: without loss where the picture has few enough colours for an exact one, with loss in any case. */
  palette?: boolean;
  /** Of an animation one frame alone: the first, or `frame`. */
  still?: boolean;
  frame?: number;
  /** Of an animation every so manieth frame. */
  every?: number;
  /** What a transparent picture is laid on, as #rrggbb. */
  background?: string;
  /** Its pixels are in Display P3, and it says so; in sRGB where nothing is said. */
  gamut?: 'p3';
  /** Every recipe is tried that may do with fewer bytes: the thorough pass. */
  thorough?: boolean;
}

/** How the pixels of a crop's space come from the photo's own space. */
export type Turning = Pick<Frame, 'mirrored' | 'turns' | 'angle'>;

/** One file that is wanted: photo × crop × pixel width × format. */
export interface PlannedVariant extends PlannedFile {
  crop: Rect;
  settings: EncoderSettings;
}

interface PlannedFile {
  key: string;
  slot: SlotId;
  shape: ShapeId;
  width: number;
  height: number;
  format: OutputFormat;
}

/** What is known of a stored variant. */
export interface StoredFacts {
  bytes: number;
  contentHash: string;
  quality: number | null;
  difference: number | null;
  /** Key of another file that stands for it: the thorough one, or one that was made before; absent where its own does. */
  standIn?: string;
}

/** A planned variant with what is stored of it: bytes is null until it is made. */
export interface RowVariant extends PlannedFile {
  bytes: number | null;
  contentHash: string | null;
  /** Encoder quality that was found, or null for what is lossless or not made. */
  quality: number | null;
  /** Visible difference from the crop at this size; 0 for lossless, null when not measured or not made. */
  difference: number | null;
  /** Largest visible difference that was asked for, or null where none is. */
  target: number | null;
  /** Key of its file: its own, or that of the one that stands for it. */
  file: string;
  /** Why making it failed, if it did. */
  failure: string | null;
}

/** One row of the worktable: a photo with its files. */
export interface PhotoRow extends Photo {
  variants: RowVariant[];
}
