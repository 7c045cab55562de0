// npm run dev: the server, built anew on every change, and the web application with live reload.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { build, DATABASE, installPackages, needDebian, ROOT } from './setup.mjs';

await Promise.all([needDebian(DATABASE), installPackages()]);
await build();
const dataDir = process.env.DATA_DIR ?? join(ROOT, '.data');
const database = await startDatabase(join(dataDir, 'database'));
const env = { ...process.env, DATA_DIR: dataDir, DATABASE_URL: database.url };
/** @param {string} command @param {string[]} args @param {string} [cwd] */
const start = (command, args, cwd = ROOT) => spawn(command, args, { cwd, env, stdio: 'inherit' });
const children = [
  start('npx', ['tsc', '-b', 'packages/core', 'packages/server', '--watch', '--preserveWatchOutput']),
  start(process.execPath, ['--watch', 'packages/server/dist/main.js']),
  start('npx', ['vite'], join(ROOT, 'packages/web')),
];
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM'])) {
  process.on(signal, () => {
    for (const child of children) child.kill('SIGTERM');
    void database.stop().then(() => process.exit(0));
  });
}
