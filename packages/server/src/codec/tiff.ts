// Raw pixels with a colour profile, as a file that every reader of pictures takes: uncompressed TIFF 6.0.
import type { RawPicture } from './raw.ts';

const SHORT = 3;
const LONG = 4;
const UNDEFINED = 7;

/** PhotometricInterpretation (TIFF 6.0, sections 6 and 16). */
const PHOTOMETRIC = { rgb: 2, inks: 5 };

/**
 * An uncompressed TIFF of one strip.
 * @param picture RGB, or RGB with unassociated alpha; or cyan, magenta, yellow and black
 * @param profile an ICC profile (tag 34675), or null for none
 * @param bits a channel; 16 in little-endian order
 */
export function uncompressedTiff(
  { data, width, height, channels }: RawPicture,
  profile: Buffer | null,
  colours: keyof typeof PHOTOMETRIC = 'rgb',
  bits: 8 | 16 = 8,
): Buffer {
  /** What is too long for an entry stands behind the directory, in this order. */
  const tags: [tag: number, type: number, count: number, value: number | Buffer][] = [
    [256, LONG, 1, width],
    [257, LONG, 1, height],
    // BitsPerSample, one for each channel.
    [258, SHORT, channels, Buffer.from(Uint16Array.from({ length: channels }, () => bits).buffer)],
    [259, SHORT, 1, 1],
    [262, SHORT, 1, PHOTOMETRIC[colours]],
    [273, LONG, 1, 0],
    [277, SHORT, 1, channels],
    [278, LONG, 1, height],
    [279, LONG, 1, data.length],
    [284, SHORT, 1, 1],
  ];
  if (channels === 4 && colours === 'rgb') tags.push([338, SHORT, 1, 2]);
  if (profile) tags.push([34675, UNDEFINED, profile.length, profile]);
  const HEAD = 8;
  let end = HEAD + 2 + 12 * tags.length + 4;
  const behind: Buffer[] = [];
  const directory = Buffer.alloc(end - HEAD);
  directory.writeUInt16LE(tags.length, 0);
  const strip =
    end + tags.reduce((sum, [, , , value]) => sum + (typeof value === 'number' ? 0 : even(value.length)), 0);
  tags.forEach(([tag, type, count, value], n) => {
    const at = 2 + 12 * n;
    directory.writeUInt16LE(tag, at);
    directory.writeUInt16LE(type, at + 2);
    directory.writeUInt32LE(count, at + 4);
    if (typeof value !== 'number') {
      directory.writeUInt32LE(end, at + 8);
      behind.push(value, Buffer.alloc(even(value.length) - value.length));
      end += even(value.length);
    } else if (tag === 273) directory.writeUInt32LE(strip, at + 8);
    // A SHORT stands at the left of its four bytes, which in little-endian order is the same.
    else directory.writeUInt32LE(value, at + 8);
  });
  const head = Buffer.from([0x49, 0x49, 42, 0, HEAD, 0, 0, 0]);
  return Buffer.concat([head, directory, ...behind, data]);
}

/** Values begin at even addresses (TIFF 6.0, section 2). */
const even = (length: number): number => length + (length & 1);
