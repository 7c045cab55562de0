// The catalogue of errors: each with its code, HTTP status and the sentence an editor reads.
import type { PhotoSet, Problem, SentPhoto, Site } from '@dusky-otter/core/contract';

const CATALOGUE = {
  'bad-request': [400, 'The request could not be understood.'],
  'wrong-body': [415, 'This address takes another kind of content.'],
  'too-large': [413, 'The request is too large.'],
  'foreign-origin': [403, 'This address only answers to the application itself.'],
  'no-such-set': [404, 'This set does not exist any more.'],
  'no-such-photo': [404, 'This photo is not in the set any more.'],
  'no-such-file': [404, 'This file does not exist.'],
  'no-such-address': [404, 'There is nothing at this address.'],
  stale: [
    409,
    'The same was changed in another window in the meantime. Both are kept: choose which one is to stand.',
  ],
  'version-missing': [400, 'An edit must say which version it was made on.'],
  'changed-since': [409, 'The same was changed in another window since; it stays as it is.'],
  'changed-meanwhile': [
    409,
    'Something was changed while the files were made, and again each time they were made anew. Nothing went out: look at what goes out once more, then download it.',
  ],
  'nothing-to-undo': [409, 'There is nothing left to undo.'],
  'nothing-to-redo': [409, 'There is nothing left to redo.'],
  'not-ready': [
    409,
    'The versions for this are still being made. Try again when the ring in the header is full.',
  ],
  'disk-full': [
    507,
    'There is no room left on the disk. Nothing was lost: make room, then add the file or make the change again.',
  ],
  'database-away': [
    503,
    'The database does not answer; it is being started again. What you typed is kept and saved as soon as it does.',
  ],
  'set-unreadable': [
    409,
    'What is stored of this set can’t be read. It is set apart and nothing of it is changed; the other sets work as ever.',
  ],
  'being-remade': [
    404,
    'This file was changed or lost on the disk. It is being made again; look once more in a moment.',
  ],
  'no-such-site': [404, 'This site does not exist any more.'],
  'upload-interrupted': [400, 'The upload broke off. Nothing was kept of it; add the file again.'],
  'nothing-to-see': [409, 'This can’t be shown at the moment.'],
  'impossible-edit': [422, 'This change is not possible.'],
  internal: [500, 'Something went wrong on the server. Nothing was lost; try again.'],
} as const satisfies Record<string, readonly [number, string]>;

export type ProblemCode = keyof typeof CATALOGUE;

export interface Conflict {
  photos?: number[];
  set?: boolean;
  site?: boolean;
}

/** An error that is answered as an RFC 9457 problem document. */
export class ProblemError extends Error {
  readonly code: ProblemCode;
  /** What a stale edit was in the way of: photos by id, its set, its site. */
  readonly conflict: Conflict;

  constructor(code: ProblemCode, detail?: string, conflict: Conflict = {}, cause?: unknown) {
    super(detail ?? CATALOGUE[code][1], { cause });
    this.code = code;
    this.conflict = conflict;
  }

  /** @param newer the newer state of what was met */
  document(newer: { photos?: SentPhoto[]; set?: PhotoSet; site?: Site } = {}): Problem {
    const [status, title] = CATALOGUE[this.code];
    return {
      type: `about:blank#${this.code}`,
      title,
      status,
      detail: this.message,
      code: this.code,
      ...newer,
    };
  }
}

/** Reasons for which a file is refused; the sentence may be made more exact by who refuses. */
export const REFUSALS = {
  'not-a-picture':
    'This is not a picture, whatever its name says. Export it as JPEG, PNG or TIFF and add it again.',
  'unsupported-heic':
    'This HEIC file holds its picture in a way that can’t be read. Export it as JPEG from the phone or the photo program and add it again.',
  'unsupported-format':
    'This kind of picture can’t be read. JPEG, PNG, WebP, AVIF, HEIC, GIF, TIFF and SVG can.',
  empty: 'The file is empty. Copy it from the camera or the card again.',
  damaged:
    'The picture is damaged: its data ends too early or makes no sense. Copy it from the camera or the card again.',
  'too-heavy':
    'The picture takes too much time or memory to be read. Export it simpler or smaller and add it again.',
  'too-many-bytes': 'The file is too large.',
  'too-many-pixels': 'The picture has too many pixels.',
} as const;

export type RefusalCode = keyof typeof REFUSALS;

/** Raised while a file is taken in: it gets a row with the reason, and the rest of the batch goes on. */
export class RefusedError extends Error {
  readonly code: RefusalCode;

  constructor(code: RefusalCode, sentence?: string, cause?: unknown) {
    super(sentence ?? REFUSALS[code], { cause });
    this.code = code;
  }
}

/** Said where an original is no longer what it was when it was taken in. */
export const ORIGINAL_LOST =
  'The original in the vault was changed or lost on the disk. Add the photo again from its source; its decisions are kept.';

const FULL_CODES = new Set(['ENOSPC', 'EDQUOT', 'EFBIG', 'ER_DISK_FULL', 'ER_RECORD_FILE_FULL']);

interface Failure {
  name?: unknown;
  code?: unknown;
  cause?: unknown;
  parent?: unknown;
}

/** Every error that lies behind an error, itself first. Drivers hang what happened on `parent`. */
function* behind(error: unknown): Generator<Failure> {
  for (let at = error, depth = 0; typeof at === 'object' && at !== null && depth < 8; depth++) {
    const failure: Failure = at;
    yield failure;
    at = failure.cause ?? failure.parent;
  }
}

/** The sentence for an error that says that the disk is full, or null for any other. */
export function sentenceOfDisk(error: unknown): string | null {
  for (const { code } of behind(error)) if (FULL_CODES.has(String(code))) return CATALOGUE['disk-full'][1];
  return null;
}

/** Two transactions stood in each other's way, and one of them was rolled back. */
const GAVE_WAY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/** True where the same may be done again at once. */
export function gaveWay(error: unknown): boolean {
  for (const { code } of behind(error)) if (GAVE_WAY.has(String(code))) return true;
  return false;
}

const AWAY = /^(?:SequelizeConnection|SequelizeHostNot)|ConnectionManager was closed/;
const AWAY_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ER_SOCKET_UNEXPECTED_CLOSE',
  'ER_CONNECTION_ALREADY_CLOSED',
  'ER_CMD_CONNECTION_CLOSED',
  'ER_SOCKET_BAD_PORT',
  'ER_SERVER_SHUTDOWN',
  'ER_GET_CONNECTION_TIMEOUT',
  'ER_CONNECTION_TIMEOUT',
]);

/** True for errors that say no more than that the database is not there at the moment. */
export function isDatabaseAway(error: unknown): boolean {
  for (const { name, code } of behind(error)) {
    if (AWAY.test(String(name)) || AWAY_CODES.has(String(code))) return true;
  }
  return false;
}
