// npm start: everything from a fresh machine to the address in the browser, watched over, and a clean end on Ctrl+C.
import { spawn } from 'node:child_process';
import { join, resolve } from 'node:path';
import { startDatabase } from './database.mjs';
import { pause, remember, whenNpmIsGone } from './processes.mjs';
import { build, DATABASE, installPackages, needDebian, ROOT } from './setup.mjs';

/** @param {unknown} error @returns {never} */
function giveUp(error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}

let ending = false;
let wasReady = false;
/** @type {import('node:child_process').ChildProcess | undefined} */
let server;

function end() {
  ending = true;
  server?.kill('SIGTERM');
}
// Also while packages are installed or built: what was begun by then is ended below.
whenNpmIsGone(end);

await Promise.all([needDebian(DATABASE), installPackages({ checks: false })]);
const dataDir = resolve(process.env.DATA_DIR ?? join(ROOT, '.data'));
const folder = join(dataDir, 'database');
const [database] = await Promise.all([startDatabase(folder), build()]).catch(giveUp);

/** A server that ran this long was well: the next pause is short again. */
const WELL_AFTER = 60_000;
const LONGEST_PAUSE = 30_000;

/** @returns {Promise<number | null>} the server's exit code */
function runServer() {
  const child = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], {
    // The channel tells the server when this process is gone: it ends then, and leaves nothing behind.
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: { ...process.env, DATA_DIR: dataDir, DATABASE_URL: database.url },
  });
  server = child;
  if (child.pid !== undefined) remember(join(folder, 'server.process'), child.pid);
  child.on('message', (message) => {
    if (message === 'ready') wasReady = true;
  });
  return new Promise((done) => child.once('exit', (code) => done(code)));
}

// Ctrl+C reaches the server as well; this process stays until the server and then the database have ended.
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, end);

/** @type {number | null} */
let code = null;
for (let failures = 0; !ending; failures++) {
  const began = Date.now();
  code = await runServer();
  // One that never came up has said why, and would say it again.
  if (ending || !wasReady) break;
  if (Date.now() - began > WELL_AFTER) failures = 0;
  const wait = Math.min(LONGEST_PAUSE, 500 * 2 ** failures);
  console.error(
    `The server ended unexpectedly; it is started again in ${wait / 1000} s. Nothing that was saved is lost.`,
  );
  await pause(wait);
  if (/** @type {boolean} */ (ending)) break;
}
await database.stop();
process.exit(code ?? 1);
