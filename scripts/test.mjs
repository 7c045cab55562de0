// npm test: everything a clean machine needs, then types, lint, dependency rules, Jest and Playwright.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { build, DATABASE, installPackages, needDebian, ROOT, run, runBeside } from './setup.mjs';

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
];
await Promise.all(CHECKS.map(async ([name, command]) => count(name, await runBeside('npx', command))));

const folder = mkdtempSync(join(tmpdir(), 'otter-test-db-'));
const database = await startDatabase(folder, { forTests: true });
const env = {
  ...process.env,
  DATABASE_URL: database.url,
  NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
};
try {
  const report = join(folder, 'jest.json');
  const good = run('npx', ['jest', '--json', `--outputFile=${report}`, '--silent'], env);
  const jest = JSON.parse(readFileSync(report, 'utf8'));
  passed += jest.numPassedTests;
  failed += jest.numFailedTests + jest.numRuntimeErrorTestSuites;
  if (!good && jest.numFailedTests + jest.numRuntimeErrorTestSuites === 0) count('jest', false);

  const played = run('npx', ['playwright', 'test'], { ...env, NODE_OPTIONS: '' });
  const { stats, errors } = JSON.parse(readFileSync(join(ROOT, 'test-results/playwright.json'), 'utf8'));
  passed += stats.expected;
  failed += stats.unexpected + stats.flaky + errors.length;
  if (!played && stats.unexpected + stats.flaky + errors.length === 0) count('playwright', false);
  if (stats.expected === 0) count('end-to-end tests ran', false);
} finally {
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
}
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
