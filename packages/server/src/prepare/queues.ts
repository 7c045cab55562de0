// Which photo's files are looked at next: those on somebody's screen first, then the others in the order they came.

/** A set's photos that may want files, in the order in which they are looked at. */
interface Queue {
  open: Set<number>;
  /** Photo ids on somebody's screen, first come first. */
  onScreen: number[];
}

export class Queues {
  private readonly bySet = new Map<number, Queue>();

  of(setId: number): Queue {
    const queue = this.bySet.get(setId) ?? { open: new Set<number>(), onScreen: [] };
    this.bySet.set(setId, queue);
    return queue;
  }

  /**
   * The next photo that wants a file. Photos that want none leave their queue.
   * @param rank of a set: the highest goes first; null where nothing is to be made
   * @param wants whether a photo of a set wants a file
   */
  next(
    rank: (setId: number) => number | null,
    wants: (setId: number) => (id: number) => boolean,
  ): { setId: number; id: number } | null {
    const sets = [...this.bySet].flatMap(([setId, queue]) => {
      const place = rank(setId);
      return place === null ? [] : [{ setId, queue, place }];
    });
    for (const { setId, queue } of sets.sort((a, b) => b.place - a.place)) {
      const id = this.nextIn(queue, wants(setId));
      if (id !== null) return { setId, id };
    }
    return null;
  }

  private nextIn({ open, onScreen }: Queue, wants: (id: number) => boolean): number | null {
    const shown = onScreen.find((id) => open.has(id) && wants(id));
    if (shown !== undefined) return shown;
    for (const id of open) {
      if (wants(id)) return id;
      // What is being made comes back by itself when it fails or ends.
      open.delete(id);
    }
    return null;
  }
}
