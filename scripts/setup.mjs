// What a machine that has only Node needs before the project runs: Debian packages, npm packages, a build.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join, resolve } from 'node:path';
import { programPath } from './database.mjs';

export const ROOT = resolve(import.meta.dirname, '..');
const STAMPS = join(ROOT, 'node_modules', '.dusky-otter');

/**
 * Runs a command to its end, showing what it prints.
 * @param {string} command @param {string[]} args @param {NodeJS.ProcessEnv} [env]
 * @returns {boolean} whether it succeeded
 */
export function run(command, args, env = process.env) {
  return spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env }).status === 0;
}

/**
 * Installs Debian packages whose program is missing.
 * @param {Record<string, string>} needs program → package
 */
export function needDebian(needs) {
  const missing = Object.entries(needs)
    .filter(([program]) => !programPath(program))
    .map(([, name]) => name);
  if (missing.length === 0) return;
  const install = ['install', '-y', '--no-install-recommends', ...missing];
  if (userInfo().uid !== 0) {
    console.error(
      `Some programs are missing. Install them, then start again:\n\n  sudo apt-get ${install.join(' ')}\n`,
    );
    process.exit(1);
  }
  console.log(`Installing ${missing.join(', ')} from Debian's packages.`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  // A package list may be missing or old on a fresh machine; the install says whether that mattered.
  run('apt-get', ['update', '-qq'], env);
  // Debian would start a server of its own, which nobody needs here.
  if (!run('apt-get', install, { ...env, RUNLEVEL: '1' })) {
    console.error('The packages could not be installed. See above for the reason.');
    process.exit(1);
  }
}

/** @param {string} folder @returns {string[]} files below a folder, sorted */
function filesBelow(folder) {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !/(^|\/)(dist|dist-types|node_modules)(\/|$)/.test(entry.parentPath))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
}

/**
 * Does a step only when what it depends on has changed since it last succeeded.
 * @param {string} name @param {string[]} paths files and folders @param {() => boolean} step
 * @param {string[]} [products] what must exist for the step to count as done
 */
function unlessDone(name, paths, step, products = []) {
  const hash = createHash('sha256');
  for (const path of paths.flatMap((p) => (statSync(p).isDirectory() ? filesBelow(p) : [p]))) {
    hash.update(path.slice(ROOT.length)).update(readFileSync(path));
  }
  const digest = hash.digest('hex');
  const stamp = join(STAMPS, name);
  const done =
    existsSync(stamp) && readFileSync(stamp, 'utf8') === digest && products.every((p) => existsSync(p));
  if (done) return;
  if (!step()) {
    console.error(`The step "${name}" failed. See above for the reason.`);
    process.exit(1);
  }
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp, digest);
}

/** npm packages as the lock file says. */
export function installPackages() {
  const packages = ['core', 'server', 'web'].map((name) => join(ROOT, 'packages', name, 'package.json'));
  unlessDone(
    'install',
    [join(ROOT, 'package.json'), join(ROOT, 'package-lock.json'), ...packages],
    () => {
      console.log('Installing npm packages.');
      return run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel', 'error']);
    },
    [join(ROOT, 'node_modules', 'fastify')],
  );
}

/** Core, server and web application, built. */
export function build() {
  const sources = ['core', 'server', 'web'].map((name) => join(ROOT, 'packages', name));
  unlessDone(
    'build',
    [join(ROOT, 'tsconfig.base.json'), ...sources],
    () => {
      console.log('Building.');
      return (
        run('npx', ['tsc', '-b', 'packages/core', 'packages/server']) &&
        run('npm', ['run', 'build', '-w', '@dusky-otter/web', '--loglevel', 'error'])
      );
    },
    ['core/dist/index.js', 'server/dist/main.js', 'web/dist/index.html'].map((p) =>
      join(ROOT, 'packages', p),
    ),
  );
}
