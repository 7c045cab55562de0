// A codec process: does one job at a time and dies with its server. A crash here costs one picture, not the server.
import sharp from 'sharp';
import { RefusedError, sentenceOfDisk } from '../problems.ts';
import { inspect, makeViews } from './inspect.ts';
import { letGo, look, pointsOf } from './look.ts';
import type { FromWorker, Job, ToWorker } from './protocol.ts';
import { render } from './render.ts';

// One process a core: threads inside would only compete, and a cache would only hold memory.
sharp.concurrency(1);
sharp.cache(false);
// What is written here is for this application alone.
process.umask(0o077);

let stopSoon = false;

const tell = (message: FromWorker): void => {
  // The channel may close while a message is on its way: then there is nobody left to tell.
  process.send?.(message, undefined, {}, () => undefined);
};

async function carryOut(job: Job): Promise<void> {
  let making: string | null = null;
  if (job.kind !== 'look' && job.kind !== 'points') letGo();
  try {
    switch (job.kind) {
      case 'look':
        tell({ type: 'looked', seen: await look(job) });
        break;
      case 'points':
        tell({ type: 'points', points: await pointsOf(job) });
        break;
      case 'inspect':
        tell({ type: 'inspected', result: await inspect(job, () => tell({ type: 'drawing' })) });
        break;
      case 'views':
        tell({ type: 'views', views: await makeViews(job) });
        break;
      case 'render':
        await render(job, {
          making: (key) => {
            making = key;
            tell({ type: 'making', key });
          },
          made: (variant) => tell({ type: 'made', variant }),
          shouldStop: () => stopSoon,
        });
        tell({ type: 'finished' });
    }
  } catch (error) {
    if (error instanceof RefusedError) tell({ type: 'refused', code: error.code, sentence: error.message });
    else {
      const sentence = sentenceOfDisk(error) ?? (error instanceof Error ? error.message : String(error));
      tell({ type: 'failed', sentence, key: making });
    }
  } finally {
    // The pixels of this job must be gone before those of the next arrive.
    globalThis.gc?.();
  }
}

process.on('message', (message: ToWorker) => {
  if (message.type === 'stop-soon') stopSoon = true;
  else {
    stopSoon = false;
    void carryOut(message.job);
  }
});
// When the server is gone nobody waits for this work; a signal ends native code at once as well.
process.on('disconnect', () => process.kill(process.pid, 'SIGKILL'));
// Ctrl+C reaches the whole group; the server decides when its processes end.
process.on('SIGINT', () => undefined);

tell({ type: 'ready' });
