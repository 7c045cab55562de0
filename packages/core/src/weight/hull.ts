// What a picture can be had for: points of bytes and visible difference, and their lower convex hull.

/** One way to have a picture. */
export interface RatePoint {
  bytes: number;
  /** Visible difference D. */
  difference: number;
}

/** Points that no other beats in both, by ascending bytes and so by falling difference. */
export function frontOf<T extends RatePoint>(points: readonly T[]): T[] {
  const front: T[] = [];
  for (const point of [...points].sort((a, b) => a.bytes - b.bytes || a.difference - b.difference)) {
    const last = front.at(-1);
    if (!last || point.difference < last.difference) front.push(point);
  }
  return front;
}

/**
 * The points of the lower convex hull, by ascending bytes: from each to the next, a byte buys less and less.
 * A. Andrew, "Another efficient algorithm for convex hulls in two dimensions", 1979.
 */
export function lowerHull<T extends RatePoint>(points: readonly T[]): T[] {
  const hull: T[] = [];
  for (const point of frontOf(points)) {
    while (hull.length >= 2) {
      const [a, b] = [hull.at(-2)!, hull.at(-1)!];
      const before = (a.difference - b.difference) * (point.bytes - b.bytes);
      const after = (b.difference - point.difference) * (b.bytes - a.bytes);
      if (before > after) break;
      hull.pop();
    }
    hull.push(point);
  }
  return hull;
}
