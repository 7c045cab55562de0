// Searched files judged by decoding them, with the core's own measure applied from outside; palettes that are exact.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EncoderSettings, OutputFormat } from '@dusky-otter/core/contract';
import { visibleDifference, type Pixels } from '@dusky-otter/core/difference';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import { MOST_ENCODES, treatmentOf } from '@dusky-otter/core/weight';
import sharp from 'sharp';
import { DEMO } from '../testing/server.ts';
import { takenInto, type TakenFile } from '../testing/taken.ts';
import type { MadeVariant, RenderOutput } from './protocol.ts';
import { render } from './render.ts';
import { decodeCrop } from './source.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-search-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const taken = (bytes: Buffer, name: string): Promise<TakenFile> => takenInto(folder, name, bytes);

const SIZE = { width: 360, height: 240 };

const outputOf = (source: TakenFile, format: OutputFormat, settings: EncoderSettings): RenderOutput => {
  const key = createHash('sha256')
    .update(JSON.stringify([source.facts.hash, format, settings]))
    .digest('hex');
  return { key, path: join(folder, `${key}.${format}`), ...SIZE, format, settings };
};

const crop = { x: 0, y: 0, width: 3000, height: 2000 };

async function rendered(source: TakenFile, outputs: RenderOutput[]): Promise<MadeVariant[]> {
  const made: MadeVariant[] = [];
  const job = {
    kind: 'render' as const,
    ...source,
    incoming: folder,
    turning: NO_TURNING,
    still: false,
    crop,
    outputs,
  };
  await render(job, {
    making: () => undefined,
    made: (variant) => made.push(variant),
    shouldStop: () => false,
  });
  return made;
}

/** As browsers draw it: a file of 10 bits is rounded to 8. */
async function pixelsOf(file: Buffer | string): Promise<Pixels> {
  const { depth } = await sharp(file).metadata();
  const picture = sharp(file).removeAlpha();
  const deep = depth === 'ushort' ? picture.toColourspace('rgb16').raw({ depth: 'ushort' }) : picture.raw();
  const { data, info } = await deep.toBuffer({ resolveWithObject: true });
  const codes = depth === 'ushort' ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data;
  const most = depth === 'ushort' ? 65_535 : 255;
  const rounded = Uint8Array.from(codes, (code) => Math.round((code * 255) / most));
  return { data: rounded, width: info.width, height: info.height, channels: info.channels };
}

describe('a searched quality', () => {
  const photo = (name: string) => readFile(join(DEMO, 'photos', name));
  test.each([
    ['jpeg', 1],
    ['jpeg', 2],
    ['webp', 1],
    ['avif', 1],
    ['avif', 2],
  ] as const)(
    '%s at density %d meets its target, measured from outside, and not by far',
    async (format, density) => {
      const source = await taken(await photo('DSC00203.JPG'), 'photo.jpg');
      const whole = await decodeCrop(source.path, source.facts, crop);
      const scaled = await sharp(whole.data, { raw: whole })
        .resize(SIZE.width, SIZE.height, { fit: 'fill' })
        .raw()
        .toBuffer();
      const reference = { data: scaled, ...SIZE, channels: whole.channels };
      for (const target of [1.3, 2, 3]) {
        const output = outputOf(source, format, { target, density, ...(format !== 'jpeg' && { effort: 1 }) });
        const [made] = await rendered(source, [output]);
        const file = await readFile(output.path);
        const measured = visibleDifference(reference, await pixelsOf(file), density);
        expect(made).toMatchObject({
          bytes: file.length,
          difference: expect.closeTo(measured, 3),
          quality: expect.any(Number),
        });
        expect(measured).toBeLessThanOrEqual(target + 5e-4);
        expect(measured).toBeGreaterThan(0.6 * target);
        expect(made!.encodes).toBeLessThanOrEqual(MOST_ENCODES);
      }
    },
  );
  test('a lower target never makes a larger file', async () => {
    const source = await taken(await photo('GM_0412.JPG'), 'shelf.jpg');
    const targets = [1.3, 2, 3];
    const made = await rendered(
      source,
      targets.map((target) => outputOf(source, 'jpeg', { target, density: 1 })),
    );
    const bytes = made.map((m) => m.bytes);
    expect([...bytes].sort((a, b) => b - a)).toEqual(bytes);
  });
  test('is found again to the byte, alone or among others: an interrupted batch ends like a whole one', async () => {
    const source = await taken(await photo('GM_0440.JPG'), 'board.jpg');
    const outputs = (['avif', 'jpeg'] as const).map((format) =>
      outputOf(source, format, { target: 2, density: 1.5 }),
    );
    const together = await rendered(source, outputs);
    const alone = [...(await rendered(source, [outputs[1]!])), ...(await rendered(source, [outputs[0]!]))];
    expect(alone.sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(
      together.sort((a, b) => (a.key < b.key ? -1 : 1)),
    );
  });
  test('a saturated edge: the JPEG keeps colour at full size when that is what it takes', async () => {
    const stripes = Buffer.alloc(3000 * 2000 * 3);
    for (let i = 0; i < 3000 * 2000; i++) {
      const [x, y] = [i % 3000, Math.floor(i / 3000)];
      const red = (Math.floor(x / 24) + Math.floor(y / 60)) % 2 === 0;
      stripes.set(red ? [210, 20, 30] : [20, 60, 170], i * 3);
    }
    const png = await sharp(stripes, { raw: { width: 3000, height: 2000, channels: 3 } })
      .png()
      .toBuffer();
    const source = await taken(png, 'stripes.png');
    const output = outputOf(source, 'jpeg', { target: 2, density: 1, progressive: true });
    const [made] = await rendered(source, [output]);
    const { chromaSubsampling, isProgressive } = await sharp(output.path).metadata();
    expect({ chromaSubsampling, isProgressive, met: made!.difference! <= 2 }).toEqual({
      chromaSubsampling: '4:4:4',
      isProgressive: true,
      met: true,
    });
  });
});

describe('without loss', () => {
  const board = async (colours: number): Promise<Buffer> => {
    const data = Buffer.alloc(SIZE.width * SIZE.height * 3);
    for (let i = 0; i < SIZE.width * SIZE.height; i++) {
      const tile = (Math.floor((i % SIZE.width) / 20) + 18 * Math.floor(i / SIZE.width / 20)) % colours;
      data.set([(tile * 37) % 256, (tile * 91) % 256, tile % 256], i * 3);
    }
    return sharp(data, { raw: { ...SIZE, channels: 3 } })
      .png()
      .toBuffer();
  };
  const whole = { x: 0, y: 0, ...SIZE };
  test.each([200, 16])(
    'a board of %d colours becomes a palette PNG with exactly its pixels',
    async (colours) => {
      const bytes = await board(colours);
      const source = await taken(bytes, `board-${colours}.png`);
      expect(treatmentOf(source.facts)).toMatchObject({ kind: 'flat-graphic', lossless: true });
      const outputs = [
        outputOf(source, 'png', { lossless: true, effort: 7, palette: true }),
        outputOf(source, 'webp', { lossless: true, effort: 4 }),
      ];
      const made: MadeVariant[] = [];
      const job = {
        kind: 'render' as const,
        ...source,
        incoming: folder,
        turning: NO_TURNING,
        still: false,
        crop: whole,
        outputs,
      };
      await render(job, {
        making: () => undefined,
        made: (variant) => made.push(variant),
        shouldStop: () => false,
      });
      expect(made.map(({ difference, quality }) => [difference, quality])).toEqual([
        [0, null],
        [0, null],
      ]);
      for (const { path } of outputs) {
        expect(
          Buffer.compare(Buffer.from((await pixelsOf(path)).data), Buffer.from((await pixelsOf(bytes)).data)),
        ).toBe(0);
      }
      expect((await sharp(outputs[0]!.path).metadata()).isPalette).toBe(true);
    },
  );
  test('the demo’s graphics and photographs are told apart', async () => {
    const kinds = await Promise.all(
      [
        'special/firing-guide.png',
        'special/logo-gullmoor.png',
        'special/photo-as-png.png',
        'photos/GM_0412.JPG',
        'special/wheel.gif',
        'special/scan-16bit.tif',
      ].map(async (file, i) => {
        const { facts } = await taken(await readFile(join(DEMO, file)), `kind-${i}`);
        return [file, treatmentOf(facts).kind];
      }),
    );
    expect(Object.fromEntries(kinds)).toEqual({
      'special/firing-guide.png': 'flat-graphic',
      'special/logo-gullmoor.png': 'transparent-graphic',
      'special/photo-as-png.png': 'photograph',
      'photos/GM_0412.JPG': 'photograph',
      'special/wheel.gif': 'animation',
      'special/scan-16bit.tif': 'photograph',
    });
  });
});
