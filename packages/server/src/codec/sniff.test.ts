// What a file is, by its bytes.
import { describe, expect, test } from '@jest/globals';
import { RefusedError } from '../problems.ts';
import { sniff } from './sniff.ts';

const bytes = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
const codeOf = (head: Uint8Array): string => {
  try {
    return sniff(head);
  } catch (error) {
    if (error instanceof RefusedError) return error.code;
    throw error;
  }
};

describe('sniffing', () => {
  test.each([
    ['\xff\xd8\xff\xe0', 'jpeg'],
    ['\x89PNG\r\n\x1a\n....', 'png'],
    ['GIF89a....', 'gif'],
    ['RIFF....WEBPVP8 ', 'webp'],
    ['II*\0....', 'tiff'],
    ['MM\0*....', 'tiff'],
    ['\0\0\0\x1cftypavif....', 'avif'],
    ['\0\0\0\x1cftypmif1....miafavif', 'avif'],
    ['<svg xmlns="x">', 'svg'],
    ['\ufeff'.normalize() && '<?xml version="1.0"?>\n<!-- a --> <svg>', 'svg'],
    ['\0\0\0\x1cftypheic....', 'heic'],
    ['\0\0\0\x1cftypmif1....heic', 'heic'],
    ['BM......', 'unsupported-format'],
    ['8BPS....', 'unsupported-format'],
    ['<html><svg>', 'not-a-picture'],
    ['Dear diary,', 'not-a-picture'],
    ['', 'empty'],
  ])('%j is %s', (head, kind) => expect(codeOf(bytes(head))).toBe(kind));
});
