// What is on its way is written down, so that a window that was left says afterwards which files didn't arrive. Only their
// names: the files themselves are the editor's.

/** A file that had not arrived when it was written down. */
export interface Named {
  setId: number;
  name: string;
}

/** What a window has on its way, and when it said so last. */
interface Written {
  at: number;
  files: Named[];
}

const PREFIX = 'dusky-otter-on-the-way ';
/** A window that has said nothing for so long is gone, ms. */
const GONE = 15_000;
/** How often a window says that it is still there, ms. */
export const SAYS = 4_000;

type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

/** Writes down what this window has on its way; nothing where it has nothing. A store that is full or shut loses only this. */
export function writeDown(store: Store, window: string, files: readonly Named[], now: number): void {
  try {
    if (files.length === 0) store.removeItem(PREFIX + window);
    else
      store.setItem(
        PREFIX + window,
        JSON.stringify({ at: now, files: files.map(({ setId, name }) => ({ setId, name })) }),
      );
  } catch {
    // It is a comfort, and no reason to stop.
  }
}

function readOne(store: Store, key: string): Written | null {
  try {
    const read = JSON.parse(store.getItem(key) ?? 'null') as Written | null;
    const isRight = (file: Partial<Named>) => typeof file.setId === 'number' && typeof file.name === 'string';
    return read && typeof read.at === 'number' && Array.isArray(read.files) && read.files.every(isRight)
      ? read
      : null;
  } catch {
    return null;
  }
}

/**
 * Files that windows which are gone had on their way, by the key under which they are written.
 * @param own this window as it begins: what it wrote before it was loaded anew is left over at once
 */
export function leftOver(store: Store, own: string, now: number): { key: string; files: Named[] }[] {
  const keys = Array.from({ length: store.length }, (_, n) => store.key(n) ?? '');
  return keys
    .filter((key) => key.startsWith(PREFIX))
    .flatMap((key) => {
      const read = readOne(store, key);
      const isGone = read !== null && (key === PREFIX + own || now - read.at > GONE);
      return isGone ? [{ key, files: read.files }] : [];
    });
}
