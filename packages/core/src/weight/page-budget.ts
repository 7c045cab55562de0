// A page's byte limit shared out among its pictures, so that the differences seen are smallest in sum.
import { frontOf, lowerHull, type RatePoint } from './hull.ts';

export interface PagePicture<T extends RatePoint = RatePoint> {
  id: string;
  /** How much its difference counts, above 0: a hero more than a thumbnail. */
  importance: number;
  /** Ways to have it, in any order; at least one. */
  points: readonly T[];
  /** The point that an editor has chosen: it stays, whatever the limit. */
  pinned?: T;
}

export interface PagePlan<T extends RatePoint = RatePoint> {
  /** Chosen point by picture. */
  chosen: Map<string, T>;
  bytes: number;
  /** Σ importance × D. */
  difference: number;
  /** Bytes beyond the limit when even the smallest files don't fit; else 0. */
  over: number;
}

interface Choice<T> {
  id: string;
  importance: number;
  points: T[];
  at: number;
}

interface Step {
  picture: number;
  bytes: number;
  /** Importance × difference that the step takes away, a byte. */
  gain: number;
}

/** All steps along all hulls, the one that gains most a byte first: walking them in turn keeps slopes equal. */
function stepsOf<T extends RatePoint>(choices: readonly Choice<T>[]): Step[] {
  return choices
    .flatMap(({ points, importance }, picture) =>
      points.slice(1).map((point, i) => {
        const bytes = point.bytes - points[i]!.bytes;
        return { picture, bytes, gain: (importance * (points[i]!.difference - point.difference)) / bytes };
      }),
    )
    .sort((a, b) => b.gain - a.gain);
}

/**
 * The walk stops where the next step does not fit, which may leave bytes over: exchanges between two pictures use
 * them. For every pair the best two points within what both have and what is left, as long as anything gets better.
 */
function exchange<T extends RatePoint>(choices: Choice<T>[], left: number): void {
  let room = left;
  for (let better = true; better;) {
    better = false;
    for (const [i, a] of choices.entries()) {
      for (const b of choices.slice(i + 1)) {
        const [was, had] = [a.points[a.at]!, b.points[b.at]!];
        const bytes = was.bytes + had.bytes + room;
        let best = a.importance * was.difference + b.importance * had.difference - 1e-12;
        let found: [number, number] | null = null;
        let second = b.points.length - 1;
        // More bytes for one leave less for the other: one pass along both finds the best pair.
        for (const [first, point] of a.points.entries()) {
          while (second >= 0 && point.bytes + b.points[second]!.bytes > bytes) second--;
          if (second < 0) break;
          const sum = a.importance * point.difference + b.importance * b.points[second]!.difference;
          if (sum < best) [best, found] = [sum, [first, second]];
        }
        if (!found) continue;
        [a.at, b.at] = found;
        room = bytes - a.points[a.at]!.bytes - b.points[b.at]!.bytes;
        better = true;
      }
    }
  }
}

/**
 * Chooses a point for each picture so that their bytes fit the limit and Σ importance × D is as small as it gets:
 * along the convex hulls at equal slopes (Y. Shoham and A. Gersho, "Efficient bit allocation for an arbitrary set
 * of quantizers", 1988), then exchanges between pictures for what the walk leaves over.
 * @param limit bytes for all pictures together, pinned ones included.
 * @throws RangeError for a picture without points or with an importance that is not above 0.
 */
export function allocatePage<T extends RatePoint>(
  pictures: readonly PagePicture<T>[],
  limit: number,
): PagePlan<T> {
  for (const { id, importance, points } of pictures) {
    if (points.length === 0) throw new RangeError(`Picture “${id}” has no file to choose from.`);
    if (!(importance > 0)) throw new RangeError(`Picture “${id}” needs an importance above 0.`);
  }
  const free = pictures.filter((picture) => !picture.pinned);
  const pinnedBytes = pictures.reduce((sum, { pinned }) => sum + (pinned?.bytes ?? 0), 0);
  const choices = free.map(({ id, importance, points }): Choice<T> => ({
    id,
    importance,
    points: lowerHull(points),
    at: 0,
  }));
  let room = limit - pinnedBytes - choices.reduce((sum, { points }) => sum + points[0]!.bytes, 0);
  if (room >= 0) {
    const stopped = new Set<number>();
    for (const step of stepsOf(choices)) {
      // Steps of one picture follow each other: after one that does not fit, its later ones can't be taken.
      if (stopped.has(step.picture)) continue;
      if (step.bytes > room) stopped.add(step.picture);
      else {
        choices[step.picture]!.at += 1;
        room -= step.bytes;
      }
    }
    // What lies above the hulls may fill what is left.
    for (const [i, choice] of choices.entries()) {
      const point = choice.points[choice.at]!;
      choice.points = frontOf(free[i]!.points);
      choice.at = choice.points.indexOf(point);
    }
    exchange(choices, room);
    fillAlone(choices, limit - pinnedBytes);
  }
  const chosen = new Map(choices.map(({ id, points, at }) => [id, points[at]!]));
  for (const { id, pinned } of pictures) if (pinned) chosen.set(id, pinned);
  const all = pictures.map(({ id, importance }) => ({ importance, point: chosen.get(id)! }));
  const bytes = all.reduce((sum, { point }) => sum + point.bytes, 0);
  return {
    chosen,
    bytes,
    difference: all.reduce((sum, { importance, point }) => sum + importance * point.difference, 0),
    over: Math.max(0, bytes - limit),
  };
}

/** A page with one free picture has nobody to exchange with: it takes the best that fits. */
function fillAlone<T extends RatePoint>(choices: Choice<T>[], limit: number): void {
  const [only] = choices;
  if (!only || choices.length > 1) return;
  only.at = Math.max(
    0,
    only.points.findLastIndex(({ bytes }) => bytes <= limit),
  );
}
