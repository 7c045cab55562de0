// Which strokes are one edit.
import { describe, expect, test } from '@jest/globals';
import { mergeTyping } from './typing.ts';

describe('merging of typing', () => {
  const words = (photo: number, change: object) => [
    { kind: 'words' as const, photo, language: 'en', words: change },
  ];
  const last = {
    label: 'x',
    commands: words(1, { alt: 'a' }),
    window: 'one',
    undone: false,
    updatedAt: new Date(1_000_000),
  };
  const next = { label: 'x', window: 'one', commands: words(1, { alt: 'ab' }) };
  test('same photo, same field, soon after', () =>
    expect(mergeTyping(last, next, 1_005_000)).toEqual(next.commands));
  test.each([
    ['after a pause', last, next, 1_009_000],
    ['another field', last, { ...next, commands: words(1, { title: 'ab' }) }, 1_001_000],
    ['another photo', last, { ...next, commands: words(2, { alt: 'ab' }) }, 1_001_000],
    ['another act', { ...last, label: 'x mended' }, next, 1_001_000],
    ['another window', last, { ...next, window: 'two' }, 1_001_000],
    ['an undone one', { ...last, undone: true }, next, 1_001_000],
    [
      'a role',
      { ...last, commands: words(1, { role: 'text' }) },
      { ...next, commands: words(1, { role: 'complex' }) },
      1_001_000,
    ],
  ] as const)('not %s', (_, before, edit, now) => {
    expect(
      mergeTyping(
        { ...before, commands: [...before.commands] },
        { ...edit, commands: [...edit.commands] },
        now,
      ),
    ).toBeNull();
  });
});
