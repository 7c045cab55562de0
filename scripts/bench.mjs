// npm run bench -- NAME: runs one benchmark, or all of them, on a database and a data directory of their own.
import { mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { build, DATABASE, installPackages, needDebian, ROOT, run } from './setup.mjs';

/** Reference decoders of the fuzz, by program. @type {Record<string, Record<string, string>>} */
const needsOf = {
  fuzz: {
    djpeg: 'libjpeg-turbo-progs',
    pngtopnm: 'netpbm',
    dwebp: 'webp',
    gif2rgb: 'giflib-tools',
    tiffcp: 'libtiff-tools',
    cwebp: 'webp',
    'heif-enc': 'libheif-examples',
  },
  drawings: { chromium: 'chromium' },
  frontier: { chromium: 'chromium', butteraugli: 'butteraugli' },
  weight: { butteraugli: 'butteraugli' },
  look: { chromium: 'chromium' },
  scale: { chromium: 'chromium' },
  shelves: { chromium: 'chromium' },
  'measured-places': { chromium: 'chromium' },
  'frame-bench': { chromium: 'chromium' },
  ocr: { chromium: 'chromium' },
  describe: { chromium: 'chromium' },
  page: { chromium: 'chromium' },
};
/** Benchmarks whose data is costly to make: it is kept from one run to the next. @type {Record<string, string>} */
const keptIn = { scale: join(ROOT, '.data-bench-scale') };
await Promise.all([
  needDebian({ ...DATABASE, ...(needsOf[process.argv[2] ?? ''] ?? {}) }),
  installPackages(),
]);
await build();
if (!run('npx', ['tsc', '-b', 'bench'])) process.exit(1);
const known = readdirSync(join(ROOT, 'bench/src/runs')).map((name) => name.replace(/\.ts$/, ''));
const asked = process.argv.slice(2);
const unknown = asked.find((name) => !known.includes(name));
if (unknown) {
  console.error(`There is no benchmark "${unknown}". There are: ${known.join(', ')}.`);
  process.exit(1);
}
let good = true;
for (const name of asked.length > 0 ? asked : known) {
  const folder = keptIn[name] ?? mkdtempSync(join(tmpdir(), 'otter-bench-'));
  mkdirSync(folder, { recursive: true });
  const database = await startDatabase(join(folder, 'database'), { forTests: true });
  const env = {
    ...process.env,
    DATABASE_URL: database.url,
    DATABASE_PID: String(database.pid),
    DATA_DIR: join(folder, 'data'),
  };
  good = run(process.execPath, [join(ROOT, `bench/dist/runs/${name}.js`)], env) && good;
  await database.stop();
  if (!keptIn[name]) rmSync(folder, { recursive: true, force: true });
}
process.exitCode = good ? 0 : 1;
