// Tells listeners what happens in a set. Listeners are the open server-sent event streams.
import type { SetEvent } from '@dusky-otter/core';

type Listener = (event: SetEvent) => void;

export class EventHub {
  private readonly listeners = new Map<number, Set<Listener>>();

  /** @returns the function that ends listening. */
  listen(setId: number, listener: Listener): () => void {
    const all = this.listeners.get(setId) ?? new Set();
    this.listeners.set(setId, all.add(listener));
    return () => {
      all.delete(listener);
      if (all.size === 0) this.listeners.delete(setId);
    };
  }

  tell(setId: number, event: SetEvent): void {
    for (const listener of this.listeners.get(setId) ?? []) listener(event);
  }

  /** Sets that somebody looks at. */
  get watched(): number[] {
    return [...this.listeners.keys()];
  }
}
