// Lines of a table beside the photos of a set that they speak of, and what waits for photos that are still to come.
import { matched, wordsFileInTurns, type MatchedLine, type PlannedWords } from '@dusky-otter/core/words';
import type { SetLedger } from '../ledger/set-ledger.ts';
import { inTurns } from '../turns.ts';

/** Lines of a table with the photos of a set that they speak of. */
export async function matchedIn(ledger: SetLedger, text: string) {
  const file = await inTurns(wordsFileInTurns(text));
  const photos = ledger.all
    .filter(({ binned }) => !binned)
    .map(({ id, fileName, hash }) => ({ id, fileName, hash }));
  return { ...file, lines: matched(file.lines, photos) };
}

/** Lines that speak of no photo that is there, and can be taken. */
export const waitingIn = (lines: readonly MatchedLine[]): PlannedWords[] =>
  lines
    .filter(({ planned, photos }) => photos.length === 0 && planned.problem === null)
    .map(({ planned }) => planned);
