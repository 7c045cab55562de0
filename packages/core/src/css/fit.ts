// The fewest straight lines through measured widths.
import type { WidthPiece } from '../contract/index.ts';

/** One measurement: display width at a viewport width, both in CSS px. */
export interface WidthSample {
  viewport: number;
  width: number;
}

type Line = Pick<WidthPiece, 'vw' | 'px'>;

/** Slopes between which every line must lie that passes all samples within the tolerance. */
interface Slopes {
  low: number;
  high: number;
}

/**
 * Narrows the slopes by one more sample. A line within ±t of all samples exists exactly when the bounds of all
 * pairs leave a slope over: at that slope the intervals of possible intercepts overlap pairwise, and so
 * (Helly's theorem in one dimension) all together.
 */
function narrowed(slopes: Slopes, group: readonly WidthSample[], added: WidthSample, t: number): Slopes {
  let { low, high } = slopes;
  for (const { viewport, width } of group) {
    const run = added.viewport - viewport;
    const rise = added.width - width;
    if (run === 0) {
      if (Math.abs(rise) > 2 * t) return { low: 1, high: 0 };
      continue;
    }
    low = Math.max(low, (rise - 2 * t) / run);
    high = Math.min(high, (rise + 2 * t) / run);
  }
  return { low, high };
}

const open: Slopes = { low: -Infinity, high: Infinity };

/** Below it a number is as good as none: sizes are written to four places. */
const SMALLEST = 0.000_05;

/** Slopes that people write: none, whole, halves to sixths, tens, fives and ones of a percent, tenths of one. */
const LIKED_STEPS = [1, 1 / 2, 1 / 3, 1 / 4, 1 / 5, 1 / 6, 1 / 10, 1 / 20, 1 / 100, 1 / 1000];

/** The plainest line within the tolerance of all samples, or null when there is none. */
export function lineThrough(samples: readonly WidthSample[], tolerance: number): Line | null {
  let slopes = open;
  samples.forEach((sample, i) => (slopes = narrowed(slopes, samples.slice(0, i), sample, tolerance)));
  if (slopes.low > slopes.high) return null;
  const likely = LIKED_STEPS.flatMap((step) => {
    const middle = (Math.max(slopes.low, -4) + Math.min(slopes.high, 4)) / 2;
    return [0, Math.round(middle / step) * step];
  });
  const vw = likely.find((m) => m >= slopes.low && m <= slopes.high) ?? (slopes.low + slopes.high) / 2;
  const from = Math.max(...samples.map((s) => s.width - tolerance - vw * s.viewport));
  const to = Math.min(...samples.map((s) => s.width + tolerance - vw * s.viewport));
  const middle = (from + to) / 2;
  // The roundest intercept that still fits.
  const px = [16, 8, 4, 2, 1, 0.1].map((s) => Math.round(middle / s) * s).find((c) => c >= from && c <= to);
  return { vw, px: px ?? middle };
}

/**
 * Where one line gives way to the next: where they cross, if that is before the next one's first sample, and the samples
 * of the one that lie behind the crossing are the other's as well, within the tolerance.
 */
function breakBetween(
  a: Line,
  b: Line,
  { before, first, tolerance }: { before: readonly WidthSample[]; first: WidthSample; tolerance: number },
): number {
  const crossing = (b.px - a.px) / (a.vw - b.vw);
  const holds = (at: number) =>
    at > before[0]!.viewport &&
    at <= first.viewport &&
    before.every(
      ({ viewport, width }) =>
        viewport < at || Math.abs(b.vw * viewport + b.px - width) <= tolerance + SMALLEST,
    );
  if (!holds(crossing)) return first.viewport;
  const whole = Math.round(crossing);
  return holds(whole) ? whole : crossing;
}

/** Samples at the end of a line that may belong to the next one as well. */
const SHARED = 3;

const digits = (value: number): number =>
  Math.abs(value) < SMALLEST ? 0 : String(Math.round(Math.abs(value) * 10_000) / 10_000).length;

/** How much there is to write of a line: "100vw" is plainer than "calc(100vw - 0.5px)". */
const writing = ({ vw, px }: Line): number =>
  digits(vw * 100) + digits(px) + (Math.abs(vw) > SMALLEST && Math.abs(px) > SMALLEST ? 1 : 0);

/** Samples in a row with the line through them. */
interface Run {
  samples: readonly WidthSample[];
  line: Line;
}

/**
 * Gives the last samples of a line to the next where both are plainer for it. Taken as far as the tolerance reaches, a
 * line of 100vw bends by half a pixel for one more sample that is already on the next: "calc(100vw - 0.5px)".
 */
function plainer(groups: readonly WidthSample[][], tolerance: number): Run[] {
  const runs = groups.map((samples): Run => ({ samples, line: lineThrough(samples, tolerance)! }));
  for (let i = 0; i + 1 < runs.length; i++) {
    const [one, next] = [runs[i]!, runs[i + 1]!];
    let best = writing(one.line) + writing(next.line);
    for (let moved = 1; moved <= SHARED && moved < one.samples.length; moved++) {
      const kept = one.samples.slice(0, -moved);
      const grown = [...one.samples.slice(-moved), ...next.samples];
      const [a, b] = [lineThrough(kept, tolerance), lineThrough(grown, tolerance)];
      if (!a || !b || writing(a) + writing(b) >= best) continue;
      best = writing(a) + writing(b);
      [runs[i], runs[i + 1]] = [
        { samples: kept, line: a },
        { samples: grown, line: b },
      ];
    }
  }
  return runs;
}

/**
 * The rule with the fewest pieces that passes every sample within `tolerance` CSS px. Taking as many samples
 * as one line can hold, again and again, is optimal: whatever a line holds, it holds every part of.
 * @throws RangeError without samples, or when two samples of one viewport differ by more than 2 × tolerance.
 */
export function fitRule(samples: readonly WidthSample[], tolerance = 1): WidthPiece[] {
  if (samples.length === 0) throw new RangeError('At least one measured width is needed.');
  const sorted = [...samples].sort((a, b) => a.viewport - b.viewport);
  const groups: WidthSample[][] = [[]];
  let slopes = open;
  for (const sample of sorted) {
    const group = groups.at(-1)!;
    const next = narrowed(slopes, group, sample, tolerance);
    if (next.low <= next.high) {
      group.push(sample);
      slopes = next;
      continue;
    }
    if (group.at(-1)!.viewport === sample.viewport) {
      throw new RangeError(`Two widths measured at ${sample.viewport} px contradict each other.`);
    }
    groups.push([sample]);
    slopes = open;
  }
  const runs = plainer(groups, tolerance);
  return runs.map(({ samples: own, line }, i) => {
    const last = runs[i - 1];
    if (!last) return { from: 0, ...line };
    const from = breakBetween(last.line, line, { before: last.samples, first: own[0]!, tolerance });
    return { from, ...line };
  });
}
