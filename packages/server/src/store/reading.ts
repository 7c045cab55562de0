// How rows are asked for: as part of a transaction, and held for whoever changes them.
import type { Transaction } from 'sequelize';

/** The transaction of whoever asks inside one: a second connection may not be had. */
export interface InTransaction {
  transaction?: Transaction;
}

/** `lock`: nobody else may change the rows until the transaction ends. */
export interface ReadOptions extends InTransaction {
  lock?: boolean;
}
