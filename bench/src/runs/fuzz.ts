// Ten thousand broken and heavy files through the codec processes, and thousands of wrong requests through the routes.
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildApp } from '../../../packages/server/dist/app.js';
import { useOf } from '../../../packages/server/dist/codec/limits.js';
import { CodecPool } from '../../../packages/server/dist/codec/pool.js';
import { configFrom } from '../../../packages/server/dist/config.js';
import { connect } from '../../../packages/server/dist/database/connect.js';
import { buildParts } from '../../../packages/server/dist/parts.js';
import { makeSite } from '../../../packages/server/dist/changes/sites.js';
import { RefusedError } from '../../../packages/server/dist/problems.js';
import { referenceComplaint } from '../fuzz/complaints.js';
import {
  ANOTHER_PICTURE,
  brokenFiles,
  differenceOf,
  heavyFiles,
  lookAt,
  soundFiles,
  strictComplaint,
  type SoundFile,
} from '../fuzz/files.js';
import { fuzzRequests } from '../fuzz/requests.js';
import { soundCorpus } from '../fuzz/sound.js';
import { report, ROOT, rounded, type Figures } from '../report.js';

const { env } = process;
/** FILES, SOUND and REQUESTS in the environment make a short run. */
const FILES = Number(env.FILES ?? 10_000);
const REQUESTS = Number(env.REQUESTS ?? 5_000);
const SOUND = Number(env.SOUND ?? 520);
const SEED = 1_122_026;
/** Kinds whose data has no checksum that a decoder looks at. */
const UNCHECKED = /^(?:jpeg|webp|gif|heic|tiff jpeg|tiff plain|svg)/;
/** As the application starts with. */
const { jobs: LIMITS } = configFrom({ DATABASE_URL: env.DATABASE_URL });

const folder = await mkdtemp(join(tmpdir(), 'otter-bench-fuzz-'));
const pool = new CodecPool(2, LIMITS);
const sound = await soundFiles(join(ROOT, 'demo'));

let largest = 0;
const seenPids = new Set<number>();
const sampling = setInterval(() => {
  for (const pid of pool.pids) {
    seenPids.add(pid);
    largest = Math.max(largest, useOf(pid)?.bytes ?? 0);
  }
}, 50);

let slowest = 0;

async function inspected(file: SoundFile) {
  const job = await lookAt(file, folder);
  const from = performance.now();
  try {
    const { facts } = await pool.inspect(job);
    return { facts, view: await readFile(job.views.row), path: job.path };
  } finally {
    slowest = Math.max(slowest, performance.now() - from);
  }
}

interface Row {
  files: number;
  refused: number;
  marked: number;
  same: number;
  /** Another picture, and no decoder says a word: nothing in the file tells. */
  silent: number;
  unmarked: number;
}
const rows = new Map<string, Row>();
const examples: string[] = [];
let crashes = 0;
let overLimits = 0;

const views = new Map(
  await Promise.all(sound.map(async (file) => [file.kind, (await inspected(file)).view] as const)),
);

/** Whether any decoder complains: ours at its strictest on the whole file, or the reference. */
async function complains(file: SoundFile, path: string): Promise<string | null> {
  return (await strictComplaint(file)) ?? referenceComplaint(file.kind, path);
}

async function judge(file: SoundFile): Promise<void> {
  const row = rows.get(file.kind) ?? { files: 0, refused: 0, marked: 0, same: 0, silent: 0, unmarked: 0 };
  rows.set(file.kind, row);
  row.files += 1;
  try {
    const { facts, view, path } = await inspected(file);
    if (facts.damage !== null) row.marked += 1;
    else if (views.has(file.kind) && (await differenceOf(view, views.get(file.kind)!)) >= ANOTHER_PICTURE) {
      const said = await complains(file, path);
      if (said === null) row.silent += 1;
      else {
        row.unmarked += 1;
        examples.push(`${file.kind}: ${said}`);
      }
    } else row.same += 1;
    await Promise.all(['', '.row', '.bench', '.copy'].map((end) => rm(`${path}${end}`, { force: true })));
  } catch (error) {
    row.refused += 1;
    if (!(error instanceof RefusedError)) crashes += 1;
    else if (error.message.includes('end, twice')) crashes += 1;
    else if (/takes longer|needs more/.test(error.message)) overLimits += 1;
  }
}

let at = 0;
const files = brokenFiles(sound, FILES, SEED);
async function work(): Promise<void> {
  for (let next = files.next(); !next.done; next = files.next()) {
    await judge(next.value);
    if (++at % 1000 === 0) console.log(`${at} files`);
  }
}
await Promise.all([work(), work(), work()]);
let falseMarks = 0;
const corpus = soundCorpus(join(ROOT, 'demo'), folder, SOUND, SEED);
for await (const file of corpus) {
  const said = await inspected(file).then(
    ({ facts }) => facts.damage,
    (error: unknown) => String(error),
  );
  if (said === null) continue;
  falseMarks += 1;
  examples.push(`sound ${file.kind}: ${said}`);
}
for (const file of heavyFiles()) await judge({ ...file, kind: 'heavy drawings' });
clearInterval(sampling);
// A process beyond its limit is looked at ten times a second; what it takes until then is room to spare.
const beyond = largest > LIMITS.bytes * 1.25 ? 1 : 0;
await pool.close();
await rm(folder, { recursive: true, force: true });

const table: Figures[] = [...rows].map(([kind, row]) => ({ kind, ...row }));
// Told before the requests begin: what took so long to find is not lost with them.
console.table(table);
console.log({ falseMarks, crashes, overLimits });

const config = { ...configFrom({ ...env }), workers: 1 };
const sequelize = await connect(config.databaseUrl);
const parts = await buildParts(config, sequelize, () => undefined);
const app = await buildApp(parts);
const siteId = await makeSite(parts.changes, 'Gullmoor Pottery');
const made = await app.inject({
  method: 'POST',
  url: `/api/sites/${siteId}/sets`,
  payload: { name: 'Fuzzed' },
});
const { id: set } = made.json<{ id: number }>();
const response = await app.inject({
  method: 'POST',
  url: `/api/sets/${set}/files?name=a.jpg`,
  headers: { 'content-type': 'application/octet-stream' },
  payload: sound[0]!.bytes,
});
const photo = response.json<{ photo: { id: number } }>().photo.id;
const { broken } = await fuzzRequests(app, { set, photo, site: siteId }, REQUESTS, SEED);
parts.preparer.close();
await app.close();
await parts.pool.close();
await sequelize.close();

/** Per cent of files that show another picture, with nothing said of it. */
const share = (of: (row: [string, Row]) => boolean): number => {
  const some = [...rows].filter(of).map(([, row]) => row);
  const files = some.reduce((total, row) => total + row.files, 0);
  const wrong = some.reduce((total, row) => total + row.silent + row.unmarked, 0);
  return rounded((100 * wrong) / Math.max(1, files), 2);
};
const sum = (key: keyof Row) => [...rows.values()].reduce((total, row) => total + row[key], 0);
for (const example of [...examples, ...broken.map((b) => `${b.status} ${b.method} ${b.url} ${b.body}`)].slice(
  0,
  20,
))
  console.log(example);
await report(
  'fuzz',
  `${FILES} broken files and ${heavyFiles().length} heavy drawings through the codec processes, ${REQUESTS} wrong requests through the routes`,
  table,
  {
    files: sum('files'),
    crashes,
    'over limits': beyond,
    'unmarked wrong pictures': sum('unmarked'),
    'sound files': SOUND,
    'sound files that were marked': falseMarks,
    'wrong and unmarked, with checksums, %': share(([kind]) => !UNCHECKED.test(kind)),
    'wrong and unmarked, without checksums, %': share(([kind]) => UNCHECKED.test(kind)),
    'routes 5xx': broken.length,
    refused: sum('refused'),
    marked: sum('marked'),
    'as they were': sum('same'),
    'another picture, and no decoder says so': sum('silent'),
    'given up at a limit': overLimits,
    'most memory of a process, MB': Math.round(largest / 1e6),
    'longest look at a file, s': rounded(slowest / 1000, 1),
  },
);
