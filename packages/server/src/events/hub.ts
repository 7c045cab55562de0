// Tells listeners what happens in a set. Every event has a running number, so that a listener that was away asks for
// what it missed; a listener that can't keep up is cut, since it can come back the same way.
import { randomBytes } from 'node:crypto';
import { channelName, type SetEvent } from '@dusky-otter/core/contract';

/** A listener gets text that is made once for all of them. @returns false when it can take no more: it is then cut. */
export interface Listener {
  send: (text: string) => boolean;
  cut: () => void;
}

/** What is kept of a set's events for those who come back: as many, and as many characters. */
const KEPT_EVENTS = 500;
const KEPT_CHARACTERS = 2_000_000;
/** Sets that nobody listens to, whose events are kept all the same: for those who come back. */
const KEPT_CHANNELS = 50;

interface Told {
  number: number;
  text: string;
}

interface Channel {
  listeners: Set<Listener>;
  kept: Told[];
  characters: number;
  /** Number of the newest event that is no longer kept. */
  forgotten: number;
}

export class EventHub {
  private readonly channels = new Map<number, Channel>();
  /** Numbers of an earlier start mean nothing now. */
  private readonly start = randomBytes(4).toString('hex');
  private newest = 0;
  /** Counts what may change a page: whoever keeps something computed of it sees whether it is still true. */
  changes = 0;

  private channel(setId: number): Channel {
    const found = this.channels.get(setId);
    if (found) return found;
    const made: Channel = { listeners: new Set(), kept: [], characters: 0, forgotten: this.newest };
    this.channels.set(setId, made);
    this.forgetQuiet();
    return made;
  }

  /** The sets that were first spoken of longest ago are forgotten: who comes back to one is told to read it anew. */
  private forgetQuiet(): void {
    const quiet = [...this.channels].filter(([, { listeners }]) => listeners.size === 0);
    for (const [setId] of quiet.slice(0, -KEPT_CHANNELS)) this.channels.delete(setId);
  }

  /** Where a listener stands that starts now. */
  get now(): string {
    return `${this.start}-${this.newest}`;
  }

  /**
   * Listens to sets, from now on or from behind the event that was heard last.
   * @param sets those that `last` speaks of
   * @param last id of that event; when what came after it is no longer known of a set, a reset of it is told instead
   * @param fresh sets that are listened to from now on, whatever was heard last
   * @returns the function that ends listening.
   */
  listen(
    sets: readonly number[],
    listener: Listener,
    last?: string,
    fresh: readonly number[] = [],
  ): () => void {
    for (const setId of [...sets, ...fresh]) this.channel(setId).listeners.add(listener);
    const stop = () => {
      for (const setId of [...sets, ...fresh]) this.channels.get(setId)?.listeners.delete(listener);
    };
    if (last === undefined) return stop;
    // In the order in which they were told, so that the last one that is heard stands for all before it.
    const missed = sets.flatMap((setId) => this.missedOf(setId, last)).sort((a, b) => a.number - b.number);
    for (const { text } of missed) {
      if (listener.send(text)) continue;
      stop();
      listener.cut();
      break;
    }
    return stop;
  }

  /** What was told of a set behind an event, or that all is to be read anew. */
  private missedOf(setId: number, last: string): Told[] {
    const channel = this.channel(setId);
    const [start, number] = last.split('-');
    const from = Number(number);
    const known =
      start === this.start && Number.isInteger(from) && from >= channel.forgotten && from <= this.newest;
    return known
      ? channel.kept.filter((told) => told.number > from)
      : [{ number: this.newest, text: this.written(setId, { type: 'reset' }, this.newest) }];
  }

  tell(setId: number, event: SetEvent): void {
    if (event.type !== 'preparation') this.changes += 1;
    const channel = this.channel(setId);
    this.newest += 1;
    const text = this.written(setId, event, this.newest);
    // Progress is told whole each time: what was missed of it matters to nobody.
    if (event.type !== 'preparation') this.keep(channel, { number: this.newest, text });
    for (const listener of [...channel.listeners]) {
      if (listener.send(text)) continue;
      channel.listeners.delete(listener);
      listener.cut();
    }
  }

  /** An event as it goes over the line (HTML standard, 9.2): its type says of which set it tells. */
  private written(setId: number, event: SetEvent, number: number): string {
    return `id: ${this.start}-${number}\nevent: ${channelName(setId)}\ndata: ${JSON.stringify(event)}\n\n`;
  }

  private keep(channel: Channel, told: Told): void {
    channel.kept.push(told);
    channel.characters += told.text.length;
    while (
      channel.kept.length > KEPT_EVENTS ||
      (channel.characters > KEPT_CHARACTERS && channel.kept.length > 0)
    ) {
      const [oldest] = channel.kept.splice(0, 1);
      channel.characters -= oldest!.text.length;
      channel.forgotten = oldest!.number;
    }
  }

  /** Sets that somebody looks at. */
  get watched(): number[] {
    return [...this.channels].filter(([, { listeners }]) => listeners.size > 0).map(([setId]) => setId);
  }
}
