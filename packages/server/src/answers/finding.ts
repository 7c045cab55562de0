// Finds photos of a set by words: in their names, file names and alt texts.
import type { SetLedger } from '../ledger/set-ledger.ts';

/** What one can look through. */
const MOST_FOUND = 20;

const bare = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/**
 * Photos that have every word that is typed, whatever case and accents; those that have them at the beginnings of words
 * come first. The bin is not looked through.
 */
export function membersWith(ledger: SetLedger, typed: string): number[] {
  const words = bare(typed).split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const [first, others]: [number[], number[]] = [[], []];
  for (const { id, binned, name, fileName, heard } of ledger.all) {
    if (binned || first.length === MOST_FOUND) continue;
    const text = ` ${bare(`${name} ${fileName} ${heard}`)}`;
    if (!words.every((word) => text.includes(word))) continue;
    (words.every((word) => text.includes(` ${word}`)) ? first : others).push(id);
  }
  return [...first, ...others].slice(0, MOST_FOUND);
}
