// For tests: a database of its own on the MariaDB that the test script started.
import { randomUUID } from 'node:crypto';
import { openDatabase } from '../database/connect.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';

/** How long a test waits for a server that is being started again, in ms. */
const PATIENCE = 60_000;

/** A database of its own on the test server, and a way to drop it. @throws Error without DATABASE_URL. */
export async function ownDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const base = process.env.DATABASE_URL;
  if (!base) throw new Error('DATABASE_URL is missing: run the tests with "npm test".');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = openDatabase(base);
  // An answer that was lost is no failure: the name is nobody else's.
  const create = `CREATE DATABASE IF NOT EXISTS ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`;
  await retryOnDatabaseLoss(() => admin.query(create), PATIENCE);
  const url = new URL(base);
  url.pathname = `/${name}`;
  return {
    url: url.href,
    async drop() {
      await admin.query(`DROP DATABASE ${name}`);
      await admin.close();
    },
  };
}
