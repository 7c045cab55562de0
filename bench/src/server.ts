// The built server as a process of its own, for benchmarks.
import { spawn, type ChildProcess } from 'node:child_process';
import { createInterface } from 'node:readline';
import { resolve } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import type { SetEvent } from '@dusky-otter/core/contract';
import { firstPlaces, wholeSet, type WholeSet } from '@dusky-otter/core/reading';
import { ROOT } from './report.ts';

export interface RunningServer {
  child: ChildProcess;
  address: string;
  state: (setId: number) => Promise<WholeSet>;
  end: () => Promise<void>;
}

/** Starts the server. @throws Error when it ends before it is ready. */
export async function startServer(env: Record<string, string> = {}): Promise<RunningServer> {
  const main = resolve(ROOT, 'packages/server/dist/main.js');
  const child = spawn(process.execPath, [main], {
    env: { ...process.env, PORT: '0', SEED_DEMO: '1', IDLE_WORK: '0', ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  process.once('exit', () => child.kill('SIGKILL'));
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
    state: (setId) => wholeSet(async (path) => (await fetch(`${address}${path}`)).json(), setId),
    end: () =>
      new Promise((done) => {
        child.once('exit', () => done());
        child.kill('SIGTERM');
      }),
  };
}

async function post(server: RunningServer, path: string, body: object): Promise<{ id: number }> {
  const response = await fetch(`${server.address}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path} answers ${response.status}.`);
  return (await response.json()) as { id: number };
}

/** Makes a set in a site of its own. @returns its id */
export async function newSet(server: RunningServer, name: string): Promise<number> {
  const site = await post(server, '/api/sites', { name: 'Gullmoor Pottery' });
  const { id } = await post(server, `/api/sites/${site.id}/sets`, { name });
  await post(server, `/api/sets/${id}/edits`, firstPlaces(['column', 'grid'], crypto.randomUUID()));
  return id;
}

/** Listens until every wanted version of a set is made. @throws Error when one failed. */
export async function prepared(server: RunningServer, setId: number): Promise<WholeSet> {
  const response = await fetch(`${server.address}/api/events?sets=${setId}`);
  const events = Readable.fromWeb(response.body as ReadableStream<Uint8Array>);
  // The stream is left while it is open: that it then ends is no error.
  events.on('error', () => undefined);
  let rest = '';
  for await (const chunk of events) {
    const lines = (rest + Buffer.from(chunk as Uint8Array).toString()).split('\n');
    rest = lines.pop()!;
    const progress = lines.filter((line) => line.startsWith('data: {"type":"preparation"')).at(-1);
    if (!progress) continue;
    const { preparation } = JSON.parse(progress.slice(6)) as Extract<SetEvent, { type: 'preparation' }>;
    const { wanted, made, failed } = preparation;
    if (failed > 0) throw new Error(`${failed} versions failed.`);
    if (wanted > 0 && made === wanted) break;
  }
  return server.state(setId);
}
