// Tells what a file is by its first bytes, whatever its name says.
import type { InputFormat } from '@dusky-otter/core';
import { RefusedError } from '../problems.ts';

const ascii = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, to));

/**
 * Reads the kind of picture from at least the first 512 bytes.
 * @throws RefusedError for what is no picture, or a kind that can't be read.
 */
export function sniff(head: Uint8Array): InputFormat {
  if (head.length === 0) throw new RefusedError('empty');
  if (head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff) return 'jpeg';
  if (ascii(head, 0, 8) === '\x89PNG\r\n\x1a\n') return 'png';
  if (/^GIF8[79]a/.test(ascii(head, 0, 6))) return 'gif';
  if (ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 12) === 'WEBP') return 'webp';
  if (ascii(head, 0, 4) === 'II*\0' || ascii(head, 0, 4) === 'MM\0*') return 'tiff';
  if (ascii(head, 4, 8) === 'ftyp') {
    const brand = ascii(head, 8, 12);
    if (brand === 'avif' || brand === 'avis') return 'avif';
    if (/^(heic|heix|hevc|hevx|heim|heis)$/.test(brand)) throw new RefusedError('unsupported-heic');
    // "mif1" is a container for either; the compatible brands tell.
    if (brand === 'mif1') {
      if (ascii(head, 16, 64).includes('avif')) return 'avif';
      throw new RefusedError('unsupported-heic');
    }
  }
  const text = new TextDecoder()
    .decode(head)
    .replace(/^\uFEFF/, '')
    .trimStart();
  const prologue = /^(?:<\?xml[^>]*\?>\s*|<!--[\s\S]*?-->\s*|<!DOCTYPE[^>]*(?:\[[\s\S]*?\])?>\s*)*<svg[\s>]/i;
  if (prologue.test(text)) return 'svg';
  const start = ascii(head, 0, 4);
  if (start.startsWith('BM') || start === '8BPS' || start === '\0\0\x01\0') {
    throw new RefusedError('unsupported-format');
  }
  throw new RefusedError('not-a-picture');
}
