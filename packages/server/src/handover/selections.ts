// Photos that were chosen for a hand-over, under a name that fits into an address: thousands of ids do not.
import { randomBytes } from 'node:crypto';

/** Choices that are kept; an older one is made again by choosing again. */
const KEPT = 100;

export class Selections {
  private readonly kept = new Map<string, { setId: number; photos: readonly number[] | null }>();

  /** @param photos null: all of the set, whatever that is when it goes out */
  keep(setId: number, photos: readonly number[] | null): string {
    const name = randomBytes(9).toString('base64url');
    this.kept.set(name, { setId, photos });
    for (const oldest of [...this.kept.keys()].slice(0, -KEPT)) this.kept.delete(oldest);
    return name;
  }

  /** @returns undefined where there is no such choice of this set */
  of(setId: number, name: string): readonly number[] | null | undefined {
    const found = this.kept.get(name);
    return found?.setId === setId ? found.photos : undefined;
  }
}
