// Tells listeners of a set what changed of its photos and counts. Changes come in hundreds while files are made: what
// came in a moment is told together.
import type { SetCounts } from '@dusky-otter/core/contract';
import type { EventHub } from './hub.ts';

/** A moment, in ms. */
const MOMENT = 150;

interface Waiting {
  versions: Map<number, number>;
  near: Set<number>;
  listed: boolean;
}

export interface PhotosNews {
  versions?: ReadonlyMap<number, number>;
  near?: Iterable<number>;
  listed?: boolean;
}

export class EventBatcher {
  private readonly waiting = new Map<number, Waiting>();
  private readonly counting = new Set<number>();
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly hub: EventHub,
    private readonly countsOf: (setId: number) => SetCounts | null,
  ) {}

  /** Photos are no longer as they were, or others stand under a filter. */
  photos(setId: number, { versions, near, listed = false }: PhotosNews): void {
    const told = this.waiting.get(setId) ?? { versions: new Map(), near: new Set(), listed: false };
    for (const [id, version] of versions ?? []) told.versions.set(id, version);
    for (const id of near ?? []) told.near.add(id);
    told.listed ||= listed;
    this.waiting.set(setId, told);
    this.soon();
  }

  /** What a set adds up to has changed. */
  counts(setId: number): void {
    this.counting.add(setId);
    this.soon();
  }

  /** Tells at once what waits. */
  now(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    for (const [setId, { versions, near, listed }] of this.waiting) {
      // One that is both is told as both: whoever changed it has its version already, but not what others made of it since.
      this.hub.tell(setId, { type: 'photos', changed: [...versions], near: [...near], listed });
    }
    this.waiting.clear();
    for (const setId of this.counting) {
      const counts = this.countsOf(setId);
      if (counts) this.hub.tell(setId, { type: 'counts', counts });
    }
    this.counting.clear();
  }

  private soon(): void {
    this.timer ??= setTimeout(() => this.now(), MOMENT).unref();
  }
}
