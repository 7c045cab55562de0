// The whole application as "npm start" runs it, to be killed part by part, and a client that works all the while.
import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { wholeSet, type WholeSet } from '@dusky-otter/core/reading';
import { ROOT } from './report.ts';

export type Part = 'server' | 'codec' | 'database' | 'start script';

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

const pidIn = (path: string): number | null => {
  try {
    return Number(readFileSync(path, 'utf8').split(' ')[0]);
  } catch {
    return null;
  }
};

/** Processes whose parent is this one (proc(5), field 4). */
function childrenOf(parent: number): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
        return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]) === parent;
      } catch {
        return false;
      }
    });
}

export class Rig {
  private child: ChildProcess | null = null;
  said = '';

  private constructor(
    readonly dataDir: string,
    readonly port: number,
  ) {}

  static async open(dataDir: string): Promise<Rig> {
    const rig = new Rig(dataDir, await freePort());
    await rig.start();
    return rig;
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(env: Record<string, string> = {}): Promise<void> {
    const child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs')], {
      env: {
        ...process.env,
        PORT: String(this.port),
        DATA_DIR: this.dataDir,
        CODEC_WORKERS: '2',
        IDLE_WORK: '0',
        ...env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (text: Buffer) => (this.said += text.toString()));
    this.child = child;
    await this.answers();
  }

  /** Resolves once the application answers again. @throws Error after two minutes */
  async answers(): Promise<void> {
    for (const from = performance.now(); performance.now() - from < 120_000; await pause(100)) {
      const answer = await this.ask('GET', '/api/sites').catch(() => null);
      if (answer?.ok) return;
    }
    throw new Error(`The application does not answer:\n${this.said.slice(-2000)}`);
  }

  ask(method: string, path: string, body?: unknown): Promise<Response> {
    return fetch(`${this.address}${path}`, {
      method,
      ...(body !== undefined && {
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }),
      signal: AbortSignal.timeout(60_000),
    });
  }

  async send(set: number, name: string, bytes: Buffer): Promise<Response> {
    return fetch(`${this.address}/api/sets/${set}/files?${new URLSearchParams({ name })}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: new Uint8Array(bytes),
      signal: AbortSignal.timeout(60_000),
    });
  }

  async state(set: number): Promise<WholeSet> {
    return wholeSet(async (path) => {
      const answer = await this.ask('GET', path);
      if (!answer.ok) throw new Error(`The set answers ${answer.status}.`);
      return answer.json();
    }, set);
  }

  /** Resolves once every wanted version is there or has failed. */
  async settled(set: number): Promise<WholeSet> {
    for (const from = performance.now(); ; await pause(200)) {
      const state = await this.state(set).catch(() => null);
      const { wanted = 1, made = 0, failed = 0 } = state?.preparation ?? {};
      if (state && (wanted > 0 || state.rows.length === 0) && made + failed >= wanted) return state;
      if (performance.now() - from > 300_000)
        throw new Error(`Not settled: ${JSON.stringify(state?.preparation)}`);
    }
  }

  pidOf(part: Part): number | null {
    const folder = join(this.dataDir, 'database');
    const server = pidIn(join(folder, 'server.process'));
    switch (part) {
      case 'start script':
        return this.child?.pid ?? null;
      case 'server':
        return server;
      case 'database':
        return pidIn(join(folder, 'mariadb.process'));
      case 'codec': {
        const codecs = server === null ? [] : childrenOf(server);
        return codecs[Math.floor(Math.random() * codecs.length)] ?? null;
      }
    }
  }

  /** Kills a part with SIGKILL. @returns whether there was one to kill */
  kill(part: Part): boolean {
    const pid = this.pidOf(part);
    try {
      return pid !== null && process.kill(pid, 'SIGKILL');
    } catch {
      return false;
    }
  }

  /** Ends as Ctrl+C does. @returns the exit code */
  async end(): Promise<number | null> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return child?.exitCode ?? null;
    const code = new Promise<number | null>((done) => child.once('exit', (value) => done(value)));
    child.kill('SIGTERM');
    return code;
  }
}
