// Rows of made files and of originals in the order of their names, for those who walk over all of them; and since when
// files are wanted by nobody.
import { Op } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { OriginalModel, VariantModel } from '../database/models.ts';

const behind = (column: 'key' | 'hash', last: string) =>
  last === '' ? {} : { where: { [column]: { [Op.gt]: last } } };

/** Made files behind a key, so many at most; "" is before all. */
export const variantsBehind = (last: string, limit?: number): Promise<VariantModel[]> =>
  VariantModel.findAll({
    order: [['key', 'ASC']],
    ...(limit !== undefined && { limit }),
    ...behind('key', last),
  });

/** Originals behind a hash, likewise. */
export const originalsBehind = (last: string, limit?: number): Promise<OriginalModel[]> =>
  OriginalModel.findAll({
    order: [['hash', 'ASC']],
    ...(limit !== undefined && { limit }),
    ...behind('hash', last),
  });

/** Files of which it was noticed that nobody wants them. */
export const unwantedVariants = (): Promise<VariantModel[]> =>
  VariantModel.findAll({ where: { unwantedSince: { [Op.ne]: null } } });

/** Notes since when files are not wanted; null where they are. */
export async function markUnwanted(keys: readonly string[], since: Date | null): Promise<void> {
  for (const key of inParts(keys)) await VariantModel.update({ unwantedSince: since }, { where: { key } });
}
