// What a codec process is asked for, and what became of it.
import type { ChildProcess } from 'node:child_process';
import type { Attempt } from '@dusky-otter/core/weight';
import type { JobWatch } from './limits.ts';
import type { Inspected, Job, MadeVariant, Seen, ViewHashes } from './protocol.ts';

/** An output that can't be made; `key` null: none of the job can. */
export class RenderError extends Error {
  constructor(
    sentence: string,
    readonly key: string | null,
  ) {
    super(sentence);
  }
}

/** Work for which there is time was given up for other work, or because nobody wants it any more. */
export class InterruptedError extends Error {}

export type Result = Inspected | ViewHashes | Seen | Attempt[] | null;

export interface Task {
  job: Job;
  /** There is time for it: it goes last, at the lowest priority, and is given up for anything else. */
  patient: boolean;
  made: (variant: MadeVariant) => void;
  resolve: (result: Result) => void;
  reject: (error: Error) => void;
  /** Outputs that are done; they are not made again after a crash. */
  done: Set<string>;
  /** Times that each step ended its process. */
  broke: Map<string, number>;
  step: string;
  /** When its step was begun, on the clock. */
  begun: number;
}

export interface Worker {
  process: ChildProcess;
  ready: boolean;
  /** It has done patient work, and its priority can't be raised again: a fresh one does the rest. */
  patient: boolean;
  task: Task | null;
  watch: JobWatch | null;
}

/** The job without what is done. */
export function leftOf({ job, done }: Task): Job {
  return job.kind === 'render' ? { ...job, outputs: job.outputs.filter(({ key }) => !done.has(key)) } : job;
}
