// Turns: the result is that of the whole, and other work comes in between.
import { expect, test } from '@jest/globals';
import { inTurns } from './turns.ts';

/** A computation of steps that take a few milliseconds each. */
function* slow(steps: number): Generator<void, number, void> {
  for (let step = 0; step < steps; step++) {
    const until = performance.now() + 4;
    while (performance.now() < until);
    yield;
  }
  return steps;
}

test('what waits comes between the turns of a long computation', async () => {
  let came = 0;
  const other = setInterval(() => came++, 0);
  expect(await inTurns(slow(20))).toBe(20);
  clearInterval(other);
  expect(came).toBeGreaterThan(1);
});

test('an error of the computation is the caller’s', async () => {
  await expect(
    inTurns(
      (function* (): Generator<void, never, void> {
        yield;
        throw new Error('no photos');
      })(),
    ),
  ).rejects.toThrow('no photos');
});
