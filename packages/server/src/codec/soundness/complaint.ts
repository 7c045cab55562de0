// What a look through a file's own structure has to say against it.

export interface Complaint {
  /** What is wrong, as the middle of a sentence: "its data ends early". */
  sentence: string;
  /** Part of the picture that stands before the fault, 0 to 1; 1 where nothing is missing but something is garbled. */
  share: number;
}

/** Whether reading went beyond the end of a file. Errors of buffers are of another realm than tests run in: told by name. */
export const isBeyondEnd = (error: unknown): boolean =>
  (error as { name?: unknown } | null)?.name === 'RangeError';

/** Part of a picture from which it counts as mostly there. */
export const MOSTLY = 0.9;
