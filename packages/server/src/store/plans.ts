// Words that wait for files which are not in their set yet.
import { PlannedWordsModel } from '../database/words-models.ts';

/** How many lines wait in a set, and the first file names of them. */
export async function waitingPlan(setId: number, most: number): Promise<{ count: number; names: string[] }> {
  const { rows, count } = await PlannedWordsModel.findAndCountAll({
    where: { setId },
    order: [['name', 'ASC']],
    limit: most,
  });
  return { count, names: rows.map(({ fileName }) => fileName) };
}
