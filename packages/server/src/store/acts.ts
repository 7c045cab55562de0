// Acts that were carried out, by the tokens that name them: whoever asks again is answered again, and nothing is done twice.
import { Op, type Transaction } from 'sequelize';
import { ActModel } from '../database/models.ts';

/** The answer of an act that was carried out, or null. */
export async function answerOf(token: string, t?: Transaction): Promise<unknown> {
  const act = await ActModel.findByPk(token, t ? { transaction: t } : {});
  return act?.answer ?? null;
}

export async function writeAct(token: string, answer: unknown, t: Transaction): Promise<void> {
  await ActModel.create({ token, answer, createdAt: new Date() }, { transaction: t });
}

/** How long a window may ask whether something was done, in ms. */
const KEPT_FOR_MS = 7 * 24 * 3600 * 1000;

export const forgetOldActs = (now: Date): Promise<number> =>
  ActModel.destroy({ where: { createdAt: { [Op.lt]: new Date(now.getTime() - KEPT_FOR_MS) } } });
