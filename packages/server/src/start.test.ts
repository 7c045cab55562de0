// Starting and ending as operators meet them: through npm, on a port that is taken, without a database.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { createServer, type AddressInfo, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ownDatabase } from './testing/database.ts';

const ROOT = resolve(import.meta.dirname, '../../..');
const MAIN = resolve(import.meta.dirname, '../dist/main.js');

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-start-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** What a process says until it ends, or until it says something that is waited for. */
function listening(child: ChildProcess) {
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (text: Buffer) => (said += String(text)));
  const ended = new Promise<number | null>((done) => child.once('close', (code) => done(code)));
  const until = async (pattern: RegExp) => {
    while (!pattern.test(said)) {
      if (child.exitCode !== null) throw new Error(said);
      await new Promise((done) => setTimeout(done, 50));
    }
  };
  return { said: () => said, ended, until };
}

/** Ids of processes whose command line names a folder. */
async function processesIn(text: string): Promise<string[]> {
  const { readdir } = await import('node:fs/promises');
  const pids = (await readdir('/proc')).filter((name) => /^\d+$/.test(name));
  const lines = await Promise.all(
    pids.map(async (pid) => {
      const [command, environment] = await Promise.all(
        ['cmdline', 'environ'].map((file) => readFile(`/proc/${pid}/${file}`, 'latin1').catch(() => '')),
      );
      return { pid, isOurs: command!.includes(text) || environment!.includes(text) };
    }),
  );
  return lines.filter(({ isOurs }) => isOurs).map(({ pid }) => pid);
}

describe('the server', () => {
  const env = (url: string, port: number) => ({
    ...process.env,
    NODE_OPTIONS: '',
    DATABASE_URL: url,
    DATA_DIR: join(folder, 'data'),
    PORT: String(port),
    SEED_DEMO: '0',
  });
  let taken: Server;
  beforeAll(async () => {
    taken = createServer();
    await new Promise<void>((done) => taken.listen(0, '127.0.0.1', done));
  });
  afterAll(() => new Promise((done) => taken.close(done)));
  test('says which port is taken, in a sentence with the way out', async () => {
    const database = await ownDatabase();
    const { port } = taken.address() as AddressInfo;
    const child = spawn(process.execPath, [MAIN], { env: env(database.url, port), stdio: 'pipe' });
    const { said, ended } = listening(child);
    expect(await ended).toBe(1);
    expect(said().trim()).toBe(
      `Port ${port} is taken by another program. End it, or choose another one: PORT=${port + 1} npm start`,
    );
    await database.drop();
  });
  test('waits for a database that does not answer yet, without a word of a trace', async () => {
    const { port } = taken.address() as AddressInfo;
    // Somebody takes the connection there and says nothing, as a machine that is busy does.
    const child = spawn(process.execPath, [MAIN], {
      env: env(`mariadb://x:y@127.0.0.1:${port}/z`, 0),
      stdio: 'pipe',
    });
    const { said, ended } = listening(child);
    await new Promise<void>((done) => taken.once('connection', () => done()));
    expect([child.exitCode, said()]).toEqual([null, '']);
    child.kill('SIGKILL');
    await ended;
  });
});

describe('npm start', () => {
  test.each(['SIGTERM', 'SIGKILL'] as const)(
    'ends with all that it started when npm gets a %s',
    async (signal) => {
      const data = join(folder, signal);
      const child = spawn('npm', ['start'], {
        cwd: ROOT,
        env: { ...process.env, NODE_OPTIONS: '', DATA_DIR: data, PORT: '0', SEED_DEMO: '0', IDLE_WORK: '0' },
        stdio: 'pipe',
      });
      const { until } = listening(child);
      await until(/is ready: http/);
      expect(existsSync(join(data, 'database/mariadb'))).toBe(true);
      expect((await processesIn(data)).length).toBeGreaterThan(2);
      child.kill(signal);
      while ((await processesIn(data)).length > 0) await new Promise((done) => setTimeout(done, 100));
      expect(existsSync(join(data, 'database/owner.process'))).toBe(false);
    },
  );
});
