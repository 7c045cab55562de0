// npm test: everything a clean machine needs, then types, lint, dependency rules, Jest and Playwright.
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { build, DATABASE, installPackages, needDebian, ROOT, runBeside } from './setup.mjs';

await Promise.all([
  needDebian({ ...DATABASE, chromium: 'chromium', exiftool: 'libimage-exiftool-perl' }),
  installPackages(),
]);
await build();

let passed = 0;
let failed = 0;

/** @param {string} name @param {boolean} good */
function count(name, good) {
  if (good) passed += 1;
  else failed += 1;
  console.log(`${good ? 'passed' : 'FAILED'}: ${name}`);
}

/** @type {[string, string[]][]} Checks without a database, beside each other: together they are the longest one. */
const CHECKS = [
  ['types', ['tsc', '-b']],
  ['lint', ['eslint', '.', '--max-warnings', '0']],
  ['format', ['prettier', '--check', '--log-level', 'warn', '.']],
  [
    'dependency rules',
    [
      'depcruise',
      '--config',
      '.dependency-cruiser.cjs',
      'packages/core/src',
      'packages/server/src',
      'packages/web/src',
      'packages/runtime/src',
    ],
  ],
  [
    'rooms',
    [
      'depcruise',
      '--config',
      '.dependency-cruiser-folders.cjs',
      'packages/core/src',
      'packages/server/src',
      'packages/web/src',
    ],
  ],
];
/** Checks and unit tests take what the browser tests leave of the processors: those mostly wait for a screen. */
const leftOver = { priority: 10 };

async function check() {
  await Promise.all(
    CHECKS.map(async ([name, command]) => count(name, await runBeside('npx', command, leftOver))),
  );
}

/** @param {string} path @returns {any} a runner's report; null where it ended before it wrote one */
const reportIn = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);

/** @param {string} path where Jest writes its report @param {NodeJS.ProcessEnv} env */
async function unitTests(path, env) {
  const command = ['jest', '--json', `--outputFile=${path}`, '--silent'];
  const good = await runBeside('npx', command, { ...leftOver, env });
  const report = reportIn(path);
  const bad = (report?.numFailedTests ?? 0) + (report?.numRuntimeErrorTestSuites ?? 0);
  passed += report?.numPassedTests ?? 0;
  failed += bad;
  if (!report || (!good && bad === 0)) count('unit tests', false);
}

/** @param {NodeJS.ProcessEnv} env */
async function browserTests(env) {
  const path = join(ROOT, 'test-results/playwright.json');
  rmSync(path, { force: true });
  const good = await runBeside('npx', ['playwright', 'test'], { env });
  const report = reportIn(path);
  const bad = report ? report.stats.unexpected + report.stats.flaky + report.errors.length : 0;
  passed += report?.stats.expected ?? 0;
  failed += bad;
  if (!report?.stats.expected || (!good && bad === 0)) count('browser tests', false);
}

const folder = mkdtempSync(join(tmpdir(), 'otter-test-db-'));
const database = await startDatabase(folder, {
  forTests: true,
  // What it said before it ended goes with its folder: it is printed while it is there.
  say(sentence) {
    const log = join(folder, 'mariadb.log');
    console.error(sentence, existsSync(log) ? `\n${readFileSync(log, 'utf8').slice(-4000)}` : '');
  },
});
const env = { ...process.env, DATABASE_URL: database.url };
const modules = { NODE_OPTIONS: '--experimental-vm-modules --no-warnings' };
try {
  await Promise.all([
    browserTests({ ...env, NODE_OPTIONS: '' }),
    check().then(() => unitTests(join(folder, 'jest.json'), { ...env, ...modules })),
  ]);
} finally {
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
}
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
