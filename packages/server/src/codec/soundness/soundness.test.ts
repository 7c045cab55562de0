// Damaged data that decoders let pass: found by walking through it. Sound files, of any kind, bring no complaint.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { DEMO } from '../../testing/server.ts';
import { takenInto } from '../../testing/taken.ts';
import { gifComplaint } from './gif.ts';
import { jpegComplaint, progressiveScans } from './jpeg.ts';
import { pngComplaint } from './png.ts';
import { webpComplaint } from './webp.ts';

let folder: string;
let photo: Sharp;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-sound-'));
  photo = sharp(await sharp(join(DEMO, 'photos/GM_0418.JPG')).resize(480).png().toBuffer());
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Where the entropy-coded data of the first scan begins. */
const scanOf = (file: Buffer) => {
  const at = file.indexOf(Buffer.from([0xff, 0xda]));
  return at + 2 + file.readUInt16BE(at + 2);
};

describe('a sequential JPEG', () => {
  test('of any sampling, with restarts, grey, in four colours, is sound', async () => {
    const kinds = [
      photo.clone().jpeg({ chromaSubsampling: '4:2:0' }),
      photo.clone().jpeg({ chromaSubsampling: '4:4:4', quality: 100 }),
      photo.clone().jpeg({ quality: 1 }),
      photo.clone().greyscale().jpeg(),
      photo.clone().toColourspace('cmyk').jpeg(),
      photo.clone().jpeg({ optimiseCoding: false }),
      photo.clone().resize(17, 9).jpeg(),
      photo.clone().jpeg({ mozjpeg: true, progressive: false }),
    ];
    for (const kind of kinds) expect(jpegComplaint(await kind.toBuffer())).toBeNull();
    for (const name of await readdir(join(DEMO, 'photos')))
      expect([name, jpegComplaint(await readFile(join(DEMO, 'photos', name)))]).toEqual([name, null]);
  });
  test('that ends early says how much is there', async () => {
    const file = await photo.clone().jpeg().toBuffer();
    const from = scanOf(file);
    for (const share of [0.2, 0.5, 0.9]) {
      const cut = file.subarray(0, Math.round(from + (file.length - from) * share));
      const complaint = jpegComplaint(cut)!;
      expect(complaint.sentence).toMatch(/ends early/);
      // Parts of a picture differ in their bytes.
      expect(Math.abs(complaint.share - share)).toBeLessThan(0.25);
    }
  });
  test('with a byte that was changed is found more often than the decoder alone finds it', async () => {
    const file = await photo.clone().jpeg({ quality: 85 }).toBuffer();
    const from = scanOf(file);
    let [silent, found] = [0, 0];
    for (let i = 0; i < 60; i++) {
      const changed = Buffer.from(file);
      const at = from + Math.round(((file.length - from - 60) * i) / 60);
      changed[at] = changed[at]! ^ 0x24;
      const passed = await sharp(changed, { failOn: 'warning' })
        .raw()
        .toBuffer()
        .then(
          () => true,
          () => false,
        );
      if (passed) silent += 1;
      if (passed && jpegComplaint(changed)) found += 1;
    }
    // What resynchronises with as many blocks as before can't be told from a sound file by anybody.
    expect(silent).toBeGreaterThan(10);
    expect(found / silent).toBeGreaterThan(0.25);
  });
  test('progressive ones are left to the decoder, their whole scans counted', async () => {
    const file = await photo.clone().jpeg({ progressive: true }).toBuffer();
    expect(jpegComplaint(file)).toBeNull();
    const all = progressiveScans(file);
    expect(all).toBeGreaterThan(3);
    expect(progressiveScans(file.subarray(0, file.length / 2))).toBeLessThan(all);
    expect(progressiveScans(await photo.clone().jpeg({ progressive: false }).toBuffer())).toBe(0);
  });
});

describe('a GIF', () => {
  test('still or moving is sound', async () => {
    expect(gifComplaint(await photo.clone().gif().toBuffer())).toBeNull();
    expect(gifComplaint(await readFile(join(DEMO, 'special/wheel.gif')))).toBeNull();
  });
  test('that was cut says after how many frames', async () => {
    const file = await readFile(join(DEMO, 'special/wheel.gif'));
    const complaint = gifComplaint(file.subarray(0, file.length / 2))!;
    expect(complaint.sentence).toMatch(/^it ends after \d+ whole frames$/);
    expect(complaint.share).toBe(1);
    expect(gifComplaint(file.subarray(0, 900))!.share).toBe(0);
  });
  test('whose data holds fewer pixels than its frame is found', async () => {
    const file = await photo.clone().gif().toBuffer();
    // The logical frame is made one row higher than what was coded.
    const at = file.indexOf(0x2c, 13 + 3 * 256);
    const taller = Buffer.from(file);
    taller.writeUInt16LE(taller.readUInt16LE(at + 7) + 1, at + 7);
    expect(gifComplaint(taller)!.sentence).toMatch(/garbled/);
  });
});

describe('a WebP', () => {
  test('still, lossless or moving is sound; chunks that don’t fit are found', async () => {
    const moving = await sharp(await readFile(join(DEMO, 'special/wheel.gif')), { animated: true })
      .resize(60)
      .webp()
      .toBuffer();
    const still = await photo.clone().webp().toBuffer();
    const described = await photo
      .clone()
      .webp({ lossless: true })
      .withMetadata({ orientation: 1 })
      .toBuffer();
    for (const file of [moving, still, described]) expect(await webpComplaint(file)).toBeNull();
    const frame = moving.indexOf('ANMF');
    const renamed = Buffer.from(moving);
    renamed.write('XXXX', frame + 24, 'latin1');
    const longer = Buffer.from(moving);
    longer.writeUInt32LE(longer.readUInt32LE(frame + 4) + 40, frame + 4);
    const unsaid = Buffer.from(moving);
    unsaid[20] = unsaid[20]! & ~2;
    for (const file of [renamed, longer, unsaid])
      expect((await webpComplaint(file))?.sentence).toMatch(/garbled/);
    expect((await webpComplaint(still.subarray(0, still.length - 9)))?.share).toBe(0);
  });
});

describe('a PNG', () => {
  test('that ends early says how many of its rows are there', async () => {
    const file = await photo.clone().png().toBuffer();
    expect((await pngComplaint(file))!.share).toBe(1);
    expect(await pngComplaint(file, true)).toBeNull();
    const { share } = (await pngComplaint(file.subarray(0, file.length * 0.5)))!;
    expect(share).toBeGreaterThan(0.3);
    expect(share).toBeLessThan(0.7);
  });
});

describe('taken in', () => {
  const damageOf = async (name: string, bytes: Buffer) =>
    takenInto(folder, name, bytes).then(
      ({ facts }) => facts.damage,
      (error: unknown) => `refused: ${(error as Error).message}`,
    );
  test('sound files have no mark', async () => {
    expect(await damageOf('sound.jpg', await photo.clone().jpeg().toBuffer())).toBeNull();
    expect(await damageOf('sound.png', await photo.clone().png().toBuffer())).toBeNull();
  });
  test('what is mostly there comes in with a mark that says what is missing', async () => {
    const jpeg = await photo.clone().jpeg().toBuffer();
    expect(await damageOf('cut.jpg', jpeg.subarray(0, jpeg.length - 80))).toMatch(
      /^May be damaged: its data ends early, about \d % of the picture is missing\. Look/,
    );
    const gif = await readFile(join(DEMO, 'special/wheel.gif'));
    expect(await damageOf('cut.gif', gif.subarray(0, gif.length - 5000))).toMatch(
      /^May be damaged: it ends after \d+ whole frames\./,
    );
    const png = await photo.clone().png().toBuffer();
    expect(await damageOf('cut.png', png.subarray(0, png.length - 2000))).toMatch(
      /^May be damaged: its data ends early or is garbled, about 3 % /,
    );
  });
  test.each(['jpeg', 'png', 'webp', 'avif', 'gif', 'tiff'] as const)(
    'half a %s is refused',
    async (format) => {
      const file = await photo.clone().toFormat(format).toBuffer();
      expect(await damageOf(`half.${format}`, file.subarray(0, file.length / 2))).toMatch(
        /^refused: The picture is damaged/,
      );
    },
  );
  test('pages of a TIFF that differ in size are no reason to refuse the first', async () => {
    const pages = await Promise.all([200, 100].map((width) => photo.clone().resize(width).tiff().toBuffer()));
    // Two files chained: the first one's next-directory offset leads to the second, whose own offsets are moved along.
    const [first, second] = pages.map((page) => Buffer.from(page));
    const joined = chained(first!, second!);
    await writeFile(join(folder, 'pages.tif'), joined);
    expect((await sharp(joined).metadata()).pages).toBe(2);
    const { facts } = await takenInto(folder, 'pages.tif', joined);
    expect(facts).toMatchObject({ width: 200, frames: 1, damage: null });
  });
});

/** Bytes of each TIFF field type (TIFF 6.0, section 2). */
const SIZES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
/** Fields whose values are offsets themselves. */
const OFFSETS = new Set([273, 324, 34665]);

function chained(first: Buffer, second: Buffer): Buffer {
  const base = first.length + (first.length % 2);
  const moved = Buffer.from(second);
  const directory = moved.readUInt32LE(4);
  const count = moved.readUInt16LE(directory);
  for (let i = 0; i < count; i++) {
    const at = directory + 2 + 12 * i;
    const [tag, type, values] = [
      moved.readUInt16LE(at),
      moved.readUInt16LE(at + 2),
      moved.readUInt32LE(at + 4),
    ];
    const outside = SIZES[type]! * values > 4;
    const from = outside ? moved.readUInt32LE(at + 8) : at + 8;
    if (OFFSETS.has(tag))
      for (let v = 0; v < values; v++)
        moved.writeUInt32LE(moved.readUInt32LE(from + 4 * v) + base, from + 4 * v);
    if (outside) moved.writeUInt32LE(from + base, at + 8);
  }
  const head = Buffer.concat([first, Buffer.alloc(first.length % 2)]);
  const own = head.readUInt32LE(4);
  head.writeUInt32LE(directory + base, own + 2 + 12 * head.readUInt16LE(own));
  return Buffer.concat([head, moved]);
}
