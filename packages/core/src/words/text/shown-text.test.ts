// Words in pictures: which are believed, where they stand, and whether texts carry them.
import { describe, expect, test } from '@jest/globals';
import { checkWords } from '../checks.ts';
import { NO_WORDS } from '../no-words.ts';
import { isCarried, isPlain, slopeOf, shownLines, turnedBack, type ReadWord } from './shown-text.ts';

const BOX = { left: 0.1, top: 0.1, right: 0.2, bottom: 0.2 };
const word = (text: string, confidence: number, line = 0, box = BOX): ReadWord => ({
  text,
  confidence,
  line,
  box,
});
const reading = (...words: ReadWord[]) => ({ angle: 0, words, slope: null });

describe('what is believed', () => {
  test('sure words, and less sure ones beside them on their line', () => {
    const right = { left: 0.3, top: 0.05, right: 0.5, bottom: 0.15 };
    const lines = shownLines([
      reading(
        word('Firing', 96),
        word('no.', 65, 0, right),
        word('x', 20),
        word('Al', 88, 1),
        word('VA', 60, 3),
        word('~~', 99, 2),
      ),
    ]);
    expect(lines).toEqual([{ text: 'Firing no.', box: { left: 0.1, top: 0.05, right: 0.5, bottom: 0.2 } }]);
  });
  test.each(['Van', 'DAy', 'oPeN', '|||||', 'aB3x'])('%s is no word of a sign, however sure', (text) =>
    expect(shownLines([reading(word(text, 99))])).toEqual([]),
  );
  test.each(['OPEN', 'Today', 'guide,', '1260', 'half-moon', 'größer'])('%s is one', (text) =>
    expect(shownLines([reading(word(text, 90))])).toHaveLength(1),
  );
  test('the angle at which most was found is the one', () => {
    const lines = shownLines([
      reading(word('OPEN', 88)),
      { angle: -9, words: [word('OPEN', 96), word('TODAY', 95)], slope: null },
    ]);
    expect(lines[0]!.text).toBe('OPEN TODAY');
    expect(isPlain(reading(word('OPEN', 96)))).toBe(false);
    expect(isPlain(reading(word('Firing', 96), word('guide', 96), word('steps', 96)))).toBe(true);
    expect(shownLines([])).toEqual([]);
  });
});

test('a box of a turned picture lies where it was before', () => {
  const lying = { width: 200, height: 100 };
  // Turned by a quarter clockwise the left upper corner is the right upper one.
  const turned = { width: 100, height: 200 };
  const box = turnedBack({ left: 0.9, top: 0, right: 1, bottom: 0.1 }, turned, lying, 90);
  expect(box.left).toBeCloseTo(0);
  expect(box.top).toBeCloseTo(0);
  expect(box.right).toBeCloseTo(0.1);
  expect(box.bottom).toBeCloseTo(0.1);
  expect(turnedBack(BOX, lying, lying, 0).left).toBeCloseTo(BOX.left);
});

describe('whether words are carried', () => {
  const lines = (...texts: string[]) => texts.map((text) => ({ text, box: BOX }));
  test.each([
    [['OPEN TODAY'], ['A sign: “Open today”.'], true],
    [['OPEN TODAY'], ['A wooden sign on a door.'], false],
    [['GULLMOOR'], ['', 'Gulmoor, in brown'], true],
    [['Opex'], ['open'], false],
    [['a b'], [''], true],
    [[], [''], true],
    [['Bisque 980', 'Stoneware 1260', 'Raku 1000'], ['Bisque at 980, stoneware at 1260'], true],
    [['Bisque 980', 'Stoneware 1260', 'Raku 1000'], ['Eight temperatures'], false],
  ])('%j by %j: %s', (shown, texts, carried) => expect(isCarried(lines(...shown), texts)).toBe(carried));

  const found = (change: Partial<typeof NO_WORDS>, ...shown: string[]) =>
    checkWords({ ...NO_WORDS, role: 'informative', alt: 'A wooden sign on a door.', ...change }, 'x.jpg', {
      shown: lines(...shown),
    }).find(({ code }) => code === 'text-not-carried');
  test('the mend carries them: short ones in the alt text, long ones in the long description', () => {
    expect(found({}, 'OPEN TODAY')!.mend).toEqual({ alt: 'A wooden sign on a door: “OPEN TODAY”' });
    const many = Array.from({ length: 12 }, (_, n) => `Step ${n} of the firing`);
    const { mend } = found({ longDescription: 'A chart.' }, ...many)!;
    expect(mend!.longDescription!.split('\n\n')).toEqual(['A chart.', ...many]);
    expect(found({ ...mend }, ...many)).toBeUndefined();
  });
  test('decorative or not yet described, the words are missed', () => {
    expect(found({ role: 'decorative', alt: '' }, 'OPEN TODAY')).toBeDefined();
    expect(found({ role: null, alt: '' }, 'OPEN TODAY')).toBeDefined();
    expect(found({ caption: 'Open today' }, 'OPEN TODAY')).toBeUndefined();
  });
});

describe('how far lines lie from level', () => {
  const line = (degrees: number, length = 100) => {
    const angle = (degrees * Math.PI) / 180;
    return { from: { x: 5, y: 9 }, to: { x: 5 + length * Math.cos(angle), y: 9 + length * Math.sin(angle) } };
  };
  test('is told by the middle one, each as often as it is long', () => {
    expect(slopeOf([line(2)])).toBeCloseTo(2);
    expect(slopeOf([line(-5, 10), line(2, 300), line(4, 20)])).toBeCloseTo(2);
  });
  test('is not told by what was not read along its letters, nor by nothing', () => {
    expect(slopeOf([line(60), line(0, 0)])).toBeNull();
    expect(slopeOf([])).toBeNull();
  });
});
