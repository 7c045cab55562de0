// What the path says at each stop.
import { describe, expect, test } from '@jest/globals';
import { isStop, stopState, type PathFacts, type StopId } from './stops.ts';

const facts = (
  counts: { all?: number; open?: Partial<PathFacts['counts']['open']>; placed?: number } = {},
  set: Partial<PathFacts['set']> = {},
  refusals = 0,
  offers = 0,
): PathFacts => ({
  counts: {
    filters: { all: counts.all ?? 1 },
    open: { frame: 0, weigh: 0, describe: 0, arrange: 0, ...counts.open },
    placed: counts.placed ?? 0,
  },
  set: { arranged: true, rehearsed: false, handedOver: false, ...set },
  refusals,
  offers,
});

describe('the path', () => {
  test('counts what is left, and tells begun from not begun', () => {
    const some = facts({ all: 3, open: { describe: 1, frame: 1 } });
    expect(stopState('describe', some)).toEqual({ count: '1 left', state: 'part' });
    expect(stopState('frame', some)).toEqual({ count: '1 left', state: 'part' });
    expect(stopState('weigh', some)).toEqual({ count: '', state: 'done' });
    const none = facts({ all: 3, open: { describe: 3 } });
    expect(stopState('describe', none)).toEqual({ count: '3 left', state: 'none' });
  });
  test('says at Gather how many are there and how many were refused', () => {
    expect(stopState('gather', facts())).toEqual({ count: '1', state: 'done' });
    expect(stopState('gather', facts({}, {}, 2))).toEqual({ count: '1, 2 refused', state: 'part' });
    expect(stopState('gather', facts({}, {}, 2, 1))).toEqual({
      count: '1, 2 refused, 1 to decide',
      state: 'part',
    });
  });
  test('an empty set has nothing done', () => {
    for (const stop of ['gather', 'frame', 'describe', 'hand-over'] as StopId[])
      expect(stopState(stop, facts({ all: 0 })).state).toBe('none');
  });
  test('Arrange is not done by places that nobody chose', () => {
    const guess = { arranged: false };
    expect(stopState('arrange', facts({}, guess))).toEqual({ count: 'to confirm', state: 'none' });
    expect(stopState('arrange', facts()).state).toBe('done');
    expect(stopState('arrange', facts({ placed: 1 }, guess)).state).toBe('done');
    expect(stopState('arrange', facts({ placed: 1, open: { arrange: 1 } }, guess))).toEqual({
      count: '1 left',
      state: 'none',
    });
  });
  test('Rehearse and Hand over are done when their work is', () => {
    expect(stopState('rehearse', facts()).state).toBe('none');
    expect(stopState('rehearse', facts({}, { rehearsed: true })).state).toBe('done');
    expect(stopState('hand-over', facts()).state).toBe('none');
    expect(stopState('hand-over', facts({}, { handedOver: true }))).toEqual({ count: 'out', state: 'done' });
  });
  test('knows its own stops', () => {
    expect([isStop('weigh'), isStop('sets'), isStop(undefined)]).toEqual([true, false, false]);
  });
});
