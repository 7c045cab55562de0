import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { parseSizes } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { slotProblem } from '../places/problem.ts';
import { SHIPPED_SLOTS } from '../slots/shipped.ts';
import type { MeasuredPage, MeasuredPicture } from './measured.ts';
import { proposalsFor, shapeOf } from './proposals.ts';

const WINDOWS = [320, 390, 500, 600, 699, 700, 751, 752, 820, 1000, 1231, 1232, 1280, 1600, 1920, 2560];
const ON = '2026-11-26T05:00:00.000Z';

/** A picture whose width follows a rule and whose height a ratio; rows of them stand beside each other. */
function picture(
  css: string,
  ratio: (window: number) => number,
  change: Partial<MeasuredPicture> = {},
  x = 0,
  y = 900,
): MeasuredPicture {
  const rule = parseSizes(css);
  return {
    name: 'a.jpg',
    drawing: false,
    missing: false,
    natural: 1.5,
    fit: 'cover',
    floats: false,
    samples: WINDOWS.map((viewport) => {
      const width = widthAt(rule, viewport);
      return { viewport, width, height: width / ratio(viewport), box: width, x: x * width, y };
    }),
    ...change,
  };
}

const page = (...pictures: MeasuredPicture[]): MeasuredPage => ({
  page: 'shop.html',
  windows: WINDOWS,
  pictures,
});
const proposals = (...pictures: MeasuredPicture[]) => proposalsFor(page(...pictures), [], ON);

describe('shapes', () => {
  test.each([
    [
      [
        [300, 200],
        [720, 480],
      ],
      '3:2',
    ],
    [[[300, 300.4]], '1:1'],
    [
      [
        [1280, 427],
        [1920, 640],
      ],
      '3:1',
    ],
    [[[350, 490]], '5:7'],
    [[[348, 435]], '4:5'],
    [[[717, 311]], '23:10'],
    [
      [
        [300, 200],
        [300, 300],
      ],
      null,
    ],
  ] as const)('%j is %s', (sizes, shape) => {
    expect(shapeOf(sizes.map(([width, height]) => ({ width, height })))).toBe(shape);
  });
});

describe('proposed places', () => {
  test('a hero whose shape changes with the window', () => {
    const [hero] = proposals(picture('100vw', (window) => (window < 700 ? 4 / 5 : 3), {}, 0, 60));
    expect(hero!.slot).toMatchObject({
      name: 'Full width',
      said: 'as wide as the window',
      loading: 'first',
      shapes: [
        { shape: '3:1', from: 700, to: null },
        { shape: '4:5', from: 0, to: 700 },
      ],
      measured: { page: 'shop.html', on: ON, windows: WINDOWS.length },
    });
    expect([hero!.worst, hero!.stretched, hero!.same]).toEqual([0, [], null]);
    expect(slotProblem(hero!.slot)).toBeNull();
  });

  test('alike ones are one, in words where words say it exactly', () => {
    const css = '(min-width: 700px) calc((min(100vw - 32px, 1200px) - 48px) / 4), calc((100vw - 48px) / 2)';
    const four = [0, 1, 2, 3].map((n) => {
      const shown = picture(css, () => 1);
      const gap = 16;
      return {
        ...shown,
        samples: shown.samples.map((sample) => ({
          ...sample,
          x: n * (sample.width + gap),
          // Two in a row on phones.
          y: sample.viewport < 700 ? 100 + Math.floor(n / 2) : 100,
        })),
      };
    });
    const [shelf, ...others] = proposals(...four);
    expect(others).toEqual([]);
    expect(shelf!.pictures).toEqual([0, 1, 2, 3]);
    expect(shelf!.slot).toMatchObject({
      name: 'Four across',
      said: '4 across with 16 px between in 1200 px, 2 below 700 px',
      shapes: [{ shape: '1:1' }],
    });
    expect(slotProblem(shelf!.slot)).toBeNull();
  });

  test('what the site has already is named', () => {
    const column = SHIPPED_SLOTS.find(({ id }) => id === 'column')!;
    const shown = picture('min(100vw - 32px, 720px)', () => 1.5);
    const [found] = proposalsFor(page(shown), SHIPPED_SLOTS, ON);
    expect(found!.same).toBe(column);
    expect(found!.slot.said).toBe('720 px column');
    // Of another shape it is another place, under a name of its own.
    const [other] = proposalsFor(page(picture('min(100vw - 32px, 720px)', () => 1)), SHIPPED_SLOTS, ON);
    expect(other!.same).toBeNull();
    expect(SHIPPED_SLOTS.map(({ id }) => id)).not.toContain(other!.slot.id);
  });

  test('border and padding are told from the picture', () => {
    const plain = picture('300px', () => 1.5);
    const edged = { ...plain, samples: plain.samples.map((one) => ({ ...one, box: one.width + 12 })) };
    const [one] = proposalsFor(page(edged), [], ON);
    expect([one!.edge, one!.slot.rule]).toEqual([12, [{ from: 0, vw: 0, px: 300 }]]);
    expect(proposalsFor(page(plain), [], ON)[0]!.edge).toBe(0);
  });
  test('stretched pictures are told from cut ones', () => {
    const [one] = proposals(
      picture('300px', () => 1, { fit: 'fill', natural: 1.5 }),
      picture('300px', () => 1, { fit: 'cover', natural: 1.5 }),
      picture('300px', () => 1, { fit: 'fill', natural: 1.005 }),
      picture('300px', () => 1, { fit: 'fill', natural: null }),
    );
    expect([one!.pictures, one!.stretched]).toEqual([[0, 1, 2, 3], [0]]);
  });

  test('photos of several ratios that are shown whole are of their own shape', () => {
    const [one, ...others] = proposals(
      picture('50vw', () => 1.5, { natural: 1.5 }),
      picture('50vw', () => 0.8, { natural: 0.8 }),
    );
    expect(others).toEqual([]);
    expect(one!.slot.shapes).toEqual([{ shape: 'own', from: 0, to: null }]);
  });

  test('a height that does not follow the width is said', () => {
    const fixed = picture('100vw', (window) => window / 320);
    const [one] = proposals(fixed);
    expect([one!.loose, one!.slot.shapes.length]).toEqual([true, 1]);
    expect(slotProblem(one!.slot)).toBeNull();
  });

  test('widths that follow no rule get the closest that can be written, and its error is said', () => {
    const luck = chance(4);
    const shown = picture('300px', () => 1.5);
    const wild = { ...shown, samples: shown.samples.map((s) => ({ ...s, width: 300 + luck.whole(0, 40) })) };
    const many = Array.from({ length: 200 }, (_, n) => ({
      ...wild.samples[0]!,
      viewport: 320 + n * 11,
      width: 300 + luck.whole(0, 60),
    }));
    const [one] = proposals({ ...wild, samples: many });
    expect(slotProblem(one!.slot)).toBeNull();
    expect(one!.worst).toBeGreaterThan(4);
    expect(one!.worst).toBeLessThan(65);
  });

  test('drawings stay apart, what is never shown is nothing', () => {
    const list = proposals(
      picture('120px', () => 2, { drawing: true, natural: 2 }),
      picture('120px', () => 2, { natural: 2 }),
      picture('120px', () => 2, { samples: [] }),
    );
    expect(list.map(({ drawings, pictures }) => [drawings, pictures])).toEqual([
      [true, [0]],
      [false, [1]],
    ]);
    expect(proposals()).toEqual([]);
  });

  test('names are told apart, and say where it stands', () => {
    const list = proposals(
      picture('348px', () => 0.8, { floats: true }),
      picture('200px', () => 1.5),
      picture('200px', () => 1),
      picture('100px', () => 1),
    );
    expect(list.map(({ slot }) => slot.name)).toEqual([
      'Beside the text',
      '200 px wide',
      '200 px wide 2',
      'Small picture',
    ]);
    expect(new Set(list.map(({ slot }) => slot.id)).size).toBe(4);
  });

  test('widths that were rounded by the browser are within half a pixel of their rule', () => {
    const shown = picture('calc(33.3333vw - 16px)', () => 1.5);
    const rough = {
      ...shown,
      samples: shown.samples.map((s) => ({ ...s, width: Math.round(s.width * 64) / 64 })),
    };
    expect(proposals(rough)[0]!.worst).toBeLessThan(0.51);
  });
});
