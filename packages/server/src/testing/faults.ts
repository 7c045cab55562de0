// For tests: what goes wrong in a database at the worst moment, and what a change asks of it.
import type { Sequelize, Transaction } from 'sequelize';
import { PhotoWordsModel } from '../database/words-models.ts';

type Body = (t: Transaction) => Promise<unknown>;

/**
 * The next transactions are carried out, and their answers lost: the connection breaks behind COMMIT.
 * @returns how many answers are still to be lost
 */
export function loseCommits(sequelize: Sequelize, count = 1): { readonly left: number } {
  const lost = { left: count };
  const real = sequelize.transaction.bind(sequelize) as (body: Body) => Promise<unknown>;
  const faulty = async (body: Body) => {
    const answer = await real(body);
    if (lost.left === 0) return answer;
    lost.left--;
    throw Object.assign(new Error('The connection broke.'), { code: 'ECONNRESET' });
  };
  Object.assign(sequelize, { transaction: faulty });
  return lost;
}

/** Statements that are sent while `body` runs. */
export async function statementsIn(sequelize: Sequelize, body: () => Promise<unknown>): Promise<number> {
  let count = 0;
  const { options } = sequelize as unknown as { options: object };
  Object.assign(options, { logging: () => count++ });
  try {
    await body();
  } finally {
    Object.assign(options, { logging: false });
  }
  return count;
}

/**
 * The next who reads words of photos, and not of none or to change them, gets what is there now, but not before the gate is opened. Pause the
 * preparer: it reads as well.
 */
export function holdNextReading(): { reached: Promise<void>; open: () => void } {
  type Asked = { where?: { photoId?: number[] }; transaction?: unknown };
  type Find = (asked: Asked) => Promise<unknown>;
  const read = PhotoWordsModel as unknown as { findAll: Find };
  const real = read.findAll.bind(PhotoWordsModel);
  let open = () => {};
  const gate = new Promise<void>((done) => (open = done));
  let arrive = () => {};
  const reached = new Promise<void>((done) => (arrive = done));
  read.findAll = async (asked) => {
    // An answer without photos is no reading that a set is counted by.
    if (asked.transaction || !asked.where?.photoId?.length) return real(asked);
    read.findAll = real;
    const rows = await real(asked);
    arrive();
    await gate;
    return rows;
  };
  return { reached, open };
}
