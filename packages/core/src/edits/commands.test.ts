// Commands and their inverses: doing and taking back is as if nothing had been done.
import { describe, expect, test } from '@jest/globals';
import type { PhotoSet } from '../contract/index.ts';
import { samplePhoto } from '../testing/sample.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import { applyToPhoto, applyToSet, CommandError, type PhotoCommand } from './commands.ts';

const photo = samplePhoto({ crops: { '1:1': { x: 5, y: 6, width: 700, height: 700 } } });

const commands: PhotoCommand[] = [
  { kind: 'focal', photo: 1, focal: { x: 0.2, y: 0.9, confirmed: true } },
  { kind: 'crop', photo: 1, shape: '3:1', crop: { x: 0, y: 500, width: 3000, height: 1000 } },
  { kind: 'crop', photo: 1, shape: '1:1', crop: null },
  { kind: 'words', photo: 1, words: { alt: 'New words', role: 'text' } },
  { kind: 'slots', photo: 1, slots: ['viewer'] },
  { kind: 'slots', photo: 1, slots: null },
  { kind: 'bin', photo: 1, binned: true },
];

describe('photo commands', () => {
  test.each(commands)('$kind is taken back by its inverse', (command) => {
    const { change, inverse } = applyToPhoto(photo, command);
    const changed = { ...photo, ...change };
    expect({ ...changed, ...applyToPhoto(changed, inverse).change }).toEqual(photo);
  });
  test('words leave the other words alone', () => {
    const { change } = applyToPhoto(photo, { kind: 'words', photo: 1, words: { caption: 'c' } });
    expect(change.words).toEqual({ ...photo.words, caption: 'c' });
  });
  test.each([
    [{ kind: 'focal', photo: 1, focal: { x: 1.2, y: 0, confirmed: true } }, /outside/],
    [{ kind: 'focal', photo: 1, focal: { x: NaN, y: 0, confirmed: true } }, /outside/],
    [{ kind: 'crop', photo: 1, shape: '3:1', crop: { x: 0, y: 0, width: 100, height: 100 } }, /shape 3:1/],
    [{ kind: 'slots', photo: 1, slots: ['poster' as never] }, /no slot “poster”/],
    [{ kind: 'slots', photo: 1, slots: ['grid', 'grid'] }, /twice/],
    [{ kind: 'words', photo: 1, words: { alt: 'x'.repeat(10_001) } }, /longer than/],
  ] as [PhotoCommand, RegExp][])('nonsense is refused with a sentence: %j', (command, sentence) => {
    expect(() => applyToPhoto(photo, command)).toThrow(CommandError);
    expect(() => applyToPhoto(photo, command)).toThrow(sentence);
  });
});

describe('set commands', () => {
  const set: PhotoSet = {
    id: 1,
    version: 3,
    name: 'Diary',
    slots: ['grid'],
    order: [4, 7, 9],
    policy: DEFAULT_POLICY,
    published: {},
    arranged: true,
    rehearsed: false,
    handedOver: false,
  };
  test.each([
    { name: 'Shop' },
    { slots: ['hero' as const] },
    { order: [9, 4, 7] },
    { policy: { ...DEFAULT_POLICY, modern: 'webp' as const } },
  ])('%j is taken back', (change) => {
    const applied = applyToSet(set, { kind: 'set', change });
    const changed = { ...set, ...applied.change };
    expect(changed).not.toEqual(set);
    expect({ ...changed, ...applyToSet(changed, applied.inverse).change }).toEqual(set);
  });
  test.each([
    [
      [9, 4],
      [9, 4, 7],
    ],
    [
      [7, 8, 4],
      [7, 4, 9],
    ],
    [[], [4, 7, 9]],
  ])('an order %j that is older than the set becomes %j, and is taken back whole', (order, becomes) => {
    const { change, inverse } = applyToSet(set, { kind: 'set', change: { order } });
    expect(change.order).toEqual(becomes);
    expect(inverse).toEqual({ kind: 'set', change: { order: [4, 7, 9] } });
  });
  test.each([[{ order: [4, 4, 7] }], [{ name: '  ' }]])('%j is refused', (change) => {
    expect(() => applyToSet(set, { kind: 'set', change })).toThrow(CommandError);
  });
});
