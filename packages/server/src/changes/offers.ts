// Files that were offered for photos and are not taken.
import { OfferModel } from '../database/models.ts';
import type { Vault } from '../vault/vault.ts';
import type { Changes } from './changes.ts';
import { changeThatDrops } from './dropping.ts';

/**
 * Puts away what is offered in a set, or one of it. The files themselves go as well, where nothing else needs them.
 * @throws ProblemError no-such-set
 */
export const putAwayOffers = (
  changes: Changes,
  vault: Vault,
  setId: number,
  which: { id?: number },
): Promise<undefined> =>
  changeThatDrops(changes, vault, setId, async ({ t }) => {
    const offers = await OfferModel.findAll({ where: { setId, ...which }, transaction: t });
    await OfferModel.destroy({ where: { id: offers.map(({ id }) => id) }, transaction: t });
    const hashes = [...new Set(offers.map(({ hash }) => hash))];
    return { answer: undefined, effects: { offers: [setId] }, hashes };
  });
