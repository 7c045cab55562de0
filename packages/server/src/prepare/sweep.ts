// Clears variants that no set wants any more. They stay a week: undo and second thoughts find them made.
import { stat } from 'node:fs/promises';
import type { Vault } from '../vault/vault.ts';
import type { StoredVariants } from './stored.ts';

export const KEPT_FOR_MS = 7 * 24 * 3600 * 1000;

/**
 * Removes stored variants that are not wanted and older than `keptFor` ms.
 * The row goes before the file: a crash in between leaves a stray file, which the next start clears.
 * @returns how many were removed.
 */
export async function sweep(
  vault: Vault,
  stored: StoredVariants,
  isWanted: (key: string) => boolean,
  now: number,
  keptFor = KEPT_FOR_MS,
): Promise<number> {
  let removed = 0;
  for (const [key, path] of await vault.variantFiles()) {
    if (isWanted(key) || !stored.get(key)) continue;
    if (now - (await stat(path)).mtimeMs < keptFor) continue;
    await stored.forget(key);
    await vault.removeFile(path);
    removed += 1;
  }
  return removed;
}
