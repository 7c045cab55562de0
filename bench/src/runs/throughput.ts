// Prepares the demo set with the application, searching qualities, then makes the same outputs at fixed quality with a bare
// sharp script on as many processes.
import { fork } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { planPhoto, setPlacesOf } from '@dusky-otter/core/plan';
import type { WholeSet } from '@dusky-otter/core/reading';
import { openDatabase } from '../../../packages/server/dist/database/connect.js';
import type { BareOutput } from '../bare-worker.ts';
import { processorsOf } from '../processes.ts';
import { atFixedQuality } from '../fixed.ts';
import { report, seconds, type Figures } from '../report.ts';
import { prepared, startServer } from '../server.ts';

const WORKERS = 2;
const ROUNDS = Number(process.env.ROUNDS ?? 3);

interface Application {
  time: number;
  state: WholeSet;
  dataDir: string;
  /** How late the server's event loop got round during the batch, in ms. */
  lag: { median: number; p99: number; worst: number };
  /** Processors that the busiest codec process took; 1 where it has one thread that works. */
  busiest: number;
}

/** The application: from the unpacked photos to the last version, on an empty store. */
async function application(round: number): Promise<Application> {
  const dataDir = `${process.env.DATA_DIR}-${round}`;
  const lagFile = join(tmpdir(), `otter-lag-${process.pid}-${round}.json`);
  const url = new URL(process.env.DATABASE_URL!);
  const admin = openDatabase(url.href);
  await admin.query(`CREATE DATABASE test_round_${round}`);
  await admin.close();
  url.pathname = `/test_round_${round}`;
  const server = await startServer({
    SEED_DEMO: '0',
    CODEC_WORKERS: String(WORKERS),
    DATA_DIR: dataDir,
    DATABASE_URL: url.href,
    LAG_FILE: lagFile,
    NODE_OPTIONS: `--import=${resolve(import.meta.dirname, '../lag-probe.js')}`,
  });
  // The set alone, without the pages of its site.
  await fetch(`${server.address}/api/demo`, { method: 'POST' });
  server.child.kill('SIGUSR2');
  const from = performance.now();
  const codecs = processorsOf(server.child.pid!);
  const state = await prepared(server, 1);
  const time = seconds(from);
  const wall = (performance.now() - from) / 1000;
  const after = processorsOf(server.child.pid!);
  const shares = [...after].map(([pid, spent]) => (spent - (codecs.get(pid) ?? 0)) / wall);
  await server.end();
  const lag = JSON.parse(await readFile(lagFile, 'utf8')) as Application['lag'];
  return { time, state, dataDir, lag, busiest: Math.round(Math.max(...shares) * 100) / 100 };
}

/** The outputs of the plan, each key once, dealt to the processes photo by photo so that each has about the same pixels. */
function dealt(state: WholeSet, dataDir: string, folder: string): BareOutput[][] {
  const seen = new Set<string>();
  const hands: { pixels: number; outputs: BareOutput[] }[] = Array.from({ length: WORKERS }, () => ({
    pixels: 0,
    outputs: [],
  }));
  for (const row of state.rows) {
    const { hash } = row.original;
    const source = join(dataDir, 'originals', hash.slice(0, 2), hash);
    const own = planPhoto(row, setPlacesOf(state.set), state.site).filter(
      ({ key }) => !seen.has(key) && seen.add(key),
    );
    own.sort((a, b) => a.shape.localeCompare(b.shape) || a.width - b.width);
    const hand = hands.reduce((least, next) => (next.pixels < least.pixels ? next : least));
    for (const { key, crop, width, height, format, settings } of own) {
      hand.pixels += width * height;
      hand.outputs.push({
        source,
        crop,
        width,
        height,
        format,
        settings: atFixedQuality(format, settings),
        target: join(folder, `${key}.${format}`),
      });
    }
  }
  return hands.map((hand) => hand.outputs);
}

async function bare(state: WholeSet, dataDir: string, way: 'each' | 'shared'): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'otter-bare-'));
  const worker = resolve(import.meta.dirname, '../bare-worker.js');
  const children = dealt(state, dataDir, folder).map((outputs) => ({ outputs, child: fork(worker) }));
  const from = performance.now();
  await Promise.all(
    children.map(
      ({ outputs, child }) =>
        new Promise<void>((done, failed) => {
          child.once('message', () => done());
          child.once('exit', (code) => failed(new Error(`bare worker ended with ${code}`)));
          child.send({ outputs, way });
        }),
    ),
  );
  const time = seconds(from);
  for (const { child } of children) child.kill();
  await rm(folder, { recursive: true, force: true });
  return time;
}

const rows: Figures[] = [];
let versions = 0;
for (let round = 1; round <= ROUNDS; round++) {
  const { time, state, dataDir, lag, busiest } = await application(round);
  versions = state.preparation.wanted;
  const each = await bare(state, dataDir, 'each');
  const shared = await bare(state, dataDir, 'shared');
  rows.push({
    round,
    application: time,
    'bare, a pipeline each': each,
    'bare, shared decode': shared,
    ratio: Math.round((time / each) * 1000) / 1000,
    'ratio to shared': Math.round((time / shared) * 1000) / 1000,
    'event loop late by, 99 % (ms)': lag.p99,
    'event loop late by, worst (ms)': lag.worst,
    'processors of a codec process, most': busiest,
  });
  await rm(dataDir, { recursive: true, force: true });
}
const middle = (name: string) =>
  rows.map((row) => Number(row[name])).sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!;
await report(
  'throughput',
  'seconds to make every version of the demo set: application with quality search beside a bare sharp script at fixed quality',
  rows,
  {
    versions,
    workers: WORKERS,
    'median ratio': middle('ratio'),
    'median ratio to shared decode': middle('ratio to shared'),
    aim: 2.5,
    'worst lag of the event loop, median of rounds (ms)': middle('event loop late by, worst (ms)'),
  },
);
