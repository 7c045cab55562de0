// Long lists for queries: a statement with hundreds of thousands of names is larger than the database takes.

/** Names in one statement. */
const MOST = 1_000;

/** A list in parts that fit into a statement each; none for an empty list. */
export const inParts = <T>(list: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(list.length / MOST) }, (_, n) => list.slice(n * MOST, (n + 1) * MOST));
