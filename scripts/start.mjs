// npm start: everything from a fresh machine to the address in the browser, and a clean end on Ctrl+C.
import { spawn } from 'node:child_process';
import { join, resolve } from 'node:path';
import { startDatabase } from './database.mjs';
import { build, installPackages, needDebian, ROOT } from './setup.mjs';

needDebian({ mariadbd: 'mariadb-server' });
installPackages();
build();

const dataDir = resolve(process.env.DATA_DIR ?? join(ROOT, '.data'));
const database = await startDatabase(join(dataDir, 'database')).catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
const server = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], {
  stdio: 'inherit',
  env: { ...process.env, DATA_DIR: dataDir, DATABASE_URL: database.url },
});
// Ctrl+C reaches the server as well; this process stays until the server and then the database have ended.
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) {
  process.on(signal, () => server.kill('SIGTERM'));
}
server.once('exit', (code) => {
  void database.stop().then(() => process.exit(code ?? 1));
});
