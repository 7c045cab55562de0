// What a machine that has only Node needs before the project runs: Debian packages, npm packages, a build.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { setPriority, userInfo } from 'node:os';
import { join, resolve } from 'node:path';
import { programPath } from './database.mjs';

export const ROOT = resolve(import.meta.dirname, '..');
const STAMPS = join(ROOT, 'node_modules', '.dusky-otter');

/** What the application itself needs of Debian's packages: the server's programs, and none of the service around them. */
export const DATABASE = {
  mariadbd: 'mariadb-server-core',
  'mariadb-install-db': 'mariadb-server-core',
  // A script that mariadb-install-db calls; it is packed with the clients.
  my_print_defaults: 'mariadb-client-core',
};

/**
 * Runs a command to its end, showing what it prints.
 * @param {string} command @param {string[]} args @param {NodeJS.ProcessEnv} [env]
 * @returns {boolean} whether it succeeded
 */
export function run(command, args, env = process.env) {
  return spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env }).status === 0;
}

/**
 * The same beside other work.
 * @param {string} command @param {string[]} args
 * @param {{ env?: NodeJS.ProcessEnv, priority?: number }} [how] a higher priority number waits for lower ones (nice)
 * @returns {Promise<boolean>}
 */
export function runBeside(command, args, { env = process.env, priority = 0 } = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env });
    // What it starts inherits it.
    if (priority > 0 && child.pid !== undefined) setPriority(child.pid, priority);
    child.once('error', () => done(false));
    child.once('close', (code) => done(code === 0));
  });
}

/** @param {string} sentence @returns {never} */
function giveUp(sentence) {
  console.error(sentence);
  process.exit(1);
}

/**
 * Installs Debian packages whose program is missing.
 * @param {Record<string, string>} needs program → package
 */
export async function needDebian(needs) {
  const wanted = Object.entries(needs).filter(([program]) => !programPath(program));
  const missing = [...new Set(wanted.map(([, name]) => name))];
  if (missing.length === 0) return;
  const install = ['install', '-y', '-qq', '--no-install-recommends', ...missing];
  if (userInfo().uid !== 0) {
    giveUp(
      `Some programs are missing. Install them, then start again:\n\n  sudo apt-get ${install.join(' ')}\n`,
    );
  }
  console.log(`Installing ${missing.join(', ')} from Debian's packages.`);
  // Debian would start a server of its own, which nobody needs here.
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' };
  // The lists that are there mostly do; they are renewed only where they don't.
  const good =
    (await runBeside('apt-get', install, { env })) ||
    ((await runBeside('apt-get', ['update', '-qq'], { env })) &&
      (await runBeside('apt-get', install, { env })));
  if (!good) giveUp('The packages could not be installed. See above for the reason.');
}

/**
 * Files below a folder, sorted. What the compiler writes is none of them: a type check would have everything built again,
 * under a server that is running.
 * @param {string} folder @returns {string[]}
 */
function filesBelow(folder) {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !/(^|\/)(dist|dist-types|node_modules)(\/|$)/.test(entry.parentPath))
    .filter((entry) => !entry.name.endsWith('.tsbuildinfo'))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
}

/** @param {string[]} paths files and folders */
function digestOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths.flatMap((p) => (statSync(p).isDirectory() ? filesBelow(p) : [p]))) {
    hash.update(path.slice(ROOT.length)).update(readFileSync(path));
  }
  return hash.digest('hex');
}

/** @param {string} name @param {string} digest */
const isDone = (name, digest) =>
  existsSync(join(STAMPS, name)) && readFileSync(join(STAMPS, name), 'utf8') === digest;

/** @param {string} name @param {string} digest */
function markDone(name, digest) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(join(STAMPS, name), digest);
}

/**
 * npm packages as the lock file says. What only tests and checks need is left out where nobody asks for it.
 * @param {{ checks?: boolean }} [options]
 */
export async function installPackages({ checks = true } = {}) {
  const packages = ['core', 'server', 'web', 'runtime'].map((name) =>
    join(ROOT, 'packages', name, 'package.json'),
  );
  const digest = digestOf([join(ROOT, 'package.json'), join(ROOT, 'package-lock.json'), ...packages]);
  const there = existsSync(join(ROOT, 'node_modules', 'fastify'));
  // All packages serve those who need only some.
  if (there && (isDone('install', digest) || (!checks && isDone('install-to-run', digest)))) return;
  console.log('Installing npm packages.');
  const args = [
    'ci',
    ...(checks ? [] : ['--omit=dev']),
    '--no-audit',
    '--no-fund',
    '--prefer-offline',
    '--loglevel',
    'error',
  ];
  if (!(await runBeside('npm', args)))
    giveUp('The npm packages could not be installed. See above for the reason.');
  markDone(checks ? 'install' : 'install-to-run', digest);
}

/** Core, server and web application, built. The web application is bundled from sources: both go at the same time. */
export async function build() {
  const sources = ['core', 'server', 'web', 'runtime'].map((name) => join(ROOT, 'packages', name));
  const digest = digestOf([join(ROOT, 'tsconfig.base.json'), ...sources]);
  const products = [
    'core/dist/contract/index.js',
    'server/dist/main.js',
    'web/dist/index.html',
    'runtime/dist/viewer.js',
  ];
  if (isDone('build', digest) && products.every((path) => existsSync(join(ROOT, 'packages', path)))) return;
  console.log('Building.');
  const done = await Promise.all([
    runBeside('npx', ['tsc', '-b', 'packages/core', 'packages/server']),
    ...['web', 'runtime'].map((name) =>
      runBeside('npm', ['run', 'build', '-w', `@dusky-otter/${name}`, '--loglevel', 'error']),
    ),
  ]);
  if (!done.every(Boolean)) giveUp('The build failed. See above for the reason.');
  markDone('build', digest);
}
