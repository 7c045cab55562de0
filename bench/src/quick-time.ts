// What the search of the quick pass costs in time beside one quality for all.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import { planPhoto } from '@dusky-otter/core/plan';
import { batchesOf } from '../../packages/server/dist/prepare/batches.js';
import { render } from '../../packages/server/dist/codec/render.js';
import { FIRST_CONTEXT, type DemoSet } from './demo.ts';
import { atFixedQuality } from './fixed.ts';
import { rounded, type Figures } from './report.ts';

/** Time of the demo set's outputs through the codec's own render, with search and with fixed quality, photo by photo. */
export async function timeRatio(demo: DemoSet): Promise<Figures> {
  const folder = await mkdtemp(join(tmpdir(), 'otter-bench-weight-'));
  const times = { search: 0, fixed: 0 };
  let count = 0;
  for (const photo of demo.photos.filter((p) => p.inSet)) {
    const batches = batchesOf(photo, demo.setPlaces, FIRST_CONTEXT);
    for (const way of ['search', 'fixed', 'fixed', 'search'] as const) {
      const from = performance.now();
      for (const { crop, outputs } of batches) {
        await render(
          {
            kind: 'render',
            path: photo.path,
            facts: photo.original,
            incoming: folder,
            turning: NO_TURNING,
            still: false,
            crop,
            outputs: outputs.map((output) => ({
              ...output,
              path: join(folder, `${output.key}.${output.format}`),
              settings: way === 'fixed' ? atFixedQuality(output.format, output.settings) : output.settings,
            })),
          },
          { making: () => undefined, made: () => undefined, shouldStop: () => false },
        );
      }
      times[way] += performance.now() - from;
    }
    count += planPhoto(photo, demo.setPlaces, FIRST_CONTEXT).length;
  }
  await rm(folder, { recursive: true });
  return {
    'files of the demo set': count,
    's with search': rounded(times.search / 2000, 1),
    's at fixed quality': rounded(times.fixed / 2000, 1),
    'time ratio': rounded(times.search / times.fixed, 2),
  };
}
