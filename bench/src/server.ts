// The built server as a process of its own, for benchmarks.
import { spawn, type ChildProcess } from 'node:child_process';
import { createInterface } from 'node:readline';
import { resolve } from 'node:path';
import type { SetState } from '@dusky-otter/core';
import { ROOT } from './report.ts';

export interface RunningServer {
  child: ChildProcess;
  address: string;
  /** Milliseconds (performance.now) at which the address was printed. */
  readyAt: number;
  state: (setId: number) => Promise<SetState>;
  end: () => Promise<void>;
}

/** Starts the server. @throws Error when it ends before it is ready. */
export async function startServer(env: Record<string, string> = {}): Promise<RunningServer> {
  const main = resolve(ROOT, 'packages/server/dist/main.js');
  const child = spawn(process.execPath, [main], {
    env: { ...process.env, PORT: '0', ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise<string>((found, failed) => {
    createInterface({ input: child.stdout }).on('line', (line) => {
      const match = /(http:\/\/\S+?)\/?$/.exec(line);
      if (match) found(match[1]!);
    });
    child.once('exit', (code) => failed(new Error(`The server ended with ${code}.`)));
  });
  return {
    child,
    address,
    readyAt: performance.now(),
    state: async (setId) => (await (await fetch(`${address}/api/sets/${setId}`)).json()) as SetState,
    end: () =>
      new Promise((done) => {
        child.once('exit', () => done());
        child.kill('SIGTERM');
      }),
  };
}

/** Waits until every wanted version of a set is made. @throws Error when one failed. */
export async function prepared(server: RunningServer, setId: number, photos: number): Promise<SetState> {
  for (;;) {
    const state = await server.state(setId);
    const { wanted, made, failed } = state.preparation;
    if (failed > 0) throw new Error(`${failed} versions failed.`);
    if (state.rows.length >= photos && wanted > 0 && made === wanted) return state;
    await new Promise((done) => setTimeout(done, 200));
  }
}
