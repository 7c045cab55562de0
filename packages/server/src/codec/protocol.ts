// What the server and its codec processes say to each other. Only plain data and file paths cross.
import type {
  BitmapFormat,
  EncoderSettings,
  OriginalFacts,
  OutputFormat,
  Rect,
  StoredFacts,
  Turning,
} from '@dusky-otter/core/contract';
import type { Attempt, LossyFormat } from '@dusky-otter/core/weight';
import type { RefusalCode } from '../problems.ts';

/** Where the pictures that screens show are put. */
export interface ViewPaths {
  row: string;
  bench: string;
}

/** SHA-256 of the views' files: what is served is what was made. */
export type ViewHashes = Record<keyof ViewPaths, string>;

export interface InspectJob {
  kind: 'inspect';
  path: string;
  hash: string;
  bytes: number;
  limitPixels: number;
  incoming: string;
  views: ViewPaths;
}

/** Makes the views of an original that is known already. */
export interface ViewsJob {
  kind: 'views';
  path: string;
  facts: OriginalFacts;
  incoming: string;
  views: ViewPaths;
}

export interface RenderOutput {
  key: string;
  path: string;
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
}

export type BitmapOutput = RenderOutput & { format: BitmapFormat };

export const isBitmap = (output: RenderOutput): output is BitmapOutput => output.format !== 'svg';

export interface RenderJob {
  kind: 'render';
  path: string;
  facts: OriginalFacts;
  incoming: string;
  /** Applied to the upright picture before the crop is cut. */
  turning: Turning;
  crop: Rect;
  /** Of an animation one frame alone. */
  still: boolean;
  /** Which, from 0; the first where nothing is said. */
  frame?: number;
  /** What a transparent picture is laid on, as #rrggbb; on nothing where nothing is said. */
  background?: string | null;
  outputs: RenderOutput[];
}

/** One size of a crop that somebody looks at. */
interface LookedAt {
  path: string;
  facts: OriginalFacts;
  turning: Turning;
  frame: number;
  background: string | null;
  crop: Rect;
  width: number;
  height: number;
  settings: EncoderSettings;
}

/** The picture for somebody who looks at it. */
export interface LookJob extends LookedAt {
  kind: 'look';
  /** All frames, not one of them. */
  moving?: boolean;
  /** null: the picture itself. */
  format: BitmapFormat | null;
}

/** What it could be had for: points of bytes against difference along one format. */
export interface PointsJob extends LookedAt {
  kind: 'points';
  format: LossyFormat;
  /** File px per CSS px at which it is looked at. */
  density: number;
}

/** A file that was looked at. */
export interface Seen {
  file: Buffer;
  /** Encoder quality that was found or given; null where there is none. */
  quality: number | null;
  /** null where it was not measured. */
  difference: number | null;
}

export type Job = InspectJob | ViewsJob | RenderJob | LookJob | PointsJob;

export interface MadeVariant extends StoredFacts {
  key: string;
  /** Times it was encoded until its quality was found. */
  encodes: number;
}

export interface Inspected {
  facts: OriginalFacts;
  views: ViewHashes;
}

export type ToWorker = { type: 'job'; job: Job } | { type: 'stop-soon' };

export type FromWorker =
  | { type: 'ready' }
  | { type: 'inspected'; result: Inspected }
  | { type: 'views'; views: ViewHashes }
  | { type: 'looked'; seen: Seen }
  | { type: 'points'; points: Attempt[] }
  | { type: 'refused'; code: RefusalCode; sentence: string }
  /** The file that is looked at is a drawing. */
  | { type: 'drawing' }
  /** An output is begun: if the process ends now, this is what ended it. */
  | { type: 'making'; key: string }
  | { type: 'made'; variant: MadeVariant }
  /** The job is over: all outputs made, or stopped early on request. */
  | { type: 'finished' }
  /** `key` is the output that could not be made; null where the original could not even be opened. */
  | { type: 'failed'; sentence: string; key: string | null };
