// The reference program: Debian's package butteraugli, which compares two PNG files.
import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import type { Pixels } from '@dusky-otter/core/difference';

const run = promisify(execFile);

export class Referee {
  private files = 0;

  private constructor(private readonly folder: string) {}

  static async open(): Promise<Referee> {
    return new Referee(await mkdtemp(join(tmpdir(), 'otter-referee-')));
  }

  /** Pixels as a PNG for the program, to be compared with as often as needed. */
  async file({ data, width, height }: Pixels): Promise<string> {
    const path = join(this.folder, `${this.files++}.png`);
    await sharp(data, { raw: { width, height, channels: 3 } })
      .png({ compressionLevel: 1 })
      .toFile(path);
    return path;
  }

  /** Its score of a variant beside a file of `file`; 0 is identical. */
  async score(original: string, variant: Pixels): Promise<number> {
    const path = await this.file(variant);
    const { stdout } = await run('butteraugli', [original, path]);
    await rm(path);
    return Number(stdout.trim().split(/\s+/)[0]);
  }

  close(): Promise<void> {
    return rm(this.folder, { recursive: true });
  }
}
