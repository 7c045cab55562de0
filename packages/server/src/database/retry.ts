// The database may be away for a moment: killed, or being started again. What can wait waits instead of failing.
import { gaveWay, isDatabaseAway } from '../problems.ts';

/** How long work waits for the database, in ms, and how often it asks. */
const LONGEST_WAIT = 30_000;
const PAUSE = 200;

/**
 * Does something that may be done again when the connection broke or another transaction had to go first: a transaction
 * that was not committed is rolled back, and an edit that was says so by its version.
 * @param waiting is told before each further try
 * @throws whatever `body` throws for other reasons, or still throws after 30 s
 */
export async function retryOnDatabaseLoss<T>(
  body: () => Promise<T>,
  longest = LONGEST_WAIT,
  waiting: () => void = () => undefined,
): Promise<T> {
  const until = performance.now() + longest;
  for (;;) {
    try {
      return await body();
    } catch (error) {
      if (!(isDatabaseAway(error) || gaveWay(error)) || performance.now() > until) throw error;
      waiting();
      await new Promise((done) => setTimeout(done, PAUSE));
    }
  }
}
