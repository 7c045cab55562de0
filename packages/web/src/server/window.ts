// Which window this is: its name stays over a reload, and no two windows have one name.

const NAME_KEY = 'dusky-otter/window';
const lockOf = (window: string): string => `dusky-otter/window/${window}`;

const newName = (): string => crypto.randomUUID();

/** Holds a window's lock until the window goes. @returns whether it was free */
function hold(name: string): Promise<boolean> {
  return new Promise((answer) => {
    void navigator.locks.request(lockOf(name), { ifAvailable: true }, (lock) => {
      answer(lock !== null);
      // Never resolved: the browser lets go of it when the window is closed.
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
}

/** This window's name. A duplicated window has the storage of the first, and so takes a name of its own. */
export async function windowName(): Promise<string> {
  const before = sessionStorage.getItem(NAME_KEY);
  if (before !== null && (await hold(before))) return before;
  const name = newName();
  sessionStorage.setItem(NAME_KEY, name);
  await hold(name);
  return name;
}

export async function isWindowOpen(name: string): Promise<boolean> {
  const { held = [] } = await navigator.locks.query();
  return held.some((lock) => lock.name === lockOf(name));
}

const sinceKey = (setId: number): string => `dusky-otter/since/${setId}`;

/** Newest edit that there was when this window opened a set for the first time; undefined before it has. */
export function sinceOf(setId: number): number | undefined {
  const text = sessionStorage.getItem(sinceKey(setId));
  return text === null ? undefined : Number(text);
}

export function openedAt(setId: number, newestEdit: number): void {
  if (sinceOf(setId) === undefined) sessionStorage.setItem(sinceKey(setId), String(newestEdit));
}

/** Every key of the browser's storage. */
export const storageKeys = (): string[] =>
  Array.from({ length: localStorage.length }, (_, at) => localStorage.key(at)!);
