// Least squares where the residuals are no straight lines.
import { leastSquares } from './statistics.ts';

const sumOfSquares = (values: readonly number[]): number => values.reduce((sum, v) => sum + v * v, 0);

/** Step of the difference quotients, and the longest step of a round. */
const STEP = 0.08;
const LONGEST = 0.6;

/**
 * Damped least squares (D. Marquardt, "An algorithm for least-squares estimation of nonlinear parameters", 1963), with
 * derivatives by difference quotients.
 * @param start of all parameters, on scales on which a step of 0.1 is a small one
 * @param residuals at given parameters; always as many
 * @param hold what a parameter's distance from its start counts: what the residuals hardly tell stays where it was
 * @param rounds at most; it ends before where nothing gets better
 */
export function dampedLeastSquares(
  start: readonly number[],
  residuals: (parameters: readonly number[]) => number[],
  { rounds, hold, say }: { rounds: number; hold: number; say: (round: number, cost: number) => void },
): number[] {
  const held = Math.sqrt(hold);
  const all = (x: readonly number[]): number[] => [
    ...residuals(x),
    ...x.map((own, i) => held * (own - start[i]!)),
  ];
  let best = [...start];
  let found = all(best);
  let damping = 0.1;
  for (let round = 1; round <= rounds; round++) {
    const slopes = best.map((_, i) => {
      const aside = all(best.map((own, k) => (k === i ? own + STEP : own)));
      return aside.map((value, row) => (value - found[row]!) / STEP);
    });
    let isBetter = false;
    for (let tries = 0; tries < 4 && !isBetter; tries++, damping *= isBetter ? 0.1 : 4) {
      const damped = slopes.map((own) => Math.sqrt(damping * (1 + sumOfSquares(own))));
      const rows = [
        ...found.map((_, row) => slopes.map((own) => own[row]!)),
        ...damped.map((own, i) => damped.map((__, k) => (k === i ? own : 0))),
      ];
      const step = leastSquares(rows, [...found.map((value) => -value), ...damped.map(() => 0)]);
      const tried = best.map((own, i) => own + Math.max(-LONGEST, Math.min(LONGEST, step[i]!)));
      const now = all(tried);
      if (sumOfSquares(now) >= sumOfSquares(found)) continue;
      [best, found, isBetter] = [tried, now, true];
    }
    say(round, sumOfSquares(found));
    if (!isBetter) break;
  }
  return best;
}
