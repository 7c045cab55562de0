// The process that looks for words in pictures: one picture at a time, gone with its server.
import type { OriginalFacts, ShownLine } from '@dusky-otter/core/contract';
import sharp from 'sharp';
import { openReader, wordsShownIn } from './shown-words.ts';

export interface ReadJob {
  path: string;
  facts: OriginalFacts;
}

export type FromReader = { lines: ShownLine[] } | { failed: string };

sharp.concurrency(1);
sharp.cache(false);

let reader: ReturnType<typeof openReader> | null = null;

async function answer({ path, facts }: ReadJob): Promise<FromReader> {
  try {
    reader ??= openReader();
    return { lines: await wordsShownIn(await reader, path, facts) };
  } catch (error) {
    return { failed: error instanceof Error ? error.message : String(error) };
  }
}

process.on('message', (job: ReadJob) => {
  void answer(job).then((message) => process.send?.(message, undefined, {}, () => undefined));
});
process.on('disconnect', () => process.kill(process.pid, 'SIGKILL'));
process.on('SIGINT', () => undefined);
