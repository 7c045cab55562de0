// The vault: whole files or none, names that can't lead elsewhere.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { RefusedError } from '../problems.ts';
import { Vault, writeWhole } from './vault.ts';

/** Limits are a process's own: the built vault runs in one beside this. */
const BUILT = resolve(import.meta.dirname, '../../dist/vault/vault.js');

let vault: Vault;
beforeEach(async () => {
  vault = new Vault(await mkdtemp(join(tmpdir(), 'otter-vault-')));
  await vault.open();
});
afterEach(() => rm(vault.root, { recursive: true, force: true }));

describe('receiving', () => {
  test('hashes while streaming and keeps the bytes', async () => {
    const chunks = [Buffer.from('first '), Buffer.from('second')];
    const received = await vault.receive(Readable.from(chunks), 100);
    const hash = createHash('sha256').update('first second').digest('hex');
    expect(received).toMatchObject({ hash, bytes: 12 });
    await vault.keepOriginal(received.path, hash);
    expect(await readFile(vault.original(hash), 'utf8')).toBe('first second');
  });
  test('on a disk that fills up with the last piece nothing is kept, and the reason is said', () => {
    // A write beyond the largest size that a process may make takes a part of it and says so; the next one fails.
    const program = `
      import { Readable } from 'node:stream';
      import { readdirSync } from 'node:fs';
      const { Vault } = await import(${JSON.stringify(BUILT)});
      const vault = new Vault(${JSON.stringify(vault.root)});
      const said = await vault.receive(Readable.from([Buffer.alloc(60_000), Buffer.alloc(60_000)]), 1e6).then(
        ({ bytes }) => 'kept ' + bytes,
        ({ code }) => code,
      );
      console.log(said, readdirSync(vault.incoming).length);`;
    const { stdout } = spawnSync(
      'bash',
      [
        '-c',
        'trap "" XFSZ; ulimit -f 100; exec "$0" "$@"',
        process.execPath,
        '--input-type=module',
        '-e',
        program,
      ],
      { encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '' } },
    );
    expect(stdout.trim()).toBe('EFBIG 0');
  });
  test('past the limit nothing is kept and the reason names both sizes', async () => {
    const stream = Readable.from(Array.from({ length: 4 }, () => Buffer.alloc(1_000_000)));
    await expect(vault.receive(stream, 3_000_000)).rejects.toThrow(RefusedError);
    expect(await readdir(vault.incoming)).toEqual([]);
  });
  test('a stream that breaks leaves nothing', async () => {
    const broken = Readable.from(
      (async function* () {
        yield Buffer.from('x');
        throw new Error('gone');
      })(),
    );
    await expect(vault.receive(broken, 100)).rejects.toThrow('gone');
    expect(await readdir(vault.incoming)).toEqual([]);
  });
});

describe('names', () => {
  test.each(['../../etc/passwd', '', 'A'.repeat(64), '0'.repeat(63)])('%j is no vault name', (name) => {
    expect(() => vault.original(name)).toThrow(RangeError);
    expect(() => vault.variant(name, 'avif')).toThrow(RangeError);
    expect(() => vault.view(name, 'row')).toThrow(RangeError);
  });
});

test('a whole write appears under its name and leaves nothing in between', async () => {
  const path = vault.variant('a'.repeat(64), 'avif');
  await writeWhole(path, vault.incoming, Buffer.from('bytes'));
  expect(await readFile(path, 'utf8')).toBe('bytes');
  expect(await readdir(vault.incoming)).toEqual([]);
  expect([...(await vault.variantFiles())]).toEqual([['a'.repeat(64), path]]);
});
