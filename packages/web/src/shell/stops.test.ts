// What the path says is left at each stop.
import { describe, expect, test } from '@jest/globals';
import { sampleRow } from '../../../core/src/testing/sample.ts';
import type { PhotoRow } from '../../../core/src/contract/index.ts';
import { concernsOf } from '../../../core/src/readiness/readiness.ts';
import { isStop, stopState, type PathFacts } from './stops.ts';

const concerns = (row: PhotoRow) => concernsOf(row, ['grid'], new Map());

const NOTHING: PathFacts = { refusals: 0, set: { arranged: true, rehearsed: false, handedOver: false } };
const but = (set: Partial<PathFacts['set']>): PathFacts => ({ ...NOTHING, set: { ...NOTHING.set, ...set } });

const ready = sampleRow(['grid'], { id: 1 });
const wordless = { ...ready, id: 2, words: { ...ready.words, role: null, alt: '' } };
const guessed = { ...ready, id: 3, focal: { x: 0.5, y: 0.5, confirmed: false } };

describe('the path', () => {
  test('counts what is left, and tells begun from not begun', () => {
    const rows = [ready, wordless, guessed];
    expect(stopState('describe', rows, concerns, NOTHING)).toEqual({ count: '1 left', state: 'part' });
    expect(stopState('frame', rows, concerns, NOTHING)).toEqual({ count: '1 left', state: 'part' });
    expect(stopState('weigh', rows, concerns, NOTHING)).toEqual({ count: '', state: 'done' });
    expect(stopState('describe', [wordless], concerns, NOTHING)).toEqual({ count: '1 left', state: 'none' });
  });
  test('says at Gather how many are there and how many were refused', () => {
    expect(stopState('gather', [ready], concerns, NOTHING)).toEqual({ count: '1', state: 'done' });
    expect(stopState('gather', [ready], concerns, { ...NOTHING, refusals: 2 })).toEqual({
      count: '1, 2 refused',
      state: 'part',
    });
  });
  test('an empty set has nothing done', () => {
    for (const stop of ['gather', 'frame', 'describe', 'hand-over'] as const) {
      expect(stopState(stop, [], concerns, NOTHING).state).toBe('none');
    }
  });
  test('Arrange is not done by places that nobody chose', () => {
    const guess = but({ arranged: false });
    expect(stopState('arrange', [ready], concerns, guess)).toEqual({ count: 'to confirm', state: 'none' });
    expect(stopState('arrange', [ready], concerns, NOTHING).state).toBe('done');
    expect(stopState('arrange', [{ ...ready, slots: ['grid'] }], concerns, guess).state).toBe('done');
    expect(stopState('arrange', [{ ...ready, slots: [] }], concerns, guess)).toEqual({
      count: '1 left',
      state: 'none',
    });
  });
  test('Rehearse and Hand over are done when their work is', () => {
    expect(stopState('rehearse', [ready], concerns, NOTHING).state).toBe('none');
    expect(stopState('rehearse', [ready], concerns, but({ rehearsed: true })).state).toBe('done');
    expect(stopState('hand-over', [ready], concerns, NOTHING).state).toBe('none');
    expect(stopState('hand-over', [ready], concerns, but({ handedOver: true }))).toEqual({
      count: 'out',
      state: 'done',
    });
  });
  test('knows its own stops', () => {
    expect([isStop('weigh'), isStop('sets'), isStop(undefined)]).toEqual([true, false, false]);
  });
});
