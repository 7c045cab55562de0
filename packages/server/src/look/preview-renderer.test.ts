// What is made to be looked at, or to be weighed alone.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { EncoderSettings } from '@dusky-otter/core/contract';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { takenInto } from '../testing/taken.ts';
import type { LookJob } from '../codec/protocol.ts';
import { PreviewRenderer } from './preview-renderer.ts';

let folder: string;
const previews = new PreviewRenderer({ seconds: 60, bytes: 2e9 });
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-previews-'));
});
afterAll(async () => {
  await previews.close();
  await rm(folder, { recursive: true, force: true });
});

test('a picture is weighed once; other settings, and an original that is gone, are told apart', async () => {
  const { path, facts } = await takenInto(
    folder,
    'noise.png',
    await sharp({
      create: {
        ...{ width: 64, height: 48, channels: 3, background: '#808080' },
        noise: { type: 'gaussian', mean: 128, sigma: 40 },
      },
    })
      .png()
      .toBuffer(),
  );
  const job = (settings: EncoderSettings, width = 32): LookJob => ({
    ...{ kind: 'look', path, facts, turning: NO_TURNING, frame: 0, background: null },
    ...{
      crop: { x: 0, y: 0, width: 64, height: 48 },
      width,
      height: (width * 3) / 4,
      format: 'webp',
      settings,
    },
  });
  const { signal } = new AbortController();
  const fine = await previews.weigh(job({ quality: 95 }), signal);
  expect(fine).toBe((await previews.look(job({ quality: 95 }), signal)).file.length);
  expect(await previews.weigh(job({ quality: 20 }), signal)).toBeLessThan(fine);
  await rm(path);
  // Remembered: nothing is left to make it from.
  expect(await previews.weigh(job({ quality: 95 }), signal)).toBe(fine);
  await expect(previews.weigh(job({ quality: 95 }, 16), signal)).rejects.toThrow();
});
