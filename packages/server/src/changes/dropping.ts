// Originals that nobody needs any more go for good, with all that was made of them: they may say where they were taken.
import { OriginalModel, VariantModel } from '../database/models.ts';
import { inParts } from '../database/in-parts.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import { factsOf, usedOf, variantsOfOriginals } from '../store/originals.ts';
import type { Vault } from '../vault/vault.ts';
import type { Changes, Done, SetWork, Work } from './changes.ts';
import type { Effects } from './effects.ts';

/**
 * Deletes those of some originals that no photo has, had, or is offered. Their files are set aside until it is certain
 * that the rows are gone; see `settleAside`.
 * @returns the files that were made of them
 */
async function dropUnused(
  work: Work,
  hashes: readonly string[],
  vault: Vault,
): Promise<NonNullable<Effects['files']>> {
  const { t } = work;
  const held = [...(await work.originals(hashes)).keys()];
  const used = await usedOf(held, t);
  const unused = held.filter((hash) => !used.has(hash));
  const files: { key: string; format: string }[] = [];
  for (const part of inParts(unused)) {
    files.push(...(await variantsOfOriginals(part, t)).map(({ key, format }) => ({ key, format })));
    await VariantModel.destroy({ where: { originalHash: part }, transaction: t });
    await OriginalModel.destroy({ where: { hash: part }, transaction: t });
  }
  for (const hash of unused) await vault.setAside(hash);
  return files;
}

/**
 * Ends what `dropUnused` began, whether its transaction was carried out or not: the file of an original that is still
 * known comes back, any other is deleted. A start does it for what a crash left.
 */
export async function settleAside(vault: Vault, hashes: readonly string[]): Promise<void> {
  for (const hash of hashes) {
    if (await factsOf(hash)) await vault.bringBack(hash);
    else await vault.dropAside(hash);
  }
}

/**
 * A change after which some originals may be needed by nobody: these go with it.
 * @param body says which, beside its answer and what it touched
 * @throws ProblemError no-such-set; whatever `body` throws: then nothing is changed
 */
export async function changeThatDrops<T>(
  changes: Changes,
  vault: Vault,
  setId: number,
  body: (work: SetWork) => Promise<Done<T> & { hashes: string[] }>,
): Promise<T> {
  let dropped: string[] = [];
  try {
    return await changes.inSet(setId, async (work) => {
      const { answer, effects, hashes } = await body(work);
      dropped = hashes;
      const files = await dropUnused(work, hashes, vault);
      return { answer, effects: { ...effects, files } };
    });
  } finally {
    await retryOnDatabaseLoss(() => settleAside(vault, dropped));
  }
}
