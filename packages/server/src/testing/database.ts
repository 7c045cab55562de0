// For tests: a database of its own on the MariaDB that the test script started.
import { randomUUID } from 'node:crypto';
import { setTimeout } from 'node:timers/promises';
import { ConnectionRefusedError, Sequelize } from 'sequelize';

/** How long a test waits for a server that is being started again, and how often it asks, in ms. */
const PATIENCE = 60_000;
const ASK_EVERY = 250;

/** Asks again while nobody answers: whoever started the server starts it again when it ends. @throws what came last */
async function onceItAnswers<T>(ask: () => Promise<T>): Promise<T> {
  for (let waited = 0; ; waited += ASK_EVERY) {
    try {
      return await ask();
    } catch (error) {
      if (!(error instanceof ConnectionRefusedError) || waited >= PATIENCE) throw error;
      await setTimeout(ASK_EVERY);
    }
  }
}

/** A database of its own on the test server, and a way to drop it. @throws Error without DATABASE_URL. */
export async function ownDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const base = process.env.DATABASE_URL;
  if (!base) throw new Error('DATABASE_URL is missing: run the tests with "npm test".');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = new Sequelize(base, { dialect: 'mariadb', logging: false });
  await onceItAnswers(() =>
    admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`),
  );
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
