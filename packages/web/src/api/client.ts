// The typed way to the server. Errors arrive as problem documents with a sentence that may be shown.
import type {
  EditAnswer,
  Filter,
  LanguageLack,
  Offer,
  PhotoList,
  PhotoPage,
  Arranged,
  PlaceCost,
  PlaceUse,
  Policy,
  PolicyForecast,
  Preparation,
  Problem,
  QualityDecision,
  Refusal,
  AlikeBytes,
  Elsewhere,
  PageEntry,
  SentBytes,
  SentPhoto,
  SetHeader,
  SiteSummary,
  Slot,
  Stop,
  TakeInResult,
  Words,
  WordsPreview,
} from '@dusky-otter/core/contract';
import type { SentEdit } from '@dusky-otter/core/edits';
import type { FileBeside } from '@dusky-otter/core/plan';
import type { Concern, QualityPoint } from '@dusky-otter/core/readiness';
import { NO_WORDS } from '@dusky-otter/core/words';

export class ApiError extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail);
    this.problem = problem;
  }
}

/** What can be said of whatever was thrown. */
export const sentenceOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

const unreachable: Problem = {
  type: 'about:blank#unreachable',
  title: 'The server does not answer.',
  status: 0,
  detail: 'The server does not answer. What you typed is kept here and saved as soon as it does.',
  code: 'unreachable',
};

async function problemOf(response: Response): Promise<Problem> {
  const isProblem = response.headers.get('content-type')?.includes('problem+json');
  return isProblem ? ((await response.json()) as Problem) : { ...unreachable, status: response.status };
}

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(signal && { signal }),
      ...(body !== undefined && {
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }),
    });
  } catch (error) {
    // Who gave it up knows why.
    if (signal?.aborted) throw error;
    throw new ApiError(unreachable);
  }
  if (!response.ok) throw new ApiError(await problemOf(response));
  const isJson = response.headers.get('content-type')?.includes('json');
  return (isJson ? await response.json() : await response.text()) as T;
}

/** Photos that a screen asks for: those under a filter, or in the bin. */
export type Shown = Filter | 'bin';

/** A window, and the newest edit that there was when it opened the set. */
export interface Looking {
  window: string;
  since: number;
}

/** Where a photo stands among those under a filter. */
export interface Around {
  index: number;
  total: number;
  previous: number | null;
  next: number | null;
}

/** What a hand-over of photos would hold, and the first of those that lack something. */
export interface HandoverCheck {
  photos: number;
  /** Photos of other sets, which stand on every page. */
  guests: number;
  files: number;
  bytes: number;
  lacking: number;
  /** `set`: whose photo it is. */
  first: { id: number; set: number; name: string; concerns: Concern[] }[];
  /** Films and captions that the page names, and that do not go along. */
  beside: FileBeside[];
  /** Names the photos in the address of the download. */
  selection: string;
}

/** A file as it would be made if a decision were taken. */
export interface TriedFile {
  slot: string;
  shape: string;
  width: number;
  format: string;
  decision: QualityDecision;
}

const query = (parts: Record<string, string | number | undefined>): string => {
  const given = Object.entries(parts).filter(([, value]) => value !== undefined);
  return new URLSearchParams(given.map(([key, value]) => [key, String(value)])).toString();
};

export const api = {
  sites: () => call<SiteSummary[]>('GET', '/api/sites'),
  newSite: (name: string) => call<{ id: number }>('POST', '/api/sites', { name }),
  renameSite: (siteId: number, name: string, version: number) =>
    call('PUT', `/api/sites/${siteId}`, { name, version }),
  archiveSite: (siteId: number, archived: boolean) =>
    call('PUT', `/api/sites/${siteId}/archived`, { archived }),
  demoProgress: () => call<{ unpacking: { done: number; of: number } | null }>('GET', '/api/demo'),
  demo: () => call<{ id: number }>('POST', '/api/demo', { pages: true }),
  limits: () => call<{ bytes: number; pixels: number }>('GET', '/api/limits'),
  newSet: (siteId: number, name: string) =>
    call<{ id: number }>('POST', `/api/sites/${siteId}/sets`, { name }),
  changeSet: (setId: number, change: { name?: string; archived?: boolean }) =>
    call('PUT', `/api/sets/${setId}`, change),
  set: (setId: number, looking: Partial<Looking>) =>
    call<SetHeader>('GET', `/api/sets/${setId}?${query({ ...looking })}`),
  page: (setId: number, filter: Shown, from: number, count: number) =>
    call<PhotoPage>('GET', `/api/sets/${setId}/photos?${query({ filter, from, count })}`),
  photos: async (setId: number, ids: readonly number[]): Promise<SentPhoto[]> =>
    ids.length === 0
      ? []
      : (await call<PhotoPage>('GET', `/api/sets/${setId}/photos?${query({ ids: ids.join() })}`)).photos,
  wordsIn: async (setId: number, photo: number, language: string): Promise<Words> => {
    const page = await call<PhotoPage>('GET', `/api/sets/${setId}/photos?${query({ ids: photo, language })}`);
    return page.photos[0]?.words ?? NO_WORDS;
  },
  /** The page of some photos, of one place alone where it is named, as it would go out. */
  reading: (setId: number, photos: readonly number[], slot?: string) =>
    call<string>('GET', `/api/sets/${setId}/reading?${query({ photos: photos.join(), slot })}`),
  /** Has words looked for in a picture before all others. */
  lookForWords: (setId: number, photo: number) =>
    call('POST', `/api/sets/${setId}/photos/${photo}/words-shown`, {}),
  /** Terms of the site that stand in every alt text of the set. */
  termsInEvery: (setId: number) => call<{ inEvery: string[] }>('GET', `/api/sets/${setId}/terms`),
  /** Other sets in which a photo stands. */
  setsWith: (setId: number, photo: number) =>
    call<{ id: number; name: string }[]>('GET', `/api/sets/${setId}/photos/${photo}/sets`),
  /** What a table of words would change. */
  wordsPreview: (setId: number, text: string, language: string) =>
    call<WordsPreview>('POST', `/api/sets/${setId}/words`, { text, language }),
  /** Keeps what a table has for files that are still to come. */
  keepPlan: (setId: number, text: string) =>
    call<{ kept: number }>('POST', `/api/sets/${setId}/plan`, { text }),
  plan: (setId: number) => call<{ count: number; names: string[] }>('GET', `/api/sets/${setId}/plan`),
  dropPlan: (setId: number) => call<{ gone: number }>('DELETE', `/api/sets/${setId}/plan`),
  ids: (setId: number, filter: Shown) =>
    call<PhotoList>('GET', `/api/sets/${setId}/ids?${query({ filter })}`),
  /** Photos that stand in a place, in the set's order. */
  members: (setId: number, place: string) =>
    call<PhotoList>('GET', `/api/sets/${setId}/ids?${query({ place })}`),
  /** Options of an arrangement that are tried, under a name for `proofAddress`. */
  tryOptions: (setId: number, arranged: Arranged, signal: AbortSignal) =>
    call<{ tried: string }>('POST', `/api/sets/${setId}/proofs`, arranged, signal),
  /** The next photo behind another, under a filter, with open work at a stop; from the first on where there is none behind. */
  next: (setId: number, filter: Filter, open: Stop, after: number | null) =>
    call<{ id: number; index: number } | null>(
      'GET',
      `/api/sets/${setId}/next?${query({ filter, open, after: after ?? undefined })}`,
    ),
  /** The photo behind another by how doubtful its guessed crops are. */
  nextDoubtful: (setId: number, after: number) =>
    call<{ id: number; index: number } | null>(
      'GET',
      `/api/sets/${setId}/next?${query({ filter: 'crop', open: 'frame', by: 'doubt', after })}`,
    ),
  around: (setId: number, filter: Filter, photo: number) =>
    call<Around | null>('GET', `/api/sets/${setId}/around?${query({ filter, photo })}`),
  found: (setId: number, words: string) =>
    call<SentPhoto[]>('GET', `/api/sets/${setId}/found?${query({ words })}`),
  edit: (setId: number, edit: SentEdit & { since: number }) =>
    call<EditAnswer>('POST', `/api/sets/${setId}/edits`, edit),
  /** @param step `token` names the click: sent again because no answer came, it is carried out once */
  undo: (setId: number, step: Looking & { token: string }) =>
    call<EditAnswer>('POST', `/api/sets/${setId}/undo`, step),
  redo: (setId: number, step: Looking & { token: string }) =>
    call<EditAnswer>('POST', `/api/sets/${setId}/redo`, step),
  dismiss: (setId: number, refusal: number) =>
    call<Refusal[]>('DELETE', `/api/sets/${setId}/refusals/${refusal}`),
  dismissAll: (setId: number) => call<Refusal[]>('DELETE', `/api/sets/${setId}/refusals`),
  /** Takes a file that was offered for a photo into the set beside it. */
  addOffered: (setId: number, offer: number) =>
    call<TakeInResult>('POST', `/api/sets/${setId}/offers/${offer}/photo`, {}),
  leaveOut: (setId: number, offer: number) => call<Offer[]>('DELETE', `/api/sets/${setId}/offers/${offer}`),
  leaveAllOut: (setId: number) => call<Offer[]>('DELETE', `/api/sets/${setId}/offers`),
  /** The file that a decision would have made; the caller owns its address. */
  tried: async (
    setId: number,
    photo: number,
    { slot, shape, width, format, decision }: TriedFile,
    signal: AbortSignal,
  ): Promise<{ url: string; bytes: number; difference: number | null }> => {
    const response = await fetch(`/api/sets/${setId}/photos/${photo}/try`, {
      method: 'POST',
      signal,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ slot, shape, width, format, decision }),
    });
    if (!response.ok) throw new ApiError(await problemOf(response));
    const file = await response.blob();
    const difference = response.headers.get('x-difference');
    return {
      url: URL.createObjectURL(file),
      bytes: file.size,
      difference: difference === null ? null : Number(difference),
    };
  },
  emptyBin: (setId: number) => call<{ gone: number[] }>('DELETE', `/api/sets/${setId}/bin`),
  attend: (setId: number, photos: number[]) => call('PUT', `/api/sets/${setId}/attention`, { photos }),
  /** What a picture could be had for. */
  points: (
    setId: number,
    photo: number,
    of: { slot: string; shape: string; width: number; format: string },
    signal: AbortSignal,
  ) =>
    call<{ points: QualityPoint[] }>(
      'GET',
      `/api/sets/${setId}/photos/${photo}/points?${query({ ...of })}`,
      undefined,
      signal,
    ),
  forecast: (setId: number, policy: Policy, signal: AbortSignal) =>
    call<PolicyForecast>('POST', `/api/sets/${setId}/policy/forecast`, policy, signal),
  thorough: (setId: number, now: boolean) => call<Preparation>('PUT', `/api/sets/${setId}/thorough`, { now }),
  pause: (setId: number, paused: boolean) =>
    call<Preparation>('PUT', `/api/sets/${setId}/preparation`, { paused }),
  /** Bytes that a screen is sent for all photos where they stand. */
  sent: (setId: number, viewport: number, density: number) =>
    call<SentBytes>('GET', `/api/sets/${setId}/sent?${query({ viewport, density })}`),
  /** Photos of other sets come into this one as well. */
  borrow: (setId: number, photos: readonly number[]) =>
    call<{ photos: SentPhoto[] }>('POST', `/api/sets/${setId}/photos`, { photos }),
  /** The pages of the site that a set belongs to. */
  pages: (setId: number) => call<{ pages: PageEntry[] }>('GET', `/api/sets/${setId}/pages`),
  /** What its photos lack in the site's further languages. */
  languages: (setId: number) => call<{ languages: LanguageLack[] }>('GET', `/api/sets/${setId}/languages`),
  elsewhere: (setId: number) => call<{ elsewhere: Elsewhere[] }>('GET', `/api/sets/${setId}/elsewhere`),
  /** As `sent`, but with one quality for all: some pictures are made for it, so it takes seconds. */
  alike: (setId: number, viewport: number, density: number, signal: AbortSignal) =>
    call<AlikeBytes>('GET', `/api/sets/${setId}/alike?${query({ viewport, density })}`, undefined, signal),
  /** What a hand-over of some photos would hold; null: of all. */
  check: (setId: number, photos: readonly number[] | null) =>
    call<HandoverCheck>('POST', `/api/sets/${setId}/hand-over`, { photos }),
  beside: (setId: number, kind: 'styles' | 'script') =>
    call<string>('GET', `/api/sets/${setId}/beside/${kind}`),
  markup: (
    setId: number,
    selection: string,
    { slot, form, styles }: { slot?: string; form?: 'picture' | 'img'; styles?: '1' } = {},
  ) => call<string>('POST', `/api/sets/${setId}/markup?${query({ selection, slot, form, styles })}`),
  /** Waits until every file of a hand-over is there; what goes out is called so for good. */
  publish: (setId: number, selection: string) =>
    call('POST', `/api/sets/${setId}/hand-over/publish?${query({ selection })}`),
  placesInUse: (setId: number) => call<Record<string, PlaceUse>>('GET', `/api/sets/${setId}/places`),
  /** What an arrangement would weigh, before it is so. */
  arrangementForecast: (setId: number, value: Slot, signal: AbortSignal) =>
    call<PolicyForecast>(
      'POST',
      `/api/sets/${setId}/arrangements/forecast`,
      { slot: value.id, value },
      signal,
    ),
  /** What it costs to have a place as `value`; null: not at all. */
  placeCost: (setId: number, slot: string, value: Slot | null) =>
    call<PlaceCost>('POST', `/api/sets/${setId}/places/cost`, { slot, value }),
};

/** Address of the ZIP for the photos of a check. */
export const zipAddress = (setId: number, selection: string): string =>
  `/api/sets/${setId}/hand-over.zip?${query({ selection })}`;

/** Address of a size of a crop: the picture itself, or a file with a quality that is tried. */
export const lookAddress = (
  setId: number,
  photo: number,
  of: { slot: string; shape: string; width: number; format?: string; quality?: number },
): string => `/api/sets/${setId}/photos/${photo}/look?${query({ ...of })}`;

/** Address of a set's words as a table. */
export const wordsAddress = (setId: number, language: string): string =>
  `/api/sets/${setId}/words.csv?${query({ language })}`;

/**
 * Address of an arrangement on a page of its own.
 * @param edition another text whenever what is kept has changed
 * @param tried name of options that are tried, see `tryOptions`; those that are kept where there is none
 */
export const proofAddress = (setId: number, slot: string, edition: string, tried?: string): string =>
  `/proofs/${setId}/${slot}?${query({ edition, tried })}`;

/** Address of a stored file. */
export const variantAddress = ({ file, format }: { file: string; format: string }): string =>
  `/files/variants/${file}/${format}`;

/** Address of the picture that screens show for an original. */
export const viewAddress = (hash: string, size: 'row' | 'bench'): string => `/files/views/${hash}/${size}`;

/** A file on its way into a set; `replaces`: the photo whose place it is to take. */
export interface Sending {
  setId: number;
  file: File;
  replaces?: number;
}

/**
 * Sends one file, telling how much has gone (0 to 1). fetch can't tell that, XMLHttpRequest can.
 * @throws ApiError
 */
export function sendFile(
  { setId, file, replaces }: Sending,
  progress: (part: number) => void,
  signal: AbortSignal,
): Promise<TakeInResult> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/sets/${setId}/files?${query({ name: file.name, for: replaces })}`);
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.responseType = 'json';
    request.upload.onprogress = (event) => progress(event.total ? event.loaded / event.total : 0);
    request.onload = () => {
      if (request.status < 400) resolve(request.response as TakeInResult);
      else reject(new ApiError((request.response as Problem | null) ?? unreachable));
    };
    request.onerror = () =>
      reject(
        new ApiError({
          ...unreachable,
          detail: 'The connection broke off. Nothing was kept of this file; send it again.',
        }),
      );
    request.onabort = () => reject(new ApiError({ ...unreachable, code: 'cancelled', detail: 'Cancelled.' }));
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}
