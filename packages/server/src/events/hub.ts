// Tells listeners what happens in a set. Every event has a running number, so that a listener that was away asks for
// what it missed; a listener that can't keep up is cut, since it can come back the same way.
import { randomBytes } from 'node:crypto';
import type { SetEvent } from '@dusky-otter/core';

/** A listener gets text that is made once for all of them. @returns false when it can take no more: it is then cut. */
export interface Listener {
  send: (text: string) => boolean;
  cut: () => void;
}

/** What is kept of a set's events for those who come back: as many, and as many characters. */
const KEPT_EVENTS = 500;
const KEPT_CHARACTERS = 2_000_000;

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
    return made;
  }

  /** Where a listener stands that starts now. */
  get now(): string {
    return `${this.start}-${this.newest}`;
  }

  /**
   * Listens to a set, from now on or from behind the event that was heard last.
   * @param last id of that event; when what came after it is no longer known, a reset is told instead.
   * @returns the function that ends listening.
   */
  listen(setId: number, listener: Listener, last?: string): () => void {
    const channel = this.channel(setId);
    channel.listeners.add(listener);
    const stop = () => {
      channel.listeners.delete(listener);
    };
    if (last === undefined) return stop;
    const [start, number] = last.split('-');
    const from = Number(number);
    const known =
      start === this.start && Number.isInteger(from) && from >= channel.forgotten && from <= this.newest;
    const missed = known
      ? channel.kept.filter((told) => told.number > from)
      : [{ text: this.written({ type: 'reset' }, this.newest) }];
    for (const { text } of missed) if (!this.deliver(channel, listener, text)) break;
    return stop;
  }

  tell(setId: number, event: SetEvent): void {
    if (event.type !== 'preparation') this.changes += 1;
    const channel = this.channel(setId);
    this.newest += 1;
    const text = this.written(event, this.newest);
    // Progress is told whole each time: what was missed of it matters to nobody.
    if (event.type !== 'preparation') this.keep(channel, { number: this.newest, text });
    for (const listener of [...channel.listeners]) this.deliver(channel, listener, text);
  }

  /** An event as it goes over the line (HTML standard, 9.2). */
  private written(event: SetEvent, number: number): string {
    return `id: ${this.start}-${number}\ndata: ${JSON.stringify(event)}\n\n`;
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

  private deliver(channel: Channel, listener: Listener, text: string): boolean {
    if (listener.send(text)) return true;
    channel.listeners.delete(listener);
    listener.cut();
    return false;
  }

  /** Sets that somebody looks at. */
  get watched(): number[] {
    return [...this.channels].filter(([, { listeners }]) => listeners.size > 0).map(([setId]) => setId);
  }
}
