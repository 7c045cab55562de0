// The only entry: configuration, database, parts, demo, listen; and a clean end.
import { buildApp } from './app.ts';
import { configFrom } from './config.ts';
import { connect } from './database/connect.ts';
import { retryOnDatabaseLoss } from './database/retry.ts';
import { seedDemo } from './demo/seed.ts';
import { buildParts } from './parts.ts';
import { isDatabaseAway } from './problems.ts';
import { forgetOldEdits } from './changes/old.ts';
import { forgetOldActs } from './store/acts.ts';
import { sweepVariants, SWEEP_EVERY_MS } from './prepare/sweep.ts';
import { reportToConsole as report } from './report.ts';

// What is stored may say where a photo was taken: it is for this user alone.
process.umask(0o077);
// Every failure has somebody who waits for it; one that slipped through is said and ends nobody's work.
process.on('unhandledRejection', (error) => report('A failure nobody waited for.', error));

function configured() {
  try {
    return configFrom(process.env);
  } catch (error) {
    console.error(error instanceof Error ? error.message : String(error));
    process.exit(1);
  }
}

/** How long a start waits for its database, in ms: as long as a busy machine may take, and it is started again beside it. */
const LONGEST_START = 10 * 60_000;
const SAID_EVERY = 15_000;

/** Says it in a sentence and ends: a trace helps nobody who reads it at a start. */
function giveUp(sentence: string): never {
  console.error(sentence);
  process.exit(1);
}

async function connected() {
  let said = performance.now();
  const waiting = () => {
    if (performance.now() - said < SAID_EVERY) return;
    said = performance.now();
    console.error('The database does not answer yet; waiting for it.');
  };
  return retryOnDatabaseLoss(() => connect(config.databaseUrl), LONGEST_START, waiting).catch(
    (error: unknown) =>
      giveUp(
        isDatabaseAway(error)
          ? 'The database did not answer for ten minutes. Look into its log beside the data, then start again.'
          : `The database can’t be used: ${error instanceof Error ? error.message : String(error)}`,
      ),
  );
}

const config = configured();
const sequelize = await connected();
const parts = await buildParts(config, sequelize);
const app = await buildApp(parts, { log: true });

let ending = false;
async function end(code = 0): Promise<void> {
  if (ending) return;
  ending = true;
  parts.scrub.stop();
  parts.preparer.close();
  await app.close();
  await parts.pool.close();
  await parts.previews.close();
  parts.reader.close();
  await sequelize.close();
  process.exit(code);
}
process.on('SIGTERM', () => void end());
process.on('SIGINT', () => void end());
// The start script holds this channel: when it is gone nobody would ever end this server, or its database.
process.on('disconnect', () => void end());

await seedDemo(parts, { unasked: config.seedDemo });
await app.listen({ host: config.host, port: config.port }).catch(async (error: unknown) => {
  const { code } = error as { code?: string };
  const why =
    code === 'EADDRINUSE'
      ? `Port ${config.port} is taken by another program. End it, or choose another one: PORT=${config.port + 1} npm start`
      : code === 'EACCES'
        ? `This user may not listen on port ${config.port}. Choose one above 1023: PORT=4780 npm start`
        : `Nobody can be listened to at ${config.host}, port ${config.port}: ${String(error)}`;
  console.error(why);
  await end(1);
});
const address = app.server.address();
const port = typeof address === 'object' && address ? address.port : config.port;
console.log(
  `Dusky Otter is ready: http://${config.host.includes(':') ? `[${config.host}]` : config.host}:${port}/`,
);
process.send?.('ready');
await parts.preparer.reconcileAll();
parts.scrub.start();
if (config.readText) parts.reader.start();

async function clear(): Promise<void> {
  try {
    const { vault, stored, preparer } = parts;
    if (preparer.knowsAll)
      await sweepVariants(vault, stored, (hash, key) => preparer.isWanted(hash, key), new Date());
    if (preparer.knowsAll) preparer.forgetFailures();
    await forgetOldEdits(new Date());
    await forgetOldActs(new Date());
  } catch (error) {
    if (!ending) report('Clearing files that nobody wants failed; the next time it is tried again.', error);
  }
}
await clear();
setInterval(() => void clear(), SWEEP_EVERY_MS).unref();
