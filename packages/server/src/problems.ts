// The catalogue of errors: each with its code, HTTP status and the sentence an editor reads.
import type { PhotoRow, PhotoSet, Problem } from '@dusky-otter/core';

const CATALOGUE = {
  'bad-request': [400, 'The request could not be understood.'],
  'foreign-origin': [403, 'This address only answers to the application itself.'],
  'no-such-set': [404, 'This set does not exist any more.'],
  'no-such-photo': [404, 'This photo is not in the set any more.'],
  'no-such-file': [404, 'This file does not exist.'],
  'no-such-address': [404, 'There is nothing at this address.'],
  stale: [
    409,
    'Someone else changed this in the meantime. The newer state is shown; make your change again.',
  ],
  'nothing-to-undo': [409, 'There is nothing left to undo.'],
  'nothing-to-redo': [409, 'There is nothing left to redo.'],
  'not-ready': [
    409,
    'The versions for this are still being made. Try again when the ring in the header is full.',
  ],
  'upload-interrupted': [400, 'The upload broke off. Nothing was kept of it; add the file again.'],
  'impossible-edit': [422, 'This change is not possible.'],
  internal: [500, 'Something went wrong on the server. Nothing was lost; try again.'],
} as const satisfies Record<string, readonly [number, string]>;

export type ProblemCode = keyof typeof CATALOGUE;

/** An error that is answered as an RFC 9457 problem document. */
export class ProblemError extends Error {
  readonly code: ProblemCode;
  readonly newer: { rows?: PhotoRow[]; set?: PhotoSet };

  constructor(code: ProblemCode, detail?: string, newer: { rows?: PhotoRow[]; set?: PhotoSet } = {}) {
    super(detail ?? CATALOGUE[code][1]);
    this.code = code;
    this.newer = newer;
  }

  document(): Problem {
    const [status, title] = CATALOGUE[this.code];
    return {
      type: `about:blank#${this.code}`,
      title,
      status,
      detail: this.message,
      code: this.code,
      ...this.newer,
    };
  }
}

/** Reasons for which a file is refused; the sentence may be made more exact by who refuses. */
export const REFUSALS = {
  'not-a-picture':
    'This is not a picture, whatever its name says. Export it as JPEG, PNG or TIFF and add it again.',
  'unsupported-heic':
    'HEIC photos can’t be read yet. Export it as JPEG from the phone or the photo program and add it again.',
  'unsupported-format': 'This kind of picture can’t be read. JPEG, PNG, WebP, AVIF, GIF, TIFF and SVG can.',
  empty: 'The file is empty. Copy it from the camera or the card again.',
  damaged:
    'The picture is damaged: its data ends too early or makes no sense. Copy it from the camera or the card again.',
  'too-many-bytes': 'The file is too large.',
  'too-many-pixels': 'The picture has too many pixels.',
} as const;

export type RefusalCode = keyof typeof REFUSALS;

/** Raised while a file is taken in: it gets a row with the reason, and the rest of the batch goes on. */
export class RefusedError extends Error {
  readonly code: RefusalCode;

  constructor(code: RefusalCode, sentence?: string) {
    super(sentence ?? REFUSALS[code]);
    this.code = code;
  }
}
