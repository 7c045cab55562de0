// One line to the server for all windows: a browser allows six connections to a host, and the seventh window would wait
// for ever. Windows say which set they show; the line tells of all of them, and each window hears of its own.
import { channelName } from '@dusky-otter/core/contract';

/** What a window is told: whether the line is open, and events of the set that it shows, as text. */
export type Heard = { kind: 'line'; open: boolean } | { kind: 'event'; setId: number; data: string };

/** What a window says. */
export type Said = { kind: 'watch'; setId: number | null };

/** A line to the server that tells of some sets; the browser connects again by itself. */
export interface Line {
  close: () => void;
}

export interface LineEvents {
  state: (open: boolean) => void;
  /** The browser has given it up: it will not connect again by itself. */
  gone: () => void;
  event: (setId: number, data: string, id: string) => void;
}

/** Address of the events of sets. @param last the event that was heard last, of the sets that are `known` */
export const eventsAddress = (
  sets: readonly number[],
  known: readonly number[],
  last: string | null,
): string =>
  `/api/events?${new URLSearchParams({
    sets: sets.join(),
    ...(last !== null && known.length > 0 && { known: known.join(), last }),
  })}`;

/** Opens a line with the browser's own means. */
export function openLine(address: string, sets: readonly number[], { state, gone, event }: LineEvents): Line {
  const source = new EventSource(address);
  source.onopen = () => state(true);
  source.onerror = () => {
    state(false);
    // An answer that is no stream, such as “the database is away”, is taken for the last word.
    if (source.readyState === EventSource.CLOSED) gone();
  };
  for (const setId of sets)
    source.addEventListener(channelName(setId), ({ data, lastEventId }: MessageEvent<string>) =>
      event(setId, data, lastEventId),
    );
  return { close: () => source.close() };
}

/** How long after the browser has given a line up another one is tried, in ms. */
const AGAIN_MS = 2_000;

export class Switchboard {
  private readonly windows = new Map<(heard: Heard) => void, number | null>();
  private line: Line | null = null;
  private sets: number[] = [];
  private isOpen = false;
  private last: string | null = null;
  /** How far the files of each set are, as it was told last: whoever joins later hears it as well. */
  private readonly progress = new Map<number, string>();

  constructor(
    private readonly open: typeof openLine,
    private readonly later: (act: () => void, ms: number) => unknown = setTimeout,
  ) {}

  /** A window shows a set, or none. */
  watch(hear: (heard: Heard) => void, setId: number | null): void {
    this.windows.set(hear, setId);
    if (setId !== null && this.sets.includes(setId)) {
      hear({ kind: 'line', open: this.isOpen });
      const progress = this.progress.get(setId);
      if (progress !== undefined) hear({ kind: 'event', setId, data: progress });
    }
    this.connect();
  }

  /** A window is gone. */
  leave(hear: (heard: Heard) => void): void {
    if (this.windows.delete(hear)) this.connect();
  }

  private connect(): void {
    const wanted = [...new Set([...this.windows.values()].filter((setId) => setId !== null))].sort(
      (a, b) => a - b,
    );
    if (wanted.join() === this.sets.join()) return;
    const known = wanted.filter((setId) => this.sets.includes(setId));
    this.sets = wanted;
    for (const setId of [...this.progress.keys()]) if (!wanted.includes(setId)) this.progress.delete(setId);
    this.draw(known);
  }

  /** A line for all sets that windows show, in place of the one that was. */
  private draw(known: readonly number[]): void {
    this.line?.close();
    this.line = null;
    const { sets } = this;
    if (sets.length === 0) return;
    const line = this.open(eventsAddress(sets, known, this.last), sets, {
      state: (open) => {
        this.isOpen = open;
        for (const hear of this.windows.keys()) hear({ kind: 'line', open });
      },
      gone: () =>
        this.later(() => {
          if (this.line === line) this.draw(sets);
        }, AGAIN_MS),
      event: (setId, data, id) => this.tell(setId, data, id),
    });
    this.line = line;
  }

  private tell(setId: number, data: string, id: string): void {
    if (id !== '') this.last = id;
    if (data.startsWith('{"type":"preparation"')) this.progress.set(setId, data);
    for (const [hear, watched] of this.windows) if (watched === setId) hear({ kind: 'event', setId, data });
  }
}
