// Tells what a file is by its first bytes, whatever its name says.
import type { InputFormat } from '@dusky-otter/core/contract';
import { RefusedError } from '../problems.ts';

const ascii = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, to));

/** What may stand before a drawing: instructions, comments, a document type. Each with where it ends. */
const PROLOGUE: readonly [begin: string, end: string][] = [
  ['<?', '?>'],
  ['<!--', '-->'],
];

/** True where a text begins as an SVG drawing does, whatever stands before its first element. */
function isDrawing(text: string): boolean {
  let at = 0;
  let declared = false;
  for (;;) {
    while (/\s/.test(text[at] ?? '')) at++;
    const part = PROLOGUE.find(([begin]) => text.startsWith(begin, at));
    if (part) {
      const end = text.indexOf(part[1], at + part[0].length);
      if (end < 0) return false;
      at = end + part[1].length;
    } else if (!declared && text.slice(at, at + 9).toLowerCase() === '<!doctype') {
      declared = true;
      // An internal subset has brackets of its own.
      const close = text.indexOf('>', at);
      const open = text.indexOf('[', at);
      const end = open >= 0 && open < close ? text.indexOf(']', open) : at;
      const after = end < 0 ? -1 : text.indexOf('>', end);
      if (after < 0) return false;
      at = after + 1;
    } else return /^<svg[\s/>]/i.test(text.slice(at, at + 5));
  }
}

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
    if (/^(heic|heix|hevc|hevx|heim|heis)$/.test(brand)) return 'heic';
    // Containers for any coding; the compatible brands tell.
    if (brand === 'mif1' || brand === 'msf1') return ascii(head, 16, 64).includes('avif') ? 'avif' : 'heic';
  }
  if (isDrawing(new TextDecoder().decode(head).replace(/^\uFEFF/, ''))) return 'svg';
  const start = ascii(head, 0, 4);
  if (start.startsWith('BM') || start === '8BPS' || start === '\0\0\x01\0') {
    throw new RefusedError('unsupported-format');
  }
  throw new RefusedError('not-a-picture');
}
