// Files that were offered for photos and are not taken.
import { OfferModel } from '../database/models.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import type { Vault } from '../vault/vault.ts';
import type { Changes } from './changes.ts';
import { dropUnused, settleAside } from './dropping.ts';

/**
 * Puts away what is offered in a set, or one of it. The files themselves go as well, where nothing else needs them.
 * @throws ProblemError no-such-set
 */
export async function putAwayOffers(
  changes: Changes,
  vault: Vault,
  setId: number,
  which: { id?: number },
): Promise<void> {
  let dropped: string[] = [];
  try {
    await changes.inSet<undefined>(setId, async (work) => {
      const { t } = work;
      const offers = await OfferModel.findAll({ where: { setId, ...which }, transaction: t });
      dropped = [...new Set(offers.map(({ hash }) => hash))];
      await OfferModel.destroy({ where: { id: offers.map(({ id }) => id) }, transaction: t });
      const { files } = await dropUnused(work, dropped, vault);
      return { answer: undefined, effects: { offers: [setId], files } };
    });
  } finally {
    await retryOnDatabaseLoss(() => settleAside(vault, dropped));
  }
}
