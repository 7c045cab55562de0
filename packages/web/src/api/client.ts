// The typed way to the server. Errors arrive as problem documents with a sentence that may be shown.
import type {
  Edit,
  EditDepth,
  PhotoRow,
  PhotoSet,
  Preparation,
  Problem,
  Refusal,
  SetEvent,
  SetState,
  SetSummary,
  TakeInResult,
} from '@dusky-otter/core';

export class ApiError extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail);
    this.problem = problem;
  }
}

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

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(body !== undefined && {
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }),
    });
  } catch {
    throw new ApiError(unreachable);
  }
  if (!response.ok) throw new ApiError(await problemOf(response));
  const isJson = response.headers.get('content-type')?.includes('json');
  return (isJson ? await response.json() : await response.text()) as T;
}

export interface SiteWithSets {
  id: number;
  name: string;
  sets: SetSummary[];
}

export interface EditAnswer {
  rows: PhotoRow[];
  set: PhotoSet;
  edits: EditDepth;
}

export interface SeenVersions {
  photos: Record<number, number>;
  set?: number;
}

export const api = {
  sites: () => call<SiteWithSets[]>('GET', '/api/sites'),
  newSite: (name: string) => call<{ id: number }>('POST', '/api/sites', { name }),
  renameSite: (siteId: number, name: string) =>
    call<{ id: number; name: string }>('PUT', `/api/sites/${siteId}`, { name }),
  demo: () => call<{ id: number }>('POST', '/api/demo', {}),
  limits: () => call<{ bytes: number; pixels: number }>('GET', '/api/limits'),
  newSet: (siteId: number, name: string) =>
    call<{ id: number }>('POST', `/api/sites/${siteId}/sets`, { name }),
  set: (setId: number) => call<SetState>('GET', `/api/sets/${setId}`),
  edit: (setId: number, edit: Edit, seen: SeenVersions) =>
    call<EditAnswer>('POST', `/api/sets/${setId}/edits`, { ...edit, ...seen }),
  undo: (setId: number) => call<EditAnswer>('POST', `/api/sets/${setId}/undo`),
  redo: (setId: number) => call<EditAnswer>('POST', `/api/sets/${setId}/redo`),
  dismiss: (setId: number, refusal: number) =>
    call<Refusal[]>('DELETE', `/api/sets/${setId}/refusals/${refusal}`),
  dismissAll: (setId: number) => call<Refusal[]>('DELETE', `/api/sets/${setId}/refusals`),
  emptyBin: (setId: number) => call<{ gone: number[] }>('DELETE', `/api/sets/${setId}/bin`),
  attend: (setId: number, photos: number[]) => call('PUT', `/api/sets/${setId}/attention`, { photos }),
  pause: (setId: number, paused: boolean) =>
    call<Preparation>('PUT', `/api/sets/${setId}/preparation`, { paused }),
  markup: (setId: number, photos: number[], slot?: string) => {
    const query = new URLSearchParams({ photos: photos.join(','), ...(slot && { slot }) });
    return call<string>('GET', `/api/sets/${setId}/markup?${query}`);
  },
};

/** Address of the ZIP for some photos, or for the whole set. */
export const zipAddress = (setId: number, photos?: readonly number[]): string =>
  `/api/sets/${setId}/hand-over.zip${photos ? `?photos=${photos.join(',')}` : ''}`;

/** Address of the picture that screens show for an original. */
export const viewAddress = (hash: string, size: 'row' | 'bench'): string => `/files/views/${hash}/${size}`;

/** Listens to a set; the browser connects again by itself. @returns the function that ends listening. */
export function listen(
  setId: number,
  hear: (event: SetEvent) => void,
  connected: (open: boolean) => void,
): () => void {
  const source = new EventSource(`/api/sets/${setId}/events`);
  source.onmessage = (message: MessageEvent<string>) => hear(JSON.parse(message.data) as SetEvent);
  source.onopen = () => connected(true);
  source.onerror = () => connected(false);
  return () => source.close();
}

/**
 * Sends one file, telling how much has gone (0 to 1). fetch can't tell that, XMLHttpRequest can.
 * @throws ApiError
 */
export function sendFile(
  setId: number,
  file: File,
  progress: (part: number) => void,
  signal: AbortSignal,
): Promise<TakeInResult> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/sets/${setId}/files?${new URLSearchParams({ name: file.name })}`);
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
