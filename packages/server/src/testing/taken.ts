// For tests: a file taken in without a server, as the codec sees it.
import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { OriginalFacts } from '@dusky-otter/core/contract';
import { inspect } from '../codec/inspect.ts';

export interface TakenFile {
  path: string;
  facts: OriginalFacts;
}

/** Writes a file into a folder and inspects it. @throws RefusedError */
export async function takenInto(
  folder: string,
  name: string,
  bytes: Buffer,
  limitPixels = 1e8,
): Promise<TakenFile> {
  const path = join(folder, name);
  await writeFile(path, bytes);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const views = { row: `${path}.row.webp`, bench: `${path}.bench.webp` };
  const job = {
    kind: 'inspect' as const,
    path,
    hash,
    bytes: bytes.length,
    limitPixels,
    incoming: folder,
    views,
  };
  return { path, facts: (await inspect(job)).facts };
}
