// What a request is about that fits into no address, under a name that does: thousands of chosen photos, options that are tried.
import { randomBytes } from 'node:crypto';

/** What is kept under names; older ones are made again by asking again. */
const KEPT = 100;

/** Values of a set under names that are made up. */
export class Named<T> {
  private readonly kept = new Map<string, { setId: number; value: T }>();

  keep(setId: number, value: T): string {
    const name = randomBytes(9).toString('base64url');
    this.kept.set(name, { setId, value });
    for (const oldest of [...this.kept.keys()].slice(0, -KEPT)) this.kept.delete(oldest);
    return name;
  }

  /** @returns undefined where nothing of this set has the name */
  of(setId: number, name: string): T | undefined {
    const found = this.kept.get(name);
    return found?.setId === setId ? found.value : undefined;
  }
}
