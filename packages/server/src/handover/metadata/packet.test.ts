// Words put into files: an independent reader and our own find them, decoders see the same pixels, and nothing is out of
// order for either.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import type { OutputFormat, Words } from '@dusky-otter/core/contract';
import { NO_WORDS, wordsPacket } from '@dusky-otter/core/words';
import sharp from 'sharp';
import { findWords } from '../../codec/found-words.ts';
import { withPacket } from './packet.ts';

const folder = mkdtempSync(join(tmpdir(), 'otter-packet-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const WORDS: Words = {
  ...NO_WORDS,
  role: 'informative',
  alt: 'A “sea-green” jug & <two> cups, \'quoted\' and "twice".',
  caption: '=SUM(A1:A2) über Töpfe 🏺\nsecond line',
  title: 'كوب أخضر',
  credit: 'Ida Gullmoor',
  longDescription: 'One paragraph.\n\n| Cone | °C |\n| --- | --- |\n| 9 | 1280 |',
};

const noise = (alpha: boolean) =>
  sharp(
    Buffer.from(
      Array.from({ length: 61 * 43 * (alpha ? 4 : 3) }, (_, n) => (n * 7919 + (n >> 5) * 104729) % 251),
    ),
    { raw: { width: 61, height: 43, channels: alpha ? 4 : 3 } },
  );

const FILES: [string, OutputFormat, () => Promise<Buffer>][] = [
  ['JPEG', 'jpeg', () => noise(false).jpeg({ progressive: true }).toBuffer()],
  ['JPEG with a profile', 'jpeg', () => noise(false).withIccProfile('srgb').jpeg().toBuffer()],
  ['PNG', 'png', () => noise(true).png().toBuffer()],
  ['PNG with a palette', 'png', () => noise(false).png({ palette: true }).toBuffer()],
  ['WebP', 'webp', () => noise(false).webp().toBuffer()],
  ['WebP with alpha', 'webp', () => noise(true).webp().toBuffer()],
  ['WebP without loss', 'webp', () => noise(false).webp({ lossless: true }).toBuffer()],
  ['WebP without loss, with alpha', 'webp', () => noise(true).webp({ lossless: true }).toBuffer()],
  ['WebP in Display P3', 'webp', () => noise(false).withIccProfile('p3').webp().toBuffer()],
  ['AVIF in Display P3', 'avif', () => noise(false).withIccProfile('p3').avif().toBuffer()],
  ['AVIF', 'avif', () => noise(false).avif().toBuffer()],
  ['AVIF with alpha', 'avif', () => noise(true).avif().toBuffer()],
];

/** What ExifTool reads and complains of, as its JSON. */
function exiftool(file: Buffer, ending: string): Record<string, unknown> {
  const path = join(folder, `one.${ending}`);
  writeFileSync(path, file);
  const said = execFileSync('exiftool', [
    '-j',
    '-validate',
    '-warning',
    '-XMP:all',
    '-charset',
    'UTF8',
    path,
  ]);
  return (JSON.parse(said.toString()) as Record<string, unknown>[])[0]!;
}

const pixels = (file: Buffer) => sharp(file).ensureAlpha().raw().toBuffer();

describe.each(FILES)('a packet in a %s', (_name, format, make) => {
  test('holds the words for ExifTool and for us, and leaves the picture as it is', async () => {
    const plain = await make();
    const file = withPacket(plain, format, wordsPacket(WORDS, { metadata: 'words' }, 'en'));
    const read = exiftool(file, format);
    expect(read).toMatchObject({
      AltTextAccessibility: WORDS.alt,
      ExtDescrAccessibility: WORDS.longDescription,
      Description: WORDS.caption,
      Title: WORDS.title,
      Headline: WORDS.title,
      Credit: WORDS.credit,
      Creator: WORDS.credit,
      Rights: WORDS.credit,
      Validate: 'OK',
    });
    expect(read.Warning).toBeUndefined();
    const { alt, caption, title, credit, longDescription } = WORDS;
    const spoken = { alt, caption, title, longDescription };
    // Said to everybody, and in the language of the words.
    expect((await findWords(file)).found).toEqual({ ...spoken, credit, others: { en: spoken } });
    expect((await pixels(file)).equals(await pixels(plain))).toBe(true);
    const [after, before] = [await sharp(file).metadata(), await sharp(plain).metadata()];
    expect([after.hasAlpha, after.icc]).toEqual([before.hasAlpha, before.icc]);
  });
});

describe('a packet', () => {
  const jpeg = () => noise(false).jpeg().toBuffer();
  test('holds the credit alone where the policy lets no more out, and none where it lets nothing', async () => {
    const credit = wordsPacket(WORDS, { metadata: 'credit' }, 'en');
    const read = exiftool(withPacket(await jpeg(), 'jpeg', credit), 'jpeg');
    expect(read).toMatchObject({ Credit: WORDS.credit, Rights: WORDS.credit });
    expect(read.AltTextAccessibility ?? read.Description ?? read.Title ?? null).toBeNull();
    expect(wordsPacket(WORDS, {}, 'en')).toBe('');
    expect(wordsPacket(NO_WORDS, { metadata: 'words' }, 'en')).toBe('');
    const plain = await jpeg();
    expect(withPacket(plain, 'jpeg', '')).toBe(plain);
  });
  test('of a decorative photo has no alt text', () => {
    const packet = wordsPacket({ ...WORDS, role: 'decorative' }, { metadata: 'words' }, 'en');
    expect(packet).not.toContain('AltText');
    expect(packet).toContain('Ida Gullmoor');
  });
  test('of hostile and endless words is well-formed and fits', async () => {
    const alt = `\u0000\u0008]]><x:y/>${'&'.repeat(10_000)}\uD800`;
    const packet = wordsPacket(
      { ...WORDS, alt, caption: '🏺'.repeat(5000), longDescription: 'ü<'.repeat(5000) },
      { metadata: 'words' },
      'en"><x',
    );
    expect(Buffer.byteLength(packet)).toBeLessThan(65_502);
    const read = exiftool(withPacket(await jpeg(), 'jpeg', packet), 'jpeg');
    expect(read.Validate).toBe('OK');
    expect(String(read.AltTextAccessibility)).toMatch(/^\]\]><x:y\/>&{1000}/);
    expect(WORDS.title).toBe(read.Title);
  });
  test('refuses an AVIF whose boxes are not whole', async () => {
    const avif = await noise(false).avif().toBuffer();
    expect(() => withPacket(avif.subarray(0, 200), 'avif', 'x')).toThrow('boxes');
    expect(() => withPacket(Buffer.from('\0\0\0\x08free', 'latin1'), 'avif', 'x')).toThrow('lacks');
  });
});
