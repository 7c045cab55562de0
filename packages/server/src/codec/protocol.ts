// What the server and its codec processes say to each other. Only plain data and file paths cross.
import type { EncoderSettings, OriginalFacts, OutputFormat, Rect, StoredFacts } from '@dusky-otter/core';
import type { RefusalCode } from '../problems.ts';

export interface InspectJob {
  kind: 'inspect';
  path: string;
  hash: string;
  bytes: number;
  limitPixels: number;
  incoming: string;
  /** Where to put the pictures that screens show. */
  views: { row: string; bench: string };
}

export interface RenderOutput {
  key: string;
  path: string;
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
}

export interface RenderJob {
  kind: 'render';
  path: string;
  facts: OriginalFacts;
  incoming: string;
  crop: Rect;
  outputs: RenderOutput[];
}

export type Job = InspectJob | RenderJob;

export interface MadeVariant extends StoredFacts {
  key: string;
  /** Times it was encoded until its quality was found. */
  encodes: number;
}

export type ToWorker = { type: 'job'; job: Job } | { type: 'stop-soon' };

export type FromWorker =
  | { type: 'ready' }
  | { type: 'inspected'; facts: OriginalFacts }
  | { type: 'refused'; code: RefusalCode; sentence: string }
  | { type: 'made'; variant: MadeVariant }
  /** The job is over: all outputs made, or stopped early on request. */
  | { type: 'finished' }
  | { type: 'failed'; sentence: string };
