// Broken files from a seed: none ends a process, none comes in as another picture without its mark.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import {
  ANOTHER_PICTURE,
  brokenFiles,
  differenceOf,
  heavyFiles,
  lookAt,
  soundFiles,
  strictComplaint,
  type SoundFile,
} from '../../../../bench/src/fuzz/files.ts';
import { RefusedError } from '../problems.ts';
import { DEMO } from '../testing/server.ts';
import { CodecPool } from './pool.ts';
import type { Inspected } from './protocol.ts';

const LIMITS = { seconds: 20, bytes: 1.2e9 };

let folder: string;
let pool: CodecPool;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-fuzz-'));
  pool = new CodecPool(2, LIMITS);
});
afterAll(async () => {
  await pool.close();
  await rm(folder, { recursive: true, force: true });
});

async function inspected(file: SoundFile): Promise<Inspected & { view: Buffer }> {
  const job = await lookAt(file, folder);
  const result = await pool.inspect(job);
  return { ...result, view: await readFile(job.views.row) };
}

test('broken files are refused, marked, or as they were', async () => {
  const sound = await soundFiles(DEMO);
  const views = new Map(
    await Promise.all(sound.map(async (file) => [file.kind, (await inspected(file)).view] as const)),
  );
  const before = pool.pids;
  const seen = { refused: 0, marked: 0, same: 0, told: 0 };
  const unmarked: string[] = [];
  const other: unknown[] = [];
  const judge = async (file: SoundFile) => {
    try {
      const { facts, view } = await inspected(file);
      if (facts.damage !== null) seen.marked += 1;
      else if ((await differenceOf(view, views.get(file.kind)!)) < ANOTHER_PICTURE) seen.same += 1;
      // Another picture without a mark: then no decoder may have said a word.
      else if ((await strictComplaint(file)) === null) seen.told += 1;
      else unmarked.push(file.kind);
    } catch (error) {
      if (error instanceof RefusedError) seen.refused += 1;
      else other.push(error);
    }
  };
  const files = [...brokenFiles(sound, 120, 20261125)];
  for (let i = 0; i < files.length; i += 4) await Promise.all(files.slice(i, i + 4).map(judge));
  expect(other).toEqual([]);
  expect(unmarked).toEqual([]);
  expect(pool.pids).toEqual(before);
  // The generator does its work: every outcome is among them, and hardly anything goes in that nobody can tell.
  const { told, ...others } = seen;
  for (const times of Object.values(others)) expect(times).toBeGreaterThan(3);
  expect(told).toBeLessThanOrEqual(6);
});

test('files that are made to be heavy are refused or done within the limits', async () => {
  const outcomes = await Promise.all(
    heavyFiles().map((file) =>
      inspected(file).then(
        () => [file.kind, 'done'],
        (error: unknown) => [file.kind, error instanceof RefusedError ? error.code : String(error)],
      ),
    ),
  );
  for (const [kind, outcome] of outcomes)
    expect([
      kind,
      outcome === 'done' || outcome === 'too-heavy' || outcome === 'not-a-picture' || outcome === 'damaged',
    ]).toEqual([kind, true]);
  expect(Object.fromEntries(outcomes)).toMatchObject({
    'svg uses': 'too-heavy',
    'svg patterns': 'too-heavy',
    'svg levels': 'too-heavy',
    'svg elements': 'too-heavy',
    'svg path': 'too-heavy',
    'svg text': 'too-heavy',
  });
  expect((await inspected((await soundFiles(DEMO))[0]!)).facts.damage).toBeNull();
});

test('an animation is measured by all of its frames', async () => {
  // Frames that look alike would be stored as one.
  const frames = await Promise.all(
    Array.from({ length: 12 }, (_, i) =>
      sharp({ create: { width: 1000, height: 1000, channels: 3, background: { r: i * 20, g: 90, b: 60 } } })
        .png()
        .toBuffer(),
    ),
  );
  const few = await sharp(frames, { join: { animated: true } })
    .webp({ effort: 0 })
    .toBuffer();
  const path = join(folder, 'frames');
  await writeFile(path, few);
  const job = {
    kind: 'inspect' as const,
    path,
    hash: '0'.repeat(64),
    bytes: few.length,
    incoming: folder,
    views: { row: `${path}.r`, bench: `${path}.b` },
  };
  await expect(pool.inspect({ ...job, limitPixels: 10e6 })).rejects.toThrow(
    'The animation has 12 frames of 1 megapixels; up to 10 in all frames together',
  );
  expect((await pool.inspect({ ...job, limitPixels: 20e6 })).facts.frames).toBe(12);
});

test('an animation that is stored lying comes out upright, frame by frame', async () => {
  const frames = await Promise.all(
    ['#f00', '#0f0'].map((background) =>
      sharp({ create: { width: 120, height: 60, channels: 3, background } })
        .png()
        .toBuffer(),
    ),
  );
  const moving = await sharp(frames, { join: { animated: true } })
    .webp({ lossless: true, delay: [120, 340] })
    .withMetadata({ orientation: 6 })
    .toBuffer();
  const path = join(folder, 'lying');
  await writeFile(path, moving);
  const hash = createHash('sha256').update(moving).digest('hex');
  const { facts } = await pool.inspect({
    kind: 'inspect',
    path,
    hash,
    bytes: moving.length,
    limitPixels: 1e8,
    incoming: folder,
    views: { row: `${path}.r`, bench: `${path}.b` },
  });
  expect(facts).toMatchObject({ width: 60, height: 120, frames: 2, orientation: 6 });
  const output = {
    key: 'k',
    path: `${path}.webp`,
    width: 30,
    height: 60,
    format: 'webp' as const,
    settings: { quality: 90, effort: 1 },
  };
  await pool.render(
    {
      kind: 'render',
      path,
      facts,
      incoming: folder,
      turning: NO_TURNING,
      still: false,
      crop: { x: 0, y: 0, width: 60, height: 120 },
      outputs: [output],
    },
    () => undefined,
  );
  const meta = await sharp(output.path, { animated: true }).metadata();
  expect(meta).toMatchObject({ width: 30, pageHeight: 60, pages: 2, delay: [120, 340] });
  const { data } = await sharp(output.path, { page: 1 })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect(data[1]! - data[0]!).toBeGreaterThan(150);
});
