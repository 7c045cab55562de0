// The codec processes: a crash costs one picture, looking goes before making, ending ends everything.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OriginalFacts } from '@dusky-otter/core';
import sharp from 'sharp';
import { CodecPool } from './pool.ts';
import type { Inspected, InspectJob, MadeVariant, RenderJob } from './protocol.ts';

const LIMITS = { seconds: 60, bytes: 2e9 };

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

async function job(shade: number): Promise<InspectJob> {
  const bytes = await sharp({
    create: { width: 1200, height: 800, channels: 3, background: { r: shade, g: 90, b: 90 } },
  })
    .jpeg()
    .toBuffer();
  const path = join(folder, `photo-${shade}`);
  await writeFile(path, bytes);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const views = { row: `${path}.row`, bench: `${path}.bench` };
  return { kind: 'inspect', path, hash, bytes: bytes.length, limitPixels: 1e8, incoming: folder, views };
}

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
  return { kind: 'render', path: inspected.path, facts, incoming: folder, crop, outputs };
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
    let looked: Promise<Inspected> | null = null;
    const second = await job(50);
    await pool.render(renderJob(first, facts, 30), (variant) => {
      made.push(variant);
      looked ??= pool.inspect(second);
    });
    expect(made.length).toBeGreaterThan(0);
    expect(made.length).toBeLessThan(30);
    expect(await looked).toMatchObject({ facts: { hash: second.hash } });
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
