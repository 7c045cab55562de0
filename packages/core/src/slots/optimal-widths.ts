// The pixel widths that waste least: dynamic programming over what devices ask for.

/** What one kind of device asks of a picture. */
export interface WidthDemand {
  /** Pixels of width. */
  pixels: number;
  /** Share of visits; shares need not sum to 1. */
  share: number;
}

export interface WidthPlan {
  /** Ascending pixel widths. */
  widths: number[];
  /** Expected surplus: pixels sent beyond those asked for ÷ pixels asked for, by area. */
  surplus: number;
}

/** Surplus pixels that are worth no further file, as a share of the pixels asked for. */
export const MOST_SURPLUS = 0.1;
export const MOST_WIDTHS = 6;

/** Demands of one width made one, ascending. */
function merged(demands: readonly WidthDemand[]): WidthDemand[] {
  const shares = new Map<number, number>();
  for (const { pixels, share } of demands) shares.set(pixels, (shares.get(pixels) ?? 0) + share);
  return [...shares].map(([pixels, share]) => ({ pixels, share })).sort((a, b) => a.pixels - b.pixels);
}

/** Σ share × pixels²: at one ratio, area goes with the square of the width. */
const areaOf = (demands: readonly WidthDemand[]): number =>
  demands.reduce((sum, { pixels, share }) => sum + share * pixels * pixels, 0);

/** Surplus of given widths when each demand is met by the smallest width that reaches it, else by the largest. */
export function surplusOf(widths: readonly number[], demands: readonly WidthDemand[]): number {
  const ascending = [...widths].sort((a, b) => a - b);
  const sent = demands.reduce((sum, { pixels, share }) => {
    const width = ascending.find((w) => w >= pixels) ?? ascending.at(-1)!;
    return sum + share * Math.max(0, width * width - pixels * pixels);
  }, 0);
  return sent / areaOf(demands);
}

/**
 * For every count up to `most`, the widths with the least expected surplus that leave no demand unmet. A best
 * width always is a demand (lowering it to the largest demand it meets sends less), and what lies below a chosen
 * width does not hang on what lies above it, so that best(k, j) = min over i < j of
 * best(k − 1, i) + cost(i, j), with cost(i, j) = Σ share × (p_j² − p²) over the demands between. O(n² k).
 */
export function bestWidths(demands: readonly WidthDemand[], most: number): WidthPlan[] {
  const list = merged(demands);
  const n = list.length;
  if (n === 0) return [];
  // Sums of shares and of areas up to each demand: any cost is two differences.
  const shares = [0];
  const areas = [0];
  for (const { pixels, share } of list) {
    shares.push(shares.at(-1)! + share);
    areas.push(areas.at(-1)! + share * pixels * pixels);
  }
  const cost = (after: number, last: number): number =>
    (shares[last + 1]! - shares[after]!) * list[last]!.pixels ** 2 - (areas[last + 1]! - areas[after]!);
  const total = areas[n]!;
  let best = list.map((_, j) => ({ cost: cost(0, j), widths: [list[j]!.pixels] }));
  const plans: WidthPlan[] = [];
  for (let k = 1; k <= Math.min(most, n); k++) {
    if (k > 1) {
      const before = best;
      best = list.map((demand, j) => {
        let least = before[j]!;
        for (let i = k - 2; i < j; i++) {
          const candidate = before[i]!.cost + cost(i + 1, j);
          if (candidate < least.cost - 1e-9) {
            least = { cost: candidate, widths: [...before[i]!.widths, demand.pixels] };
          }
        }
        return least;
      });
    }
    const { widths } = best[n - 1]!;
    plans.push({ widths, surplus: Math.max(0, best[n - 1]!.cost / total) });
  }
  return plans;
}

/** The fewest widths that waste at most `surplus`, or the best `most` widths when that needs more of them. */
export function fewestWidths(
  demands: readonly WidthDemand[],
  surplus = MOST_SURPLUS,
  most = MOST_WIDTHS,
): WidthPlan {
  const plans = bestWidths(demands, most);
  const last = plans.at(-1);
  if (!last) throw new RangeError('Widths can’t be planned without a demand.');
  return plans.find((plan) => plan.surplus <= surplus) ?? last;
}
