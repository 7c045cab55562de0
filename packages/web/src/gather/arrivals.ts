// Files on their way in: three at a time, each with its own progress and its own result.
import type { SentPhoto, TakeInResult } from '@dusky-otter/core/contract';
import { create } from 'zustand';
import { api, sendFile, sentenceOf, type Sending } from '../api/client.ts';
import { leftOver, SAYS, writeDown, type Named } from './on-the-way.ts';

export interface Arrival {
  id: number;
  setId: number;
  name: string;
  bytes: number;
  /** Part that has been sent, 0 to 1. At 1 the server looks at the picture. */
  sent: number;
  state: 'waiting' | 'sending' | 'done' | 'known' | 'failed';
  sentence: string | null;
  /** The photo whose place it is to take. */
  replaces?: number;
}

interface Gathering {
  arrivals: Arrival[];
  /** Files that windows had on their way when they were left, by where that is written. */
  lost: { key: string; files: Named[] }[];
  /** Names that photos brought along, until somebody says whether they are shown. */
  credits: { setId: number; photo: number; credit: string }[];
}

export const useGathering = create<Gathering>(() => ({ arrivals: [], lost: [], credits: [] }));

const isOnTheWay = ({ state }: Arrival): boolean => state === 'waiting' || state === 'sending';
const onTheWay = (): Arrival[] => useGathering.getState().arrivals.filter(isOnTheWay);

/** How long what changed may wait to be written down, ms. */
const SOON = 400;

/** This window, also once it is loaded anew. */
const OWN = 'dusky-otter-window';
function ownName(): string {
  const name = sessionStorage.getItem(OWN) ?? crypto.randomUUID();
  sessionStorage.setItem(OWN, name);
  return name;
}

/**
 * Watches over what is on its way as long as this window lives: leaving is asked about while files wait, and what a window
 * that was left had not sent is said afterwards.
 */
export function watchArrivals(): void {
  const own = ownName();
  useGathering.setState({ lost: leftOver(localStorage, own, Date.now()) });
  let due = 0;
  const write = () => {
    clearTimeout(due);
    due = 0;
    writeDown(localStorage, own, onTheWay(), Date.now());
  };
  // Files say many times a second how far they are, and thousands may be named: not each stroke is written.
  useGathering.subscribe(() => {
    due ||= window.setTimeout(write, SOON);
  });
  addEventListener('pagehide', write);
  setInterval(() => onTheWay().length > 0 && write(), SAYS);
  addEventListener('beforeunload', (event) => {
    if (onTheWay().length > 0) event.preventDefault();
  });
}

/** What was lost of a set is known. */
export function dismissLost(setId: number): void {
  useGathering.setState(({ lost }) => ({
    lost: lost.flatMap(({ key, files }) => {
      const others = files.filter((file) => file.setId !== setId);
      if (others.length === 0) localStorage.removeItem(key);
      return others.length > 0 ? [{ key, files: others }] : [];
    }),
  }));
}

/** Whether a file is on its way that is to take a photo's place, or one did not get through. */
export const useReplacing = (photo?: number): boolean =>
  useGathering(({ arrivals }) =>
    arrivals.some(({ replaces }) => replaces !== undefined && (photo ?? replaces) === replaces),
  );

const AT_ONCE = 3;
let lastId = 0;
let running = 0;
const waiting: ({ id: number } & Sending)[] = [];
const controllers = new Map<number, AbortController>();

const update = (id: number, change: Partial<Arrival>): void =>
  useGathering.setState(({ arrivals }) => ({
    arrivals: arrivals.map((arrival) => (arrival.id === id ? { ...arrival, ...change } : arrival)),
  }));

const drop = (id: number): void =>
  useGathering.setState(({ arrivals }) => ({ arrivals: arrivals.filter((arrival) => arrival.id !== id) }));

/** What became of words that lay beside a photo. */
const wordsSaid = ({ name, photos }: Extract<TakeInResult, { kind: 'words' }>): string =>
  photos.length > 0
    ? `Its words stand with ${photos.join(', ')} now, where nothing was said yet.`
    : `Its words wait for a photo called “${name.replace(/\.xmp$/i, '')}”.`;

/** Whether the names that came are shown is decided. */
export const dismissCredits = (setId: number): void =>
  useGathering.setState(({ credits }) => ({ credits: credits.filter((one) => one.setId !== setId) }));

function askForCredit(setId: number, { id, words, original }: SentPhoto): void {
  const { credit } = original.found;
  if (credit.trim() === '' || words.credit !== '') return;
  useGathering.setState(({ credits }) => ({ credits: [...credits, { setId, photo: id, credit }] }));
}

function settle(id: number, setId: number, result: TakeInResult): void {
  switch (result.kind) {
    case 'new':
      askForCredit(setId, result.photo);
      return drop(id);
    case 'refused':
    case 'offered':
      // The photo has its row, a refusal and an offer have their own: nothing more to say here.
      return drop(id);
    case 'words':
      return update(id, { state: 'known', sentence: wordsSaid(result) });
    case 'already-here':
      return update(id, {
        state: 'known',
        sentence: `The same file is here already, as “${result.photo.fileName}”. Nothing was added.`,
      });
    case 'back-from-bin':
      return update(id, {
        state: 'known',
        sentence: 'This photo was in the bin; it is back with its decisions.',
      });
    case 'from-another-set':
      return update(id, {
        state: 'known',
        sentence: `This photo also stands in “${result.setName}”; its crops and words are shared.`,
      });
  }
}

async function send({ id, ...sending }: (typeof waiting)[number]): Promise<void> {
  const controller = new AbortController();
  controllers.set(id, controller);
  update(id, { state: 'sending' });
  try {
    settle(id, sending.setId, await sendFile(sending, (sent) => update(id, { sent }), controller.signal));
  } catch (error) {
    if (controller.signal.aborted) drop(id);
    else update(id, { state: 'failed', sentence: sentenceOf(error) });
  } finally {
    controllers.delete(id);
    running -= 1;
    pump();
  }
}

function pump(): void {
  while (running < AT_ONCE) {
    const next = waiting.shift();
    if (!next) return;
    running += 1;
    void send(next);
  }
}

/**
 * Takes files into a set. What is far too large is refused here, before it is sent for nothing.
 * @param to the photo whose place the file is to take: it is then offered for it
 */
export async function gather(
  setId: number,
  files: readonly File[],
  to: Pick<Sending, 'replaces'> = {},
): Promise<void> {
  const { bytes: limit } = await api.limits();
  for (const file of files) {
    const id = ++lastId;
    const tooLarge = file.size > limit;
    const sentence = `The file has ${Math.round(file.size / 1e6)} MB; up to ${limit / 1e6} MB can be taken in. Export it smaller and add it again.`;
    const arrival: Arrival = {
      id,
      setId,
      name: file.name,
      bytes: file.size,
      sent: 0,
      state: tooLarge ? 'failed' : 'waiting',
      sentence: tooLarge ? sentence : null,
      ...to,
    };
    useGathering.setState(({ arrivals }) => ({ arrivals: [...arrivals, arrival] }));
    if (!tooLarge) waiting.push({ id, setId, file, ...to });
  }
  pump();
}

/** Stops a file that waits or is being sent, or puts its line away. */
export function dismissArrival(id: number): void {
  const at = waiting.findIndex((entry) => entry.id === id);
  if (at >= 0) waiting.splice(at, 1);
  const controller = controllers.get(id);
  if (controller) controller.abort();
  else drop(id);
}
