// The open set as the screens see it: confirmed state, edits on their way, selection, filter, notices.
import type {
  Command,
  Edit,
  EditDepth,
  Filter,
  PhotoRow,
  PhotoSet,
  Preparation,
  Refusal,
  SetEvent,
  StoredFacts,
} from '@dusky-otter/core';
import { create } from 'zustand';
import { api, ApiError, listen, type EditAnswer } from '../api/client.ts';
import { mergeRows, withMade, withoutFiles, withPending, type Confirmed } from './pending.ts';

export interface Notice {
  text: string;
  tone: 'plain' | 'bad';
}

export type SheetName = 'places' | 'download' | 'bin' | 'keys';

export interface WorkState {
  setId: number | null;
  siteName: string;
  /** What the server has confirmed. */
  confirmed: Confirmed | null;
  pending: Edit[];
  /** Confirmed with pending on top: this is what screens show. Binned rows are left out. */
  rows: PhotoRow[];
  binned: PhotoRow[];
  set: PhotoSet | null;
  refusals: Refusal[];
  preparation: Preparation | null;
  edits: EditDepth | null;
  loadError: string | null;
  connected: boolean;
  unsaved: string | null;
  notice: Notice | null;
  filter: Filter;
  selected: ReadonlySet<number>;
  cursor: number | null;
  anchor: number | null;
  /** The sheet that lies over the table, if any. */
  sheet: SheetName | null;
}

const EMPTY: WorkState = {
  setId: null,
  siteName: '',
  confirmed: null,
  pending: [],
  rows: [],
  binned: [],
  set: null,
  refusals: [],
  preparation: null,
  edits: null,
  loadError: null,
  connected: true,
  unsaved: null,
  notice: null,
  filter: 'all',
  selected: new Set(),
  cursor: null,
  anchor: null,
  sheet: null,
};

export const useWork = create<WorkState>(() => EMPTY);

const { getState: get, setState: put } = useWork;

export const openSheet = (sheet: SheetName | null): void => put({ sheet });

/** Writes confirmed state and pending edits, and what follows from both. */
function show(confirmed: Confirmed, pending: Edit[], more: Partial<WorkState> = {}): void {
  const { rows, set } = withPending(confirmed, pending);
  const here = rows.filter((row) => !row.binned);
  const ids = new Set(here.map((row) => row.id));
  const { selected, cursor } = get();
  put({
    confirmed,
    pending,
    set,
    rows: here,
    binned: rows.filter((row) => row.binned),
    selected: new Set([...selected].filter((id) => ids.has(id))),
    cursor: cursor !== null && ids.has(cursor) ? cursor : null,
    ...more,
  });
}

export const notify = (text: string, tone: Notice['tone'] = 'plain'): void => put({ notice: { text, tone } });

const sentenceOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

function take(answer: EditAnswer, pending: Edit[]): void {
  const { confirmed } = get();
  if (!confirmed) return;
  show({ rows: mergeRows(confirmed.rows, answer.rows, made), set: answer.set }, pending, {
    edits: answer.edits,
    unsaved: null,
  });
}

function hear(event: SetEvent): void {
  if (event.type === 'variant') {
    const { bytes, contentHash, quality, difference } = event;
    made.set(event.key, { bytes, contentHash, quality, difference });
  }
  if (event.type === 'unmade') for (const key of event.keys) made.delete(key);
  const { confirmed, pending } = get();
  if (!confirmed) return;
  switch (event.type) {
    case 'reset':
      return readAgain();
    case 'unmade': {
      const lost = new Set(event.keys);
      return show({ ...confirmed, rows: confirmed.rows.map((row) => withoutFiles(row, lost)) }, pending);
    }
    case 'preparation':
      return put({ preparation: event.preparation });
    case 'refusals':
      return put({ refusals: event.refusals });
    case 'set':
      return show({ ...confirmed, set: event.set }, pending, { edits: event.edits });
    case 'rows':
      return show({ ...confirmed, rows: mergeRows(confirmed.rows, event.rows, made) }, pending);
    case 'variant': {
      const rows = confirmed.rows.map((row) => (row.id === event.photoId ? withMade(row, made) : row));
      return show({ ...confirmed, rows }, pending);
    }
    case 'failed': {
      const failed = new Set(event.keys);
      const rows = confirmed.rows.map((row) => ({
        ...row,
        variants: row.variants.map((v) => (failed.has(v.key) ? { ...v, failure: event.sentence } : v)),
      }));
      return show({ ...confirmed, rows }, pending);
    }
  }
}

/** Files that events have told of since the set was opened. */
const made = new Map<string, StoredFacts>();

let stopListening: (() => void) | null = null;

async function load(setId: number): Promise<void> {
  const state = await api.set(setId);
  if (get().setId !== setId) return;
  show({ rows: mergeRows([], state.rows, made), set: state.set }, get().pending, {
    siteName: state.site.name,
    refusals: state.refusals,
    preparation: state.preparation,
    edits: state.edits,
    loadError: null,
  });
}

/** Reads the open set anew: what was known of it is no longer all there is. */
function readAgain(): void {
  const { setId } = get();
  made.clear();
  if (setId !== null) void read(setId);
}

/** The first reading says why it failed; a later one leaves what is on screen. */
const read = (setId: number): Promise<void> =>
  load(setId).catch((error: unknown) => {
    if (get().setId === setId && !get().confirmed) put({ loadError: sentenceOf(error) });
  });

/** Opens a set and listens to it. After a broken connection the server tells what was missed, or to read all anew. */
export function openSet(setId: number): void {
  closeSet();
  put({ ...EMPTY, setId });
  void read(setId);
  stopListening = listen(setId, hear, (connected) => put({ connected }));
}

export function closeSet(): void {
  stopListening?.();
  stopListening = null;
  made.clear();
  put(EMPTY);
}

/** The server, or its database, is not there at the moment: what is to be saved waits. */
const isAway = ({ problem }: ApiError): boolean =>
  problem.status === 0 || problem.status === 502 || problem.status === 503;

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

let sending: Promise<void> | null = null;

/** Sends pending edits one after the other; waits and tries again while the server does not answer. */
async function sendAll(): Promise<void> {
  for (;;) {
    const { pending, setId, confirmed } = get();
    const [edit, ...rest] = pending;
    if (!edit || setId === null || !confirmed) return;
    const ids = new Set(edit.commands.flatMap((command) => ('photo' in command ? [command.photo] : [])));
    const seen = confirmed.rows.filter((row) => ids.has(row.id)).map((row) => [row.id, row.version] as const);
    try {
      const answer = await api.edit(setId, edit, {
        photos: Object.fromEntries(seen),
        set: confirmed.set.version,
      });
      take(answer, get().pending.slice(1));
    } catch (error) {
      if (error instanceof ApiError && isAway(error)) {
        put({ unsaved: sentenceOf(error) });
        await wait(2000);
        continue;
      }
      const newer = error instanceof ApiError ? error.problem : null;
      show(
        { rows: mergeRows(confirmed.rows, newer?.rows ?? [], made), set: newer?.set ?? confirmed.set },
        rest,
      );
      notify(sentenceOf(error), 'bad');
    }
  }
}

/** Resolves once every edit made so far has been answered. */
export function allSaved(): Promise<void> {
  sending ??= sendAll().finally(() => {
    sending = null;
  });
  return sending;
}

/** Makes an edit: shown at once, saved right after. */
export function edit(label: string, commands: Command[]): void {
  const { confirmed, pending } = get();
  if (!confirmed || commands.length === 0) return;
  show(confirmed, [...pending, { label, commands }]);
  void allSaved();
}

async function step(direction: 'undo' | 'redo'): Promise<void> {
  const { setId, edits } = get();
  if (setId === null) return;
  await allSaved();
  const label = direction === 'undo' ? get().edits?.undoLabel : edits?.redoLabel;
  try {
    take(await api[direction](setId), get().pending);
    notify(`${direction === 'undo' ? 'Taken back' : 'Done again'}: ${label ?? 'the last edit'}`);
  } catch (error) {
    notify(sentenceOf(error), 'bad');
  }
}

export const undo = (): Promise<void> => step('undo');
export const redo = (): Promise<void> => step('redo');

/** Puts all refused files' rows away. */
export async function dismissRefusals(): Promise<void> {
  const { setId } = get();
  if (setId !== null) put({ refusals: await api.dismissAll(setId) });
}

/** Puts a refusal's row away. */
export async function dismissRefusal(id: number): Promise<void> {
  const { setId } = get();
  if (setId !== null) put({ refusals: await api.dismiss(setId, id) });
}

/** Stops making versions, or goes on. */
export async function pausePreparation(paused: boolean): Promise<void> {
  const { setId } = get();
  if (setId !== null) put({ preparation: await api.pause(setId, paused) });
}

window.addEventListener('beforeunload', (event) => {
  if (get().pending.length > 0) event.preventDefault();
});
