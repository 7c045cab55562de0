// Drawings that go out as drawings: the file that is written, judged by drawing it, beside the bitmap of the same frame.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Rect, Turning } from '@dusky-otter/core/contract';
import { frameSpace, NO_TURNING } from '@dusky-otter/core/geometry';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { DEMO } from '../testing/server.ts';
import { takenInto, type TakenFile } from '../testing/taken.ts';
import { drawingFile } from './drawing.ts';
import { fromRaw } from './raw.ts';
import { decodeCrop } from './source.ts';

let folder: string;
let logo: TakenFile;
let count = 0;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-drawing-'));
  logo = await takenInto(folder, 'logo', await readFile(join(DEMO, 'special/logo-gullmoor.svg')));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const svg = (inner: string, root = 'width="40" height="20"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}>${inner}</svg>`;
const taken = (text: string) => takenInto(folder, `drawing-${++count}`, Buffer.from(text));

describe('what is known of a drawing', () => {
  test('a logo may go out as one: it is sound and far smaller than its bitmap', () => {
    const { bytes, bitmap, unsafe } = logo.facts.drawing!;
    expect(unsafe).toBeNull();
    expect(bytes).toBeGreaterThan(1000);
    expect(bytes).toBeLessThan(bitmap);
  });
  test.each([
    ['words', '<text x="1" y="9">Gullmoor</text>', /another font/],
    [
      'words on a path',
      '<path id="p" d="M0 9H40"/><text><textPath href="#p">x</textPath></text>',
      /another font/,
    ],
    ['a picture that lies elsewhere', '<image href="kiln.png" width="9" height="9"/>', /missing/],
  ])('with %s it goes out as bitmaps', async (_, inner, why) => {
    const { facts } = await taken(svg(`<rect width="40" height="20" fill="#d04020"/>${inner}`));
    expect(facts.drawing!.unsafe).toMatch(why);
  });
  test('a long one weighs more than its bitmap', async () => {
    const dots = Array.from({ length: 3000 }, (_, n) => `<circle cx="${n % 40}" cy="${n % 20}" r=".1"/>`);
    const { bytes, bitmap, unsafe } = (await taken(svg(dots.join('')))).facts.drawing!;
    expect(unsafe).toBeNull();
    expect(bytes).toBeGreaterThan(bitmap);
  });
  test('photos have no such facts', async () => {
    const { facts } = await takenInto(folder, 'tiny', await readFile(join(DEMO, 'special/tiny.jpg')));
    expect(facts).not.toHaveProperty('drawing');
  });
});

/** Mean difference of a channel, 0 to 255, between the drawing's file and the bitmap of the same crop. */
async function differenceOf(frame: { turning: Turning; crop: Rect }, file = logo): Promise<number> {
  const width = 320;
  const height = Math.round((width * frame.crop.height) / frame.crop.width);
  const made = await drawingFile(file.path, file.facts, frame, { width, height });
  const meta = await sharp(made).metadata();
  expect([meta.width, meta.height]).toEqual([width, height]);
  const seen = (picture: Sharp) =>
    picture.flatten({ background: '#fff' }).resize(width, height, { fit: 'fill' }).raw().toBuffer();
  const [a, b] = await Promise.all([
    seen(sharp(made)),
    seen(fromRaw(await decodeCrop(file.path, file.facts, frame.crop, frame))),
  ]);
  expect(a.length).toBe(b.length);
  return a.reduce((sum, value, n) => sum + Math.abs(value - b[n]!), 0) / a.length;
}

describe('the file of a drawing shows what the bitmap of its frame shows', () => {
  test('the whole of it', async () => {
    const crop = { x: 0, y: 0, ...frameSpace(logo.facts, NO_TURNING) };
    expect(await differenceOf({ turning: NO_TURNING, crop })).toBeLessThan(1.5);
  });
  test.each([
    [{ mirrored: true }],
    [{ turns: 1 }],
    [{ turns: 3, mirrored: true }],
    [{ angle: 7.5 }],
    [{ turns: 2, angle: -4, mirrored: true }],
  ] as const)('turned: %j', async (change) => {
    const turning: Turning = { ...NO_TURNING, ...change };
    const { width, height } = frameSpace(logo.facts, turning);
    // Off the middle: a wrong turn or a wrong centre shows.
    const crop = {
      x: Math.round(width * 0.2),
      y: Math.round(height * 0.15),
      width: Math.round(width * 0.5),
      height: Math.round(height * 0.4),
    };
    expect(await differenceOf({ turning, crop })).toBeLessThan(2.5);
    // The measure would tell: another part of the drawing is far off.
    const elsewhere = { ...crop, x: crop.x + 300, y: crop.y + 200 };
    const [there, here] = await Promise.all(
      [elsewhere, crop].map(async (part) =>
        sharp(await drawingFile(logo.path, logo.facts, { turning, crop: part }, { width: 320, height: 240 }))
          .flatten({ background: '#fff' })
          .raw()
          .toBuffer(),
      ),
    );
    expect(
      there!.reduce((sum, value, n) => sum + Math.abs(value - here![n]!), 0) / there!.length,
    ).toBeGreaterThan(5);
  });
  test('also where its size hangs on a viewBox or a style sheet colours it', async () => {
    const inner =
      '<style>.a{fill:#24464f}</style><rect class="a" x="2" y="2" width="14" height="9"/>' +
      '<use xlink:href="#c" x="20"/><circle id="c" cx="9" cy="12" r="5" fill="#b5673b"/>';
    for (const root of [
      'width="40" height="20"',
      'viewBox="0 0 40 20"',
      'viewBox="-5 -5 50 25" width="100%"',
    ]) {
      const file = await taken(svg(inner, root));
      const { width, height } = file.facts;
      const crop = { x: Math.round(width / 4), y: 0, width: Math.round(width / 2), height };
      expect(await differenceOf({ turning: NO_TURNING, crop }, file)).toBeLessThan(2.5);
    }
  });
});

test('nothing that acts or fetches is in the file that goes out', async () => {
  const evil = svg(
    '<script>alert(1)</script><rect width="9" height="9" onload="alert(1)" style="fill:url(http://127.0.0.1/a)"/>' +
      '<style>@import url(http://127.0.0.1/b); rect{fill:#123456}</style>' +
      '<a href="javascript:alert(1)"><rect width="3" height="3"/></a>' +
      '<foreignObject><iframe src="http://127.0.0.1"/></foreignObject>' +
      '<animate attributeName="href" values="javascript:alert(1)"/>',
  );
  const { path, facts } = await taken(evil);
  for (const crop of [
    { x: 0, y: 0, width: facts.width, height: facts.height },
    { x: 100, y: 100, width: 900, height: 450 },
  ]) {
    const file = await drawingFile(path, facts, { turning: NO_TURNING, crop }, { width: 90, height: 45 });
    expect(file.toString()).not.toMatch(/script|onload|127\.|import|foreign|iframe|animate|javascript/i);
    expect(file.toString()).toContain('#123456');
  }
});
