// A disk that is full while a photo comes in, and has room again.
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { Rig } from '../rig.ts';
import { newSet, photo } from './store.ts';

/** @returns whether both went as they should; null where this user may not mount a disk of its own to fill */
export async function fullDisk(folder: string): Promise<boolean | null> {
  const disk = join(folder, 'disk');
  mkdirSync(disk);
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=400m', 'tmpfs', disk]).status !== 0) return null;
  try {
    const full = await Rig.open(join(disk, 'data'));
    const id = await newSet(full);
    const filler = join(disk, 'filler');
    spawnSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=1M']);
    const refused = await full.send(
      id,
      'full.jpg',
      await sharp({ create: { width: 2500, height: 2500, channels: 3, background: '#345' } })
        .png({ compressionLevel: 0 })
        .toBuffer(),
    );
    const { code: said } = (await refused.json()) as { code?: string };
    rmSync(filler);
    const { kind } = (await (await full.send(id, 'room.jpg', await photo(1))).json()) as { kind?: string };
    const state = await full.settled(id);
    await full.end();
    return said === 'disk-full' && kind === 'new' && state.rows.length === 1;
  } finally {
    spawnSync('umount', ['-l', disk]);
  }
}
