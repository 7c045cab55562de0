// For tests: the built server as a process of its own, as "npm start" runs it.
import { spawn, type ChildProcess } from 'node:child_process';
import { createInterface } from 'node:readline';
import { resolve } from 'node:path';
import { wholeSet, type WholeSet } from '@dusky-otter/core/reading';

const MAIN = resolve(import.meta.dirname, '../../dist/main.js');

export interface ServerProcess {
  address: string;
  child: ChildProcess;
  /** State of a set, the first one where none is named. */
  state: (setId?: number) => Promise<WholeSet>;
  /** Resolves once the state of a set, the first one where none is named, is as asked. */
  until: (ready: (state: WholeSet) => boolean, setId?: number) => Promise<WholeSet>;
  end: (signal: 'SIGTERM' | 'SIGKILL') => Promise<void>;
}

/** Starts the server and waits for the address it prints. @throws Error when it ends before. */
export async function startServer(env: Record<string, string>): Promise<ServerProcess> {
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, PORT: '0', SEED_DEMO: '1', IDLE_WORK: '0', SHORT_ENCODING: '1', ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const gone = new Promise<void>((done) => child.once('exit', () => done()));
  const address = await new Promise<string>((found, failed) => {
    createInterface({ input: child.stdout }).on('line', (line) => {
      const match = /(http:\/\/\S+?)\/?$/.exec(line);
      if (match) found(match[1]!);
    });
    child.once('exit', (code) => failed(new Error(`The server ended with ${code}.`)));
  });
  const get = async (path: string): Promise<unknown> => (await fetch(`${address}${path}`)).json();
  const state = (setId = 1) => wholeSet(get, setId);
  return {
    address,
    child,
    state,
    async until(ready, setId) {
      for (;;) {
        const now = await state(setId);
        if (ready(now)) return now;
        await new Promise((done) => setTimeout(done, 250));
      }
    },
    async end(signal) {
      child.kill(signal);
      await gone;
    },
  };
}
