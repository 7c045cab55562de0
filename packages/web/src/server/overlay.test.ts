// What screens show of edits on their way.
import { describe, expect, test } from '@jest/globals';
import type { SentPhoto } from '../../../core/src/contract/index.ts';
import type { PhotoCommand } from '../../../core/src/edits/index.ts';
import { samplePhoto } from '../../../core/src/testing/sample.ts';
import { byPhoto, photoWith } from './overlay.ts';

const photo: SentPhoto = { ...samplePhoto(), files: {}, failures: {}, sameAs: [], speaking: 'bay', asOf: 0 };
const say = (alt: string, id = 1): PhotoCommand => ({
  kind: 'words',
  photo: id,
  language: 'en',
  words: { alt },
});

describe('edits on their way', () => {
  test('lie on top of what is confirmed, in their order', () => {
    expect(photoWith(photo, [say('one'), say('two')]).words.alt).toBe('two');
    expect(photoWith(photo, [])).toBe(photo);
  });
  test('one that can’t be is left to the server, the others are shown', () => {
    const impossible: PhotoCommand = { kind: 'focal', photo: 1, focal: { x: 7, y: 0, confirmed: true } };
    const shown = photoWith(photo, [impossible, { kind: 'bin', photo: 1, binned: true }]);
    expect([shown.frame, shown.binned]).toEqual([photo.frame, true]);
  });
  test('are sorted by photo; a photo with the same commands keeps its list', () => {
    const [first, other] = [say('a'), say('b', 2)];
    const before = byPhoto([first, other, { kind: 'set', change: { name: 'x' } }], new Map());
    expect([...before.keys()]).toEqual([1, 2]);
    const after = byPhoto([first, other, say('c', 2)], before);
    expect(after.get(1)).toBe(before.get(1));
    expect(after.get(2)).toHaveLength(2);
  });
});
