// Changes of places that are not applied yet.
import { beforeEach, describe, expect, test } from '@jest/globals';
import type { Slot } from '../../../core/src/contract/index.ts';
import { SHIPPED_SLOTS } from '../../../core/src/slots/index.ts';

// As in a browser: drafts are kept in its storage.
const stored = new Map<string, string>();
Object.assign(globalThis, {
  window: {
    localStorage: {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, value: string) => void stored.set(key, value),
      removeItem: (key: string) => void stored.delete(key),
    },
  },
});
const drafts = await import('./drafts.ts');
const { draftOf, dropDraft, finished, keepDraft, keepNew, useDrafts, widthRead } = drafts;
const { withShapes, withWhole, withWidth } = drafts;

const slot: Slot = SHIPPED_SLOTS[0]!;
beforeEach(() => {
  useDrafts.setState({ changed: {}, made: {} });
});

describe('drafts', () => {
  test('are kept by site and place, and outlive a reload', () => {
    keepDraft(1, { slot, width: '50v' });
    keepDraft(2, { slot, width: '30vw' });
    expect(draftOf(useDrafts.getState(), 1, slot.id)!.width).toBe('50v');
    expect([...stored.values()].join()).toContain('"50v"');
    dropDraft(1, slot.id);
    expect(draftOf(useDrafts.getState(), 1, slot.id)).toBeNull();
    expect(draftOf(useDrafts.getState(), 2, slot.id)!.width).toBe('30vw');
  });
  test('of new places are one a site', () => {
    keepNew(1, { name: 'A', width: '' });
    keepNew(2, { name: 'B', width: '' });
    keepNew(1, null);
    expect(useDrafts.getState().made).toEqual({ 2: { name: 'B', width: '' } });
  });
});

describe('a width', () => {
  test('that can’t be read says why, and how it may be meant', () => {
    expect(widthRead('50vw').read).not.toBeNull();
    const { read, error } = widthRead('half of nothing at all');
    expect([read, error === null]).toEqual([null, false]);
  });
  test('that was typed takes away where the one before was measured', () => {
    const measured = { ...slot, measured: { page: 'a.html', on: '2026-01-01', windows: 3, worst: 0 } };
    const typed = withWidth(measured, ' 40vw ', widthRead('40vw').read!);
    expect([typed.measured, typed.said]).toEqual([undefined, '40vw']);
    expect(typed.rule).not.toEqual(slot.rule);
  });
});

describe('shapes', () => {
  test('follow from the windows they begin at, in whatever order they are said', () => {
    const { shapes } = withShapes(slot, [
      { shape: '4:5', from: 0 },
      { shape: '3:1', from: 900 },
      { shape: '3:2', from: 600 },
    ]);
    expect(shapes).toEqual([
      { shape: '3:1', from: 900, to: null },
      { shape: '3:2', from: 600, to: 900 },
      { shape: '4:5', from: 0, to: 600 },
    ]);
  });
  test('give way to whole photos and come back', () => {
    const whole = withWhole({ ...slot, fit: { width: 10, height: 10 } }, true);
    expect(whole.shapes.map(({ shape }) => shape)).toEqual(['own']);
    const cut = withWhole(whole, false);
    expect([cut.fit, cut.shapes.map(({ shape }) => shape)]).toEqual([null, ['3:2']]);
  });
});

test('a place is sent with its name trimmed and a hint of what it is now', () => {
  const { name, hint } = finished({ ...slot, name: '  Hero ', hint: 'something of before' });
  expect([name, hint === 'something of before']).toEqual(['Hero', false]);
});
