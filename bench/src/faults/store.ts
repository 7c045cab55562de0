// What the faults begin with and end by: a set with photos, and a store that holds what is wanted and nothing else.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { firstPlaces, type WholeSet } from '@dusky-otter/core/reading';
import sharp from 'sharp';
import type { Rig } from '../rig.ts';

export const sha = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
/** A small photo of its own for every number. */
export const photo = (n: number) =>
  sharp({
    create: { width: 700, height: 500, channels: 3, background: { r: n % 256, g: (n * 7) % 256, b: 90 } },
  })
    .jpeg()
    .toBuffer();

export async function newSet(rig: Rig): Promise<number> {
  const site = (await (await rig.ask('POST', '/api/sites', { name: 'Gullmoor Pottery' })).json()) as {
    id: number;
  };
  const made = await rig.ask('POST', `/api/sites/${site.id}/sets`, { name: 'Faults' });
  const { id } = (await made.json()) as { id: number };
  await rig.ask('POST', `/api/sets/${id}/edits`, firstPlaces(['column', 'grid'], crypto.randomUUID()));
  return id;
}

/** Every wanted file is stored byte for byte, and no other is. */
export function storeEquals({ rows }: WholeSet, dataDir: string): boolean {
  const wanted = new Map<string, string | null>(
    rows.flatMap((row) => row.variants.map((v) => [`${v.key}.${v.format}`, v.contentHash] as const)),
  );
  const top = join(dataDir, 'variants');
  const stored = readdirSync(top).flatMap((folder) =>
    statSync(join(top, folder)).isDirectory()
      ? readdirSync(join(top, folder)).map((name) => [name, join(top, folder, name)] as const)
      : [],
  );
  const known = stored.filter(([name]) => wanted.has(name));
  return (
    known.length === wanted.size &&
    known.every(([name, path]) => sha(readFileSync(path)) === wanted.get(name)) &&
    rows.every(
      (row) =>
        sha(readFileSync(join(dataDir, 'originals', row.original.hash.slice(0, 2), row.original.hash))) ===
        row.original.hash,
    )
  );
}

/** Begins to send a file, and leaves in the middle of it; resolves when the server has had time to notice. */
export async function breakOff(address: string): Promise<void> {
  const gone = new AbortController();
  const stream = new ReadableStream({
    start(controller) {
      controller.enqueue(new Uint8Array(5000));
      setTimeout(() => gone.abort(), 100);
    },
  });
  const init = {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: stream,
    duplex: 'half',
    signal: gone.signal,
  };
  await fetch(address, init as RequestInit).catch(() => null);
  await new Promise((done) => setTimeout(done, 500));
}
