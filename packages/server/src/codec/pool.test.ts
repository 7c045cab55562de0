// The codec processes: a crash costs one picture, looking goes before making, ending ends everything.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { getPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OriginalFacts } from '@dusky-otter/core/contract';
import sharp, { type Create } from 'sharp';
import { hashOfFile } from '../vault/vault.ts';
import { CodecPool } from './pool.ts';
import { BATCH, LOWEST } from './process.ts';
import { InterruptedError } from './task.ts';
import type { Inspected, InspectJob, MadeVariant, RenderJob } from './protocol.ts';

const LIMITS = { seconds: 60, bytes: 2e9 };

const GROUND = { width: 1200, height: 800, channels: 3 as const, background: '#000' };

let folder: string;
let pool: CodecPool;
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-pool-'));
  pool = new CodecPool(1, LIMITS);
});
afterEach(async () => {
  await pool.close();
  await rm(folder, { recursive: true, force: true });
});

/** A photo of 1200 × 800 px to be looked at. */
async function jobOf(painted: Partial<Create>, name: string): Promise<InspectJob> {
  const bytes = await sharp({ create: { ...GROUND, ...painted } })
    .jpeg()
    .toBuffer();
  const path = join(folder, `photo-${name}`);
  await writeFile(path, bytes);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const views = { row: `${path}.row`, bench: `${path}.bench` };
  return { kind: 'inspect', path, hash, bytes: bytes.length, limitPixels: 1e8, incoming: folder, views };
}

const job = (shade: number): Promise<InspectJob> =>
  jobOf({ background: { r: shade, g: 90, b: 90 } }, `${shade}`);

function renderJob(inspected: InspectJob, facts: OriginalFacts, count: number): RenderJob {
  const outputs = Array.from({ length: count }, (_, i) => ({
    key: `k${i}`,
    path: join(folder, `made-${i}.avif`),
    width: 600 + i,
    height: 400,
    format: 'avif' as const,
    settings: { quality: 50, effort: 1 },
  }));
  const crop = { x: 0, y: 0, width: 1200, height: 800 };
  return {
    kind: 'render',
    path: inspected.path,
    facts,
    incoming: folder,
    turning: NO_TURNING,
    still: false,
    crop,
    outputs,
  };
}

/** The priorities that the threads of a pool's process have, each once. */
async function prioritiesOf({ pids }: CodecPool): Promise<number[]> {
  const threads = await readdir(`/proc/${pids[0]}/task`);
  return [...new Set(threads.map((thread) => getPriority(Number(thread))))];
}

describe('the pool', () => {
  test('a process that is ended while it looks at a file is replaced, and the file looked at once more', async () => {
    await pool.inspect(await job(10));
    const [victim] = pool.pids;
    // Somebody else ended it: the picture is no reason to refuse it, and is looked at in a fresh process.
    const looked = pool.inspect(await job(20));
    process.kill(victim!, 'SIGKILL');
    expect((await looked).facts).toMatchObject({ width: 1200, height: 800 });
    expect((await pool.inspect(await job(30))).facts).toMatchObject({ width: 1200, height: 800 });
    expect(pool.pids).not.toContain(victim);
  });
  test('a file that waits to be looked at makes a long batch step back after its current output', async () => {
    const first = await job(40);
    const { facts } = await pool.inspect(first);
    const made: MadeVariant[] = [];
    const looked: Promise<Inspected>[] = [];
    const second = await job(50);
    await pool.render(renderJob(first, facts, 30), (variant) => {
      made.push(variant);
      if (looked.length === 0) looked.push(pool.inspect(second));
    });
    expect(made.length).toBeGreaterThan(0);
    expect(made.length).toBeLessThan(30);
    expect(await Promise.all(looked)).toMatchObject([{ facts: { hash: second.hash } }]);
  });
  test('a file that ends two processes is refused, and the next one is looked at', async () => {
    await pool.inspect(await job(10));
    const looked = pool.inspect(await job(20));
    looked.catch(() => undefined);
    // Each process that gets it is ended while it has it.
    const ended = new Set<number>();
    while (ended.size < 2) {
      const [pid] = pool.pids;
      if (pid !== undefined && !ended.has(pid) && pool.busyWith(pid) === 'inspect') {
        process.kill(pid, 'SIGKILL');
        ended.add(pid);
      }
      await new Promise((done) => setTimeout(done, 1));
    }
    await expect(looked).rejects.toThrow(/end, twice\. Export it simpler/);
    expect((await pool.inspect(await job(30))).facts).toMatchObject({ width: 1200 });
  });
  test('a process that is ended while it makes files makes the rest in a fresh one, each once', async () => {
    const first = await job(40);
    const { facts } = await pool.inspect(first);
    const made: string[] = [];
    await pool.render(renderJob(first, facts, 6), ({ key }) => {
      made.push(key);
      if (made.length === 2) process.kill(pool.pids[0]!, 'SIGKILL');
    });
    expect(made).toEqual(['k0', 'k1', 'k2', 'k3', 'k4', 'k5']);
  });
  test('patient work makes room for other work in a fresh process, and says so', async () => {
    const first = await job(40);
    const { facts } = await pool.inspect(first);
    const [patient] = pool.pids;
    const made: string[] = [];
    const looked: Promise<Inspected>[] = [];
    const second = await job(50);
    const given = pool.improve(renderJob(first, facts, 30), ({ key }) => {
      made.push(key);
      if (looked.length === 0) looked.push(pool.inspect(second));
    });
    await expect(given).rejects.toThrow(InterruptedError);
    expect(await Promise.all(looked)).toMatchObject([{ facts: { hash: second.hash } }]);
    expect(made.length).toBeLessThan(30);
    // Its priority can't be raised again: the process that did it is gone.
    expect(pool.pids).not.toContain(patient);
    expect(() => process.kill(patient!, 0)).toThrow();
  });
  test('a pool for batches stands behind the server in priority, and its patient work behind all', async () => {
    const own = new CodecPool(1, LIMITS, BATCH);
    try {
      const server = getPriority();
      const first = await job(40);
      // A process has all its threads, and has run all that it begins with, once it has looked at a file.
      const { facts } = await own.inspect(first);
      await pool.inspect(await job(10));
      await expect(prioritiesOf(own)).resolves.toEqual([Math.min(LOWEST, server + BATCH)]);
      await expect(prioritiesOf(pool)).resolves.toEqual([server]);
      // What encodes is a thread of its own, that looking at a file has begun.
      const seen: Promise<number[]>[] = [];
      await own.improve(renderJob(first, facts, 1), () => seen.push(prioritiesOf(own)));
      expect(await Promise.all(seen)).toEqual([[LOWEST]]);
    } finally {
      await own.close();
    }
  });
  test('an output that nobody wants any more is not made, the others are', async () => {
    const first = await job(40);
    const { facts } = await pool.inspect(first);
    const made: string[] = [];
    const drop = new Set(['k2', 'k4']);
    await pool.render(renderJob(first, facts, 6), ({ key }) => {
      made.push(key);
      if (key === 'k0') pool.drop(drop);
    });
    // It handed the rest back; what is wanted of it is asked for anew.
    expect(made.some((key) => drop.has(key))).toBe(false);
    expect(made[0]).toBe('k0');
  });
  test('a search that nobody wants any more is broken off in the middle', async () => {
    const first = await job(40);
    const { facts } = await pool.inspect(first);
    const long = renderJob(first, facts, 1);
    long.outputs[0]!.settings = { target: 0.5, density: 1, thorough: true };
    const given = pool.improve(long, () => undefined);
    pool.drop(new Set(['k0']));
    await expect(given).rejects.toThrow(InterruptedError);
    expect((await pool.inspect(await job(30))).facts).toMatchObject({ width: 1200 });
  });
  test('a file that nobody waits for any more is dropped while it waits', async () => {
    const first = await job(60);
    const { facts } = await pool.inspect(first);
    const [given, kept] = [await job(70), await job(80)];
    const gone = new AbortController();
    const rendering = pool.render(renderJob(first, facts, 3), () => undefined);
    const dropped = pool.inspect(given, gone.signal);
    gone.abort(new Error('The sender has gone.'));
    await expect(dropped).rejects.toThrow('The sender has gone.');
    expect((await pool.inspect(kept)).facts.hash).toBe(kept.hash);
    await expect(pool.inspect(given, gone.signal)).rejects.toThrow('The sender has gone.');
    await rendering;
  });
  test('a codec process knows no secret of its server', async () => {
    process.env.SECRET_OF_A_TEST = 'x';
    const other = new CodecPool(1, LIMITS);
    try {
      await other.inspect(await job(90));
      const environment = await readFile(`/proc/${other.pids[0]!}/environ`, 'utf8');
      expect(environment).toContain('PATH=');
      expect(environment).not.toMatch(/SECRET_OF_A_TEST|DATABASE_URL/);
    } finally {
      delete process.env.SECRET_OF_A_TEST;
      await other.close();
    }
  });
  test('a job that can’t be done is an error with its reason, and the process goes on', async () => {
    const first = await job(60);
    const { facts } = await pool.inspect(first);
    const broken = renderJob(first, { ...facts, hash: '0'.repeat(64) }, 1);
    await expect(pool.render(broken, () => undefined)).rejects.toThrow('changed or lost on the disk');
    const made: MadeVariant[] = [];
    await pool.render(renderJob(first, facts, 2), (variant) => made.push(variant));
    expect(made.map(({ key }) => key)).toEqual(['k0', 'k1']);
  });
  test('after closing no process is left', async () => {
    await pool.inspect(await job(70));
    const { pids } = pool;
    await pool.close();
    for (const pid of pids) expect(() => process.kill(pid, 0)).toThrow('ESRCH');
  });
});

describe('limits', () => {
  /** A picture that takes a while and some room: each file is larger than the limits below allow. */
  const heavy = async (): Promise<InspectJob> => {
    const inspected = await job(33);
    const bytes = await sharp({ create: { width: 9000, height: 7000, channels: 3, background: '#345' } })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer();
    await writeFile(inspected.path, bytes);
    return inspected;
  };
  const limited = async (
    limits: { seconds: number; bytes: number },
    body: (own: CodecPool) => Promise<void>,
  ) => {
    const own = new CodecPool(1, limits);
    try {
      await body(own);
    } finally {
      await own.close();
    }
  };
  test('a file that takes too long is refused with the reason, its process replaced', () =>
    limited({ seconds: 0.3, bytes: 2e9 }, async (own) => {
      // Noise keeps this encoder busy for two minutes: nobody is looked after that late.
      const noisy = await jobOf({ noise: { type: 'gaussian', mean: 128, sigma: 40 } }, 'noise');
      const slow = renderJob(noisy, (await pool.inspect(noisy)).facts, 1);
      const [output] = slow.outputs;
      slow.outputs = [{ ...output!, width: 1200, height: 800, settings: { quality: 60, effort: 9 } }];
      await expect(own.render(slow, () => undefined)).rejects.toMatchObject({
        message: expect.stringMatching(/^It takes longer than 0 seconds/) as unknown,
        key: 'k0',
      });
      // Stopped in the same breath as it gets its file: it can't be done before anybody looks at the clock.
      while (own.free === 0) await new Promise((done) => setTimeout(done, 1));
      const [pid] = own.pids;
      const looked = own.inspect(await job(2));
      process.kill(pid!, 'SIGSTOP');
      await expect(looked).rejects.toThrow(/^It takes longer than 0 seconds\. Export it simpler/);
      expect(own.pids).not.toContain(pid);
    }));
  test('a picture that needs too much memory is given up with the reason, and the next one is looked at', () =>
    limited({ seconds: 60, bytes: 220e6 }, async (own) => {
      const large = await heavy();
      const { facts } = await pool.inspect({ ...large, hash: await hashOfFile(large.path) });
      // At full size it holds its memory for a good while: nobody is looked after that late.
      const { width, height } = facts;
      const whole = { ...renderJob(large, facts, 1), crop: { x: 0, y: 0, width, height } };
      whole.outputs = [{ ...whole.outputs[0]!, width, height }];
      await expect(own.render(whole, () => undefined)).rejects.toThrow(
        /^It needs more than 220 MB of memory/,
      );
      expect((await own.inspect(await job(44))).facts).toMatchObject({ width: 1200 });
    }));
});
