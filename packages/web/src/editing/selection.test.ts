// A click, Ctrl and Shift select as everywhere, over what is read and beyond it.
import { beforeEach, expect, jest, test } from '@jest/globals';

const ALL = [1, 2, 3, 4, 5, 6, 7, 8];
/** What the server has under the filter. */
const idsUnder = jest.fn(() => Promise.resolve({ ids: ALL, total: ALL.length }));
jest.unstable_mockModule('../server/state.ts', () => ({ idsUnder }));
const { between, clearSelection, moveCursor, select, selectAll } = await import('./selection.ts');
const { clearScreen, useScreen } = await import('../screen/screen.ts');

const READ = [1, 2, 3, 4, 5];
const PLAIN = { shift: false, toggle: false };
const SHIFT = { shift: true, toggle: false };
const TOGGLE = { shift: false, toggle: true };
const chosen = () => [...useScreen.getState().selected];
const hands = () => {
  const { cursor, anchor } = useScreen.getState();
  return { cursor, anchor };
};
/** The server has answered, where it was asked. */
const answered = () => new Promise((done) => setImmediate(done));
beforeEach(() => {
  clearScreen();
  idsUnder.mockClear();
});

test('between two photos lie both, whichever comes first; of one that is not there nothing is known', () => {
  expect(between(ALL, 3, 5)).toEqual([3, 4, 5]);
  expect(between(ALL, 5, 3)).toEqual([3, 4, 5]);
  expect(between(ALL, 4, 4)).toEqual([4]);
  expect(between(ALL, 3, 99)).toBeNull();
});

test('a click selects one alone', () => {
  select(2, READ, PLAIN);
  select(4, READ, PLAIN);
  expect(chosen()).toEqual([4]);
  expect(hands()).toEqual({ cursor: 4, anchor: 4 });
});

test('Ctrl adds one and takes it away', () => {
  select(2, READ, PLAIN);
  select(4, READ, TOGGLE);
  expect(chosen()).toEqual([2, 4]);
  select(2, READ, TOGGLE);
  expect(chosen()).toEqual([4]);
});

test('Shift reaches from where the last click was, again and again from there', async () => {
  select(3, READ, PLAIN);
  select(5, READ, SHIFT);
  await answered();
  expect(chosen()).toEqual([3, 4, 5]);
  select(1, READ, SHIFT);
  await answered();
  expect(chosen()).toEqual([1, 2, 3]);
  expect(hands()).toEqual({ cursor: 1, anchor: 3 });
  expect(idsUnder).not.toHaveBeenCalled();
});

test('Shift with Ctrl leaves what was selected', async () => {
  select(1, READ, PLAIN);
  select(3, READ, TOGGLE);
  select(5, READ, { shift: true, toggle: true });
  await answered();
  expect(chosen()).toEqual([1, 3, 4, 5]);
});

test('Shift over what is not read asks which photos lie there', async () => {
  select(2, READ, PLAIN);
  select(7, [7], SHIFT);
  await answered();
  expect(idsUnder).toHaveBeenCalledTimes(1);
  expect(chosen()).toEqual([2, 3, 4, 5, 6, 7]);
});

test('an anchor that a filter hides is none: the reach begins anew', async () => {
  select(99, READ, PLAIN);
  select(4, READ, SHIFT);
  await answered();
  expect(chosen()).toEqual([4]);
  expect(hands()).toEqual({ cursor: 4, anchor: 4 });
});

test('the cursor moves alone, or takes the selection with it', async () => {
  select(2, READ, PLAIN);
  moveCursor(3, READ, false);
  expect(chosen()).toEqual([2]);
  expect(hands()).toEqual({ cursor: 3, anchor: 3 });
  moveCursor(4, READ, true);
  await answered();
  expect(chosen()).toEqual([3, 4]);
});

test('all is what the filter holds, read or not; none is none', async () => {
  selectAll();
  await answered();
  expect(chosen()).toEqual(ALL);
  clearSelection();
  expect(chosen()).toEqual([]);
});

test('a question that fails is said, and selects nothing', async () => {
  select(2, READ, PLAIN);
  idsUnder.mockImplementationOnce(() => Promise.reject(new Error('gone')));
  select(7, [7], SHIFT);
  await answered();
  expect(chosen()).toEqual([2]);
  expect(useScreen.getState().notices).toHaveLength(1);
});
