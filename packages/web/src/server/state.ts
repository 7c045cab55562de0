// The server's state in the browser: one cache, one queue of edits, and the set that is open.
import { QueryClient } from '@tanstack/react-query';
import type { EditAnswer, PhotoList, SentPhoto, SetHeader } from '@dusky-otter/core/contract';
import {
  isPhotoCommand,
  isSiteCommand,
  type Command,
  type PhotoCommand,
  type SeenVersions,
} from '@dusky-otter/core/edits';
import { create } from 'zustand';
import { api, ApiError, sentenceOf, type Looking, type Shown } from '../api/client.ts';
import { listen } from './line.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { keys, PAGE } from './keys.ts';
import { Live } from './live.ts';
import { byPhoto } from './overlay.ts';
import { EditQueue, isAway, type QueuedEdit } from './queue.ts';
import { isWindowOpen, openedAt, sinceOf, storageKeys, windowName } from './window.ts';

export const client = new QueryClient({
  defaultOptions: {
    queries: {
      // Events say what is no longer true.
      staleTime: Infinity,
      gcTime: 10 * 60_000,
      networkMode: 'always',
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
      retry: (times, error) => error instanceof ApiError && error.problem.status >= 500 && times < 3,
    },
  },
});

/** An edit that another window was in the way of, with what is there now. */
export interface Meeting {
  edit: QueuedEdit;
  photos: SentPhoto[];
}

interface Sending {
  pending: readonly QueuedEdit[];
  commands: ReadonlyMap<number, readonly PhotoCommand[]>;
  /** Why nothing can be saved at the moment. */
  trouble: string | null;
  meetings: readonly Meeting[];
  /** Counts confirmed moves in an order and into or out of the bin: lists are made anew with each. */
  moves: number;
  connected: boolean;
}

/** What is on its way to the server. */
export const useSending = create<Sending>(() => ({
  pending: [],
  commands: new Map(),
  trouble: null,
  meetings: [],
  moves: 0,
  connected: true,
}));

let window_ = '';
let queue: EditQueue | null = null;
let open: { setId: number; live: Live; stop: () => void } | null = null;

const newLive = (setId: number): Live =>
  new Live(
    client,
    setId,
    (ids) => api.photos(setId, ids),
    () => useSending.setState(({ moves }) => ({ moves: moves + 1 })),
  );

/** What takes news of a set into the cache, whether it is open or not. */
const liveOf = (setId: number): Live => (open?.setId === setId ? open.live : newLive(setId));

const headerOf = (setId: number): SetHeader | undefined => client.getQueryData<SetHeader>(keys.set(setId));

/** What this window may take back in a set. */
export const lookingAt = (setId: number): Looking => ({ window: window_, since: sinceOf(setId) ?? 0 });

/** Takes what an edit came back with. Another set may be open by now: its cache is by set. */
function take(setId: number, answer: EditAnswer): void {
  liveOf(setId).put(answer.photos);
  client.setQueryData<SetHeader>(
    keys.set(setId),
    (before) =>
      before && {
        ...before,
        set: answer.set.version >= before.set.version ? answer.set : before.set,
        edits: answer.edits,
      },
  );
}

function met(edit: QueuedEdit, { problem }: ApiError): void {
  const photos = problem.photos ?? [];
  if (open?.setId === edit.setId) open.live.put(photos);
  const touches = (other: QueuedEdit) => JSON.stringify(partsOf(other)) === JSON.stringify(partsOf(edit));
  useSending.setState(({ meetings }) => {
    // The strokes of one text wait as one: the last of them is the whole text.
    const older = meetings.filter(({ edit: other }) => touches(other));
    queue?.settle(older.map(({ edit: { token } }) => token));
    return { meetings: [...meetings.filter((one) => !older.includes(one)), { edit, photos }] };
  });
}

/** What an edit changes, without what it changes it to. */
const partsOf = ({ setId, commands }: QueuedEdit): unknown[] => [
  setId,
  commands.map((command) => [
    command.kind,
    'photo' in command ? command.photo : null,
    command.kind === 'words' ? Object.keys(command.words) : null,
  ]),
];

/** Called once, before anything is shown. */
export async function beginState(): Promise<void> {
  window_ = await windowName();
  queue = new EditQueue({
    client,
    window: window_,
    send: ({ setId, ...edit }) => api.edit(setId, edit),
    keeping: {
      getItem: (key) => localStorage.getItem(key),
      setItem: (key, value) => localStorage.setItem(key, value),
      removeItem: (key) => localStorage.removeItem(key),
      keys: storageKeys,
    },
    isOpen: isWindowOpen,
    answered: ({ setId }, answer) => take(setId, answer),
    refused: ({ label }, error) => notify(`Not saved: ${label}. ${sentenceOf(error)}`, 'bad'),
    met,
    changed: (pending, trouble) =>
      useSending.setState(({ commands }) => ({
        pending,
        trouble,
        commands: byPhoto(
          pending.flatMap((edit) => edit.commands),
          commands,
        ),
      })),
  });
  void queue.takeUp();
}

async function readHeader(setId: number): Promise<SetHeader> {
  const since = sinceOf(setId);
  const header = await api.set(setId, { window: window_, ...(since !== undefined && { since }) });
  openedAt(setId, header.newestEdit);
  return header;
}

export const headerQuery = (setId: number) => ({
  queryKey: keys.set(setId),
  queryFn: () => readHeader(setId),
});

/** A page's photos go into the cache one by one; the page itself is their ids. */
export const pageQuery = (setId: number, shown: Shown, page: number) => ({
  queryKey: keys.page(setId, shown, page),
  queryFn: async () => {
    const { total, photos } = await api.page(setId, shown, page * PAGE, PAGE);
    liveOf(setId).put(photos);
    return { total, ids: photos.map(({ id }) => id) };
  },
});

export const photoQuery = (setId: number, id: number) => ({
  queryKey: keys.photo(setId, id),
  queryFn: async () => {
    const [photo] = await api.photos(setId, [id]);
    if (!photo) throw new Error('This photo is not in the set any more.');
    return photo;
  },
});

export const idsQuery = (setId: number, shown: Shown) => ({
  queryKey: keys.ids(setId, shown),
  queryFn: () => api.ids(setId, shown),
});

/** Opens a set and listens to it. After a broken connection the server tells what was missed, or to read all anew. */
export function openSet(setId: number): void {
  closeSet();
  const live = newLive(setId);
  const stop = listen(
    setId,
    (event) => live.hear(event),
    (connected) => useSending.setState({ connected }),
  );
  open = { setId, live, stop };
}

export function closeSet(): void {
  if (!open) return;
  const { setId, stop, live } = open;
  stop();
  live.close();
  open = null;
  useSending.setState({ connected: true });
  // From here on nobody listens: what is known may be true no more. Screens that show it go first.
  setTimeout(() => {
    if (open?.setId === setId) return;
    for (const queryKey of [
      keys.set(setId),
      keys.photos(setId),
      keys.pages(setId),
      keys.allIds(setId),
      keys.allAround(setId),
    ])
      client.removeQueries({ queryKey, type: 'inactive' });
  }, 0);
}

export const openSetId = (): number | null => open?.setId ?? null;

/** Resolves once every edit of the open set made so far has been answered. */
export async function allSaved(): Promise<void> {
  if (open) await queue?.allSaved(open.setId);
}

/** The versions of what commands change, as they are shown now. */
function seenBy(setId: number, commands: readonly Command[]): SeenVersions {
  const header = headerOf(setId);
  const versions = new Map<number, number>();
  for (const [, list] of client.getQueriesData<PhotoList>({ queryKey: keys.allIds(setId) }))
    list?.ids.forEach((id, at) => versions.set(id, list.versions[at]!));
  const photos: Record<number, number> = {};
  for (const { photo: id } of commands.filter(isPhotoCommand)) {
    const version = client.getQueryData<SentPhoto>(keys.photo(setId, id))?.version ?? versions.get(id);
    if (version !== undefined) photos[id] = version;
  }
  return {
    photos,
    ...(header && commands.some(({ kind }) => kind === 'set') && { set: header.set.version }),
    ...(header && commands.some(isSiteCommand) && { site: header.site.version }),
  };
}

/**
 * Makes an edit in the open set: shown at once, saved right after.
 * @param began versions on which it was begun, where that was before now: while a text is typed another window may
 *   change it
 */
export function edit(label: string, commands: Command[], began: Partial<SeenVersions> = {}): void {
  if (!open || !queue || commands.length === 0) return;
  const { setId } = open;
  const seen = seenBy(setId, commands);
  void queue.add({
    setId,
    label,
    commands,
    seen: { ...seen, ...began, photos: { ...seen.photos, ...began.photos } },
    token: crypto.randomUUID(),
    ...lookingAt(setId),
  });
}

/** An editor chooses between their edit and what another window made of the same. */
export function settleMeeting(meeting: Meeting, mine: boolean): void {
  const { edit: own } = meeting;
  queue?.settle([own.token]);
  useSending.setState(({ meetings }) => ({ meetings: meetings.filter((other) => other !== meeting) }));
  if (!mine) return;
  const seen = seenBy(own.setId, own.commands);
  // What the editor chose against is what was shown, whether or not the set behind it is read yet.
  const shown = Object.fromEntries(meeting.photos.map(({ id, version }) => [id, version]));
  void queue?.add({
    ...own,
    seen: { ...own.seen, ...seen, photos: { ...own.seen.photos, ...seen.photos, ...shown } },
    token: crypto.randomUUID(),
    ...lookingAt(own.setId),
  });
}

/** A step back or forth whose answer did not come: whoever clicks again means the same step. */
let unanswered: { setId: number; direction: 'undo' | 'redo'; token: string } | null = null;

/** The token of a click: that of the click before where it was not answered, and a new one otherwise. */
function tokenFor(setId: number, direction: 'undo' | 'redo'): string {
  const isAgain = unanswered?.setId === setId && unanswered.direction === direction;
  const token = isAgain ? unanswered!.token : crypto.randomUUID();
  unanswered = null;
  return token;
}

async function step(direction: 'undo' | 'redo'): Promise<void> {
  if (!open) return;
  const { setId } = open;
  await allSaved();
  const { undoLabel, redoLabel } = headerOf(setId)?.edits ?? {};
  const label = direction === 'undo' ? undoLabel : redoLabel;
  const token = tokenFor(setId, direction);
  try {
    take(setId, await api[direction](setId, { ...lookingAt(setId), token }));
    liveOf(setId).listsSoon();
    notify(`${direction === 'undo' ? 'Taken back' : 'Done again'}: ${label ?? 'the last edit'}`);
  } catch (error) {
    if (isAway(error)) unanswered = { setId, direction, token };
    notifyFailure(error);
  }
}

export const undo = (): Promise<void> => step('undo');
export const redo = (): Promise<void> => step('redo');

/** Changes a part of the header that no edit is made of. */
function putHeader(setId: number, change: Partial<SetHeader>): void {
  client.setQueryData<SetHeader>(keys.set(setId), (before) => before && { ...before, ...change });
}

/** Does something for the open set; a failure is said. */
async function forOpenSet(body: (setId: number) => Promise<void>): Promise<void> {
  if (!open) return;
  try {
    await body(open.setId);
  } catch (error) {
    notifyFailure(error);
  }
}

/** Puts a refusal's row away. */
export const dismissRefusal = (id: number): Promise<void> =>
  forOpenSet(async (setId) => putHeader(setId, { refusals: await api.dismiss(setId, id) }));

/** Puts all refused files' rows away. */
export const dismissRefusals = (): Promise<void> =>
  forOpenSet(async (setId) => putHeader(setId, { refusals: await api.dismissAll(setId) }));

/** Takes a file that was offered for a photo into the set, beside it. */
export const addBeside = (offer: number): Promise<void> => addAllBeside([offer]);

/** Takes files that were offered into the set, one after the other: they keep their order. */
export const addAllBeside = (offers: readonly number[]): Promise<void> =>
  forOpenSet(async (setId) => {
    for (const offer of offers) await api.addOffered(setId, offer);
  });

/** Leaves a file out that was offered for a photo. */
export const putOfferAway = (offer: number): Promise<void> =>
  forOpenSet(async (setId) => putHeader(setId, { offers: await api.leaveOut(setId, offer) }));

/** Leaves all out. */
export const putOffersAway = (): Promise<void> =>
  forOpenSet(async (setId) => putHeader(setId, { offers: await api.leaveAllOut(setId) }));

/** Smaller files are looked for at once, or only when nothing else is to be made. */
export const askThorough = (now: boolean): Promise<void> =>
  forOpenSet(async (setId) => putHeader(setId, { preparation: await api.thorough(setId, now) }));

/** Stops making versions, or goes on. */
export const pausePreparation = (paused: boolean): Promise<void> =>
  forOpenSet(async (setId) => putHeader(setId, { preparation: await api.pause(setId, paused) }));

/** All ids under a filter, read once and kept until they change. */
export const idsUnder = (shown: Shown): Promise<PhotoList> =>
  open ? client.query(idsQuery(open.setId, shown)) : Promise.resolve({ ids: [], versions: [] });
