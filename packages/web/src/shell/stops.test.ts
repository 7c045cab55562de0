// What the path says is left at each stop.
import { describe, expect, test } from '@jest/globals';
import { sampleRow } from '../../../core/src/testing/sample.ts';
import type { PhotoRow } from '../../../core/src/contract/index.ts';
import { concernsOf } from '../../../core/src/readiness/readiness.ts';
import { isStop, stopState } from './stops.ts';

const concerns = (row: PhotoRow) => concernsOf(row, ['grid'], new Map());

const ready = sampleRow(['grid'], { id: 1 });
const wordless = { ...ready, id: 2, words: { ...ready.words, role: null, alt: '' } };
const guessed = { ...ready, id: 3, focal: { x: 0.5, y: 0.5, confirmed: false } };

describe('the path', () => {
  test('counts what is left, and tells begun from not begun', () => {
    const rows = [ready, wordless, guessed];
    expect(stopState('describe', rows, concerns, 0)).toEqual({ count: '1 left', state: 'part' });
    expect(stopState('frame', rows, concerns, 0)).toEqual({ count: '1 left', state: 'part' });
    expect(stopState('weigh', rows, concerns, 0)).toEqual({ count: '', state: 'done' });
    expect(stopState('describe', [wordless], concerns, 0)).toEqual({ count: '1 left', state: 'none' });
  });
  test('says at Gather how many are there and how many were refused', () => {
    expect(stopState('gather', [ready], concerns, 0)).toEqual({ count: '1', state: 'done' });
    expect(stopState('gather', [ready], concerns, 2)).toEqual({ count: '1, 2 refused', state: 'part' });
  });
  test('an empty set has nothing done', () => {
    for (const stop of ['gather', 'frame', 'describe', 'hand-over'] as const) {
      expect(stopState(stop, [], concerns, 0).state).toBe('none');
    }
  });
  test('knows its own stops', () => {
    expect([isStop('weigh'), isStop('sets'), isStop(undefined)]).toEqual([true, false, false]);
  });
});
