// Clears variants that no set wants any more. They stay a week from then on: undo and second thoughts find them made.
import type { OutputFormat } from '@dusky-otter/core/contract';
import { markUnwanted, unwantedVariants } from '../store/variants.ts';
import type { Vault } from '../vault/vault.ts';
import type { StoredVariants } from '../store/stored-variants.ts';

export const KEPT_FOR_MS = 7 * 24 * 3600 * 1000;
/** How often it is looked at, in ms. */
export const SWEEP_EVERY_MS = 3600 * 1000;

/**
 * Notes since when variants are not wanted, and removes those for which that is `keptFor` ms ago. One that is wanted
 * again starts anew. The row goes before the file: a crash in between leaves a stray file, which the next start clears.
 * @param isWanted asked by a file's own key
 * @returns how many were removed.
 */
export async function sweepVariants(
  vault: Vault,
  stored: StoredVariants,
  isWanted: (hash: string, key: string) => boolean,
  now: Date,
  keptFor = KEPT_FOR_MS,
): Promise<number> {
  const unwanted = [...stored.all].filter(([key, { hash }]) => !isWanted(hash, key)).map(([key]) => key);
  const kept = new Set(unwanted);
  const marked = await unwantedVariants();
  await markUnwanted(
    marked.filter(({ key }) => !kept.has(key)).map(({ key }) => key),
    null,
  );
  const known = new Set(marked.map(({ key }) => key));
  await markUnwanted(
    unwanted.filter((key) => !known.has(key)),
    now,
  );
  let removed = 0;
  for (const { key, originalHash, format, unwantedSince } of marked) {
    if (!kept.has(key) || !unwantedSince || now.getTime() - unwantedSince.getTime() < keptFor) continue;
    // It may have become wanted while others were removed.
    if (isWanted(originalHash, key)) continue;
    await stored.forget(key);
    await vault.removeFile(vault.variant(key, format as OutputFormat));
    removed += 1;
  }
  return removed;
}
