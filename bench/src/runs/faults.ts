// A hundred SIGKILLs at random moments of taking in, editing and making; and parts that break, one by one.
import { randomUUID } from 'node:crypto';
import { spawn, spawnSync } from 'node:child_process';
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chance } from '@dusky-otter/core/chance';
import type { WholeSet } from '@dusky-otter/core/reading';
import { fullDisk } from '../faults/full-disk.ts';
import { endsWithNpm, startsStarved } from '../faults/starts.ts';
import { breakOff, newSet, photo, sha, storeEquals } from '../faults/store.ts';
import { zipsStayHonest } from '../faults/zips.ts';
import { report, rounded, type Figures } from '../report.ts';
import { Rig, type Part } from '../rig.ts';

const KILLS = 100;
const MOST_PHOTOS = 50;
const random = chance(20_261_125);
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
const folder = mkdtempSync(join(tmpdir(), 'otter-faults-'));

// Kills.

const dataDir = join(folder, 'kills');
let rig = await Rig.open(dataDir);
const set = await newSet(rig);
const taken = new Set<string>();
/** What was acknowledged last for a photo, and what was sent since without an answer: it may or may not have been saved. */
const words = new Map<string, { saved: string; sent: string[] }>();
let working = true;
let acknowledged = 0;

async function takeIn(): Promise<void> {
  for (let n = 0; working && n < MOST_PHOTOS;) {
    const bytes = await photo(n);
    const answer = await rig.send(set, `photo-${n}.jpg`, bytes).catch(() => null);
    if (answer?.ok) {
      taken.add(sha(bytes));
      acknowledged += 1;
      n += 1;
    }
    await pause(300);
  }
}

async function write(): Promise<void> {
  for (let n = 0; working; n++) {
    await pause(120);
    const state = await rig.state(set).catch(() => null);
    if (!state || state.rows.length === 0) continue;
    const row = random.pick(state.rows);
    const alt = `Words ${n} of this photo`;
    const known = words.get(row.original.hash) ?? { saved: row.words.alt, sent: [] };
    words.set(row.original.hash, known);
    known.sent.push(alt);
    const command = { kind: 'words', photo: row.id, language: 'en', words: { alt } };
    const answer = await rig
      .ask('POST', `/api/sets/${set}/edits`, {
        label: 'alt',
        commands: [command],
        seen: { photos: { [row.id]: row.version } },
        token: randomUUID(),
        window: 'fault-window',
        since: 0,
      })
      .catch(() => null);
    if (!answer?.ok) continue;
    words.set(row.original.hash, { saved: alt, sent: [] });
    acknowledged += 1;
  }
}

const work = [takeIn(), write()];
const kills = new Map<Part, number>();
for (let n = 0; n < KILLS;) {
  await pause(random.whole(300, 2500));
  const part = random.pick<Part>(['server', 'codec', 'database', 'start script', 'codec', 'server']);
  if (!rig.kill(part)) continue;
  kills.set(part, (kills.get(part) ?? 0) + 1);
  n += 1;
  if (part === 'start script') {
    await pause(random.whole(0, 800));
    await rig.start();
  }
  if (n % 20 === 0) console.log(`${n} kills, ${acknowledged} acknowledged`);
}
working = false;
await Promise.all(work);
await rig.answers();
let settled = await rig.settled(set);
if (settled.preparation.failed > 0) {
  // What broke twice by chance of the kills is tried again when somebody says so.
  await rig.ask('PUT', `/api/sets/${set}/preparation`, { paused: false });
  settled = await rig.settled(set);
}
const there = new Map(settled.rows.map((row) => [row.original.hash, row.words.alt]));
const lostPhotos = [...taken].filter((hash) => !there.has(hash)).length;
const lostWords = [...words].filter(
  ([hash, { saved, sent }]) =>
    there.has(hash) && there.get(hash) !== saved && !sent.includes(there.get(hash)!),
).length;
const equals = storeEquals(settled, dataDir) && settled.preparation.failed === 0;
const code = await rig.end();
const strays = readdirSync(join(dataDir, 'incoming')).length;

// Parts that break.

const table: Figures[] = [...kills].map(([part, times]) => ({
  fault: `${times} kills of the ${part}`,
  survived: lostPhotos + lostWords === 0 && equals,
  note: '',
}));
rig = await Rig.open(join(folder, 'parts'));
const own = await newSet(rig);
const path = (...names: string[]) => join(rig.dataDir, ...names);
const add = async (n: number) =>
  (await (await rig.send(own, `p${n}.jpg`, await photo(200 + n))).json()) as {
    kind: string;
    row: WholeSet['rows'][number];
  };
await add(0);
await rig.settled(own);

const restarted = async (between: () => void) => {
  await rig.end();
  between();
  await rig.start();
  return (await rig.settled(own)).rows.length > 0;
};
const firstFile = async () => {
  const [row] = (await rig.settled(own)).rows;
  const { key, format, contentHash } = row!.variants[0]!;
  return {
    row: row!,
    key,
    format,
    contentHash: contentHash!,
    file: path('variants', key.slice(0, 2), `${key}.${format}`),
  };
};
const zipWorks = async () =>
  (await rig.ask('GET', `/api/sets/${own}/hand-over.zip`)).arrayBuffer().then(
    (bytes) => bytes.byteLength > 1000,
    () => false,
  );

const FAULTS: Record<string, () => Promise<boolean>> = {
  'marker, password and notes beside the database are missing': () =>
    restarted(() => {
      for (const name of readdirSync(path('database')))
        if (name !== 'mariadb') rmSync(path('database', name), { recursive: true });
    }),
  'the start script killed, then a start': async () => {
    rig.kill('start script');
    await rig.start();
    return (await rig.settled(own)).rows.length > 0;
  },
  'process numbers taken over by a stranger': async () => {
    const stranger = spawn('sleep', ['600'], { stdio: 'ignore' });
    const good = await restarted(() => {
      for (const name of ['owner', 'server', 'mariadb'])
        writeFileSync(path('database', `${name}.process`), `${stranger.pid} 1\n`);
    });
    const alive = stranger.exitCode === null && stranger.signalCode === null;
    stranger.kill('SIGKILL');
    return good && alive;
  },
  'stray files and folders in the data directory': () =>
    restarted(() => {
      for (const where of ['', 'variants', 'originals', 'views', 'incoming'])
        writeFileSync(path(where, '.DS_Store'), 'x');
      mkdirSync(path('incoming', 'a folder'), { recursive: true });
    }),
  'the database killed while idle': async () => {
    rig.kill('database');
    await rig.answers();
    return (await rig.state(own)).rows.length > 0;
  },
  'the database killed while an edit is sent: the edit waits': async () => {
    const [row] = (await rig.state(own)).rows;
    rig.kill('database');
    const answer = await rig.ask('POST', `/api/sets/${own}/edits`, {
      label: 'x',
      commands: [{ kind: 'words', photo: row!.id, words: { alt: 'Held' } }],
      photos: { [row!.id]: row!.version },
    });
    return answer.ok && (await rig.state(own)).rows[0]!.words.alt === 'Held';
  },
  'the database killed while files are made': async () => {
    await add(1);
    rig.kill('database');
    await rig.answers();
    return (await rig.settled(own)).preparation.failed === 0;
  },
  'codec processes killed while files are looked at': async () => {
    const sending = Promise.all([2, 3, 4, 5].map(add));
    for (let i = 0; i < 2; i++) {
      await pause(60);
      rig.kill('codec');
    }
    return (await sending).every(({ kind }) => kind === 'new');
  },
  'codec processes killed while files are made': async () => {
    await add(6);
    for (let i = 0; i < 3; i++) {
      await pause(250);
      rig.kill('codec');
    }
    return (await rig.settled(own)).preparation.failed === 0;
  },
  'the server killed': async () => {
    rig.kill('server');
    await pause(300);
    await rig.answers();
    return (await rig.settled(own)).rows.length > 0;
  },
  ...Object.fromEntries(
    (
      [
        ['changed', (file: string) => appendFileSync(file, 'x')],
        ['emptied', (file: string) => writeFileSync(file, '')],
        ['missing', (file: string) => rmSync(file)],
      ] as const
    ).flatMap(([how, spoil]) => [
      [
        `a made file ${how}: served, handed over and made again`,
        async () => {
          const { key, format, file, contentHash } = await firstFile();
          spoil(file);
          const served = await rig.ask('GET', `/files/variants/${key}/${format}`);
          await rig.settled(own);
          const again = sha(readFileSync(file)) === contentHash;
          spoil(file);
          return (
            served.status === 404 && again && (await zipWorks()) && sha(readFileSync(file)) === contentHash
          );
        },
      ],
      [
        `a view ${how}`,
        async () => {
          const { row } = await firstFile();
          spoil(path('views', row.original.hash.slice(0, 2), `${row.original.hash}.row.webp`));
          return (await rig.ask('GET', `/files/views/${row.original.hash}/row`)).ok;
        },
      ],
    ]),
  ),
  'an original damaged, then added again': async () => {
    const { row } = await firstFile();
    const original = path('originals', row.original.hash.slice(0, 2), row.original.hash);
    writeFileSync(original, 'damaged');
    const { kind } = await add(0);
    return kind === 'already-here' && sha(readFileSync(original)) === row.original.hash;
  },
  'an upload broken off in the middle': async () => {
    await breakOff(`${rig.address}/api/sets/${own}/files?name=cut.jpg`);
    const left = readdirSync(path('incoming')).filter((name) => /^[0-9a-f-]{36}$/.test(name));
    return left.length === 0 && (await rig.state(own)).rows.every((row) => row.fileName !== 'cut.jpg');
  },
  'a made file damaged while it goes into a ZIP: the ZIP has all files, or breaks off and says so':
    async () => {
      const { row } = await firstFile();
      return zipsStayHonest({
        wanted: new Set(row.variants.map(({ key }) => key)).size,
        zip: () => rig.ask('GET', `/api/sets/${own}/hand-over.zip`),
        spoil: async () => appendFileSync((await firstFile()).file, 'x'),
        mended: () => rig.settled(own),
      });
    },
  'a start beside others that take all processors': () => startsStarved(folder),
  'npm ended by a signal: server and database end too': () => endsWithNpm(folder),
  'an address that others could reach is refused at start': async () => {
    const { status, stderr } = spawnSync(
      process.execPath,
      [join(import.meta.dirname, '../../../packages/server/dist/main.js')],
      { env: { ...process.env, HOST: '0.0.0.0' }, encoding: 'utf8' },
    );
    return status === 1 && stderr.includes('other machines could reach');
  },
};

for (const [fault, survive] of Object.entries(FAULTS)) {
  let note = '';
  const survived = await survive().catch((error: unknown) => {
    note = error instanceof Error ? error.message.slice(0, 200) : String(error);
    return false;
  });
  table.push({ fault, survived, note });
  console.log(survived ? 'survived' : 'NOT SURVIVED', fault, note);
  if (!(await rig.ask('GET', '/api/sites').catch(() => null))?.ok)
    await rig.answers().catch(() => rig.start());
}
const disk = await fullDisk(folder).catch((error: unknown) => {
  console.log(error);
  return false;
});
if (disk !== null) table.push({ fault: 'a full disk, then room again', survived: disk, note: '' });
else console.log('A full disk was not tried: this user may not mount one.');
await rig.end();
const leftInTemporary = readdirSync(tmpdir()).filter(
  (name) => name.startsWith('otter-') && name.endsWith('.sock'),
).length;
rmSync(folder, { recursive: true, force: true });

const faults = table.filter(({ fault }) => !String(fault).includes('kills of the'));
await report(
  'faults',
  `${KILLS} SIGKILLs while photos are taken in, edited and made, and parts that break one by one`,
  table,
  {
    kills: KILLS,
    lost: lostPhotos + lostWords,
    'store equals wanted': equals,
    'faults survived': faults.filter(({ survived }) => survived).length,
    faults: faults.length,
    acknowledged,
    photos: taken.size,
    'ended cleanly after the kills': code === 0 && strays === 0 && existsSync(tmpdir()),
    'left in the temporary folder': leftInTemporary,
    'acknowledged a kill': rounded(acknowledged / KILLS, 1),
  },
);
