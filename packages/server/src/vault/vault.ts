// Content-addressed files under the data directory. A file appears under its name only when it is complete:
// written under a temporary name, flushed to disk, then renamed. Originals are never altered.
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { chmod, mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import type { OutputFormat } from '@dusky-otter/core/contract';
import { RefusedError } from '../problems.ts';

const HEX64 = /^[0-9a-f]{64}$/;
const TEMPORARY = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
const VARIANT_FILE = /^([0-9a-f]{64})\.[a-z]{3,4}$/;

function checkedHash(hash: string): string {
  if (!HEX64.test(hash)) throw new RangeError('A vault name is 64 hex digits.');
  return hash;
}

/** Streams a file through SHA-256. @returns 64 hex digits. */
export async function hashOfFile(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/** Originals may say where and of whom they were taken: files and folders are for this application's user alone. */
const FILE_MODE = 0o600;
const FOLDER_MODE = 0o700;

/**
 * Flushes a folder: a name that a file was given is on the disk only then (fsync(2)). Some file systems can't, and keep
 * their folders in step by themselves.
 */
async function flushFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  try {
    await folder.sync();
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EINVAL') throw error;
  } finally {
    await folder.close();
  }
}

/** Gives a complete file its name, in a folder that is made where there is none; both are on the disk afterwards. */
async function giveName(temporary: string, path: string): Promise<void> {
  const folder = dirname(path);
  const made = await mkdir(folder, { recursive: true, mode: FOLDER_MODE });
  await rename(temporary, path);
  await flushFolder(folder);
  if (made !== undefined) await flushFolder(dirname(folder));
}

/** Writes bytes so that `path` either holds all of them or does not exist, even after a power cut. */
export async function writeWhole(path: string, incoming: string, bytes: Uint8Array): Promise<void> {
  const temporary = join(incoming, randomUUID());
  const file = await open(temporary, 'wx', FILE_MODE);
  try {
    await file.writeFile(bytes);
    await file.sync();
  } catch (error) {
    await rm(temporary, { force: true });
    throw error;
  } finally {
    await file.close();
  }
  await giveName(temporary, path);
}

/** A file that is not there can't be moved. */
function unlessMissing(error: unknown): void {
  if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
}

export class Vault {
  readonly root: string;
  /** Where files grow until they are complete. */
  readonly incoming: string;

  constructor(root: string) {
    this.root = root;
    this.incoming = join(root, 'incoming');
  }

  /** Makes the folders and clears what an interrupted run left half written. @returns number of files cleared. */
  async open(): Promise<number> {
    for (const folder of ['incoming', 'originals', 'variants', 'views', 'aside']) {
      await mkdir(join(this.root, folder), { recursive: true, mode: FOLDER_MODE });
      // Made by an earlier version, they may be open to others.
      await chmod(join(this.root, folder), FOLDER_MODE);
    }
    // What is not one of our temporary names was put there by somebody else, and stays.
    const left = (await readdir(this.incoming)).filter((name) => TEMPORARY.test(name));
    await Promise.all(left.map((name) => rm(join(this.incoming, name), { force: true, recursive: true })));
    return left.length;
  }

  original(hash: string): string {
    return join(this.root, 'originals', checkedHash(hash).slice(0, 2), hash);
  }

  variant(key: string, format: OutputFormat): string {
    return join(this.root, 'variants', checkedHash(key).slice(0, 2), `${key}.${format}`);
  }

  /** The picture as screens of the application show it, `size` px on the long side at most. */
  view(hash: string, size: 'row' | 'bench'): string {
    return join(this.root, 'views', checkedHash(hash).slice(0, 2), `${hash}.${size}.webp`);
  }

  /** Streams a file in, hashing on the way. It stays under a temporary name until `keepOriginal`. */
  async receive(
    stream: Readable,
    limitBytes: number,
  ): Promise<{ path: string; hash: string; bytes: number }> {
    const path = join(this.incoming, randomUUID());
    const file = await open(path, 'wx', FILE_MODE);
    const hash = createHash('sha256');
    let bytes = 0;
    try {
      for await (const chunk of stream as AsyncIterable<Buffer>) {
        bytes += chunk.length;
        // Past the limit the rest is read and dropped, so that the sender gets a proper answer.
        if (bytes > limitBytes) continue;
        hash.update(chunk);
        // A plain write may take a part and say so: on a full disk that is the last that is heard of it.
        await file.writeFile(chunk);
      }
      await file.sync();
    } catch (error) {
      await file.close();
      await rm(path, { force: true });
      throw error;
    }
    await file.close();
    if (bytes > limitBytes) {
      await rm(path, { force: true });
      const size = Math.round(bytes / 1_000_000);
      throw new RefusedError(
        'too-many-bytes',
        `The file has ${size} MB; up to ${limitBytes / 1_000_000} MB can be taken in. Export it smaller and add it again.`,
      );
    }
    return { path, hash: hash.digest('hex'), bytes };
  }

  /** Puts a received file under its hash, where it stays for good. */
  async keepOriginal(received: string, hash: string): Promise<void> {
    await giveName(received, this.original(hash));
  }

  /** The file's bytes where they have the hash, or null where it is missing, unreadable or not what it was. */
  async verified(path: string, hash: string): Promise<Buffer | null> {
    const bytes = await readFile(path).catch(() => null);
    return bytes && createHash('sha256').update(bytes).digest('hex') === hash ? bytes : null;
  }

  /** True where an original is there byte for byte. */
  async hasWhole(hash: string): Promise<boolean> {
    return (await hashOfFile(this.original(hash)).catch(() => null)) === hash;
  }

  async discard(received: string): Promise<void> {
    await rm(received, { force: true });
  }

  async has(path: string): Promise<boolean> {
    return stat(path).then(
      (found) => found.isFile(),
      () => false,
    );
  }

  /** Every variant file there is, as key → path. */
  async variantFiles(): Promise<Map<string, string>> {
    const found = new Map<string, string>();
    const top = join(this.root, 'variants');
    for (const folder of await readdir(top, { withFileTypes: true })) {
      if (!folder.isDirectory()) continue;
      for (const name of await readdir(join(top, folder.name))) {
        // Notes of operating systems lie about in folders: only our own files count.
        const key = VARIANT_FILE.exec(name)?.[1];
        if (key !== undefined) found.set(key, join(top, folder.name, name));
      }
    }
    return found;
  }

  /** When a file got its name; now where it is none. */
  async madeAt(path: string): Promise<Date> {
    return stat(path).then(
      ({ mtimeMs }) => new Date(mtimeMs),
      () => new Date(),
    );
  }

  /** Bytes of a file, or null where it is none. */
  async sizeOf(path: string): Promise<number | null> {
    return stat(path).then(
      (found) => (found.isFile() ? found.size : null),
      () => null,
    );
  }

  async removeFile(path: string): Promise<void> {
    await rm(path, { force: true });
  }

  /** Where an original waits to be deleted, until it is certain that nothing knows it any more. */
  private aside(hash: string): string {
    return join(this.root, 'aside', checkedHash(hash));
  }

  /** Takes an original from its place, to be deleted or brought back. Done twice, it is done once. */
  async setAside(hash: string): Promise<void> {
    await rename(this.original(hash), this.aside(hash)).catch(unlessMissing);
  }

  /** Puts an original back that was set aside; where it has come again meanwhile, that one stays. */
  async bringBack(hash: string): Promise<void> {
    if (await this.has(this.original(hash))) await this.removeFile(this.aside(hash));
    else await rename(this.aside(hash), this.original(hash)).catch(unlessMissing);
  }

  /** Deletes an original that was set aside, with its views, for good. */
  async dropAside(hash: string): Promise<void> {
    for (const path of [this.aside(hash), this.view(hash, 'row'), this.view(hash, 'bench')])
      await this.removeFile(path);
  }

  /** Hashes of originals that were set aside and are not settled: a crash left them. */
  async setAsides(): Promise<string[]> {
    return (await readdir(join(this.root, 'aside'))).filter((name) => HEX64.test(name));
  }
}
