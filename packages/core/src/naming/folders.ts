// Folders of a hand-over: none may collide with another on a disk that takes capitals for small letters, nor be one that
// some system can't make.
import type { Language, Slot, SlotId } from '../contract/index.ts';

/** Names of devices, which Windows gives to no file or folder, whatever its ending (Microsoft, Naming Files, Paths, and Namespaces). */
const DEVICE = /^(?:con|prn|aux|nul|com[\d¹²³]|lpt[\d¹²³]|con(?:in|out)\$)\s*(?:\.|$)/i;

/** Whether a file or folder can't be called so everywhere. */
export const isDeviceName = (name: string): boolean => DEVICE.test(name.trim());

/** The pictures' own folder. */
const PICTURES = 'photos';

/** The name, or the first with a number behind it, that nothing has. Capitals are no difference. */
function free(wanted: string, taken: Set<string>): string {
  let name = wanted;
  for (let n = 2; taken.has(name.toLowerCase()) || isDeviceName(name); n++) name = `${wanted}-${n}`;
  taken.add(name.toLowerCase());
  return name;
}

export interface Folders {
  ofLanguage: ReadonlyMap<Language, string>;
  /** Of the own pages of an arrangement's pictures. */
  ofArrangement: ReadonlyMap<SlotId, string>;
}

/**
 * Folders of a page: one for each further language, one for each arrangement. Languages come first, and hang on the
 * site's alone: all pages of a site have the same, so that they lead to each other.
 */
export function foldersOf({
  languages,
  slots,
}: {
  languages: readonly Language[];
  slots: readonly Slot[];
}): Folders {
  const taken = new Set([PICTURES]);
  const named = (names: readonly string[]) => new Map(names.map((name) => [name, free(name, taken)]));
  return {
    ofLanguage: named([...new Set(languages.slice(1))]),
    ofArrangement: named(slots.filter(({ arranged }) => arranged).map(({ id }) => id)),
  };
}
