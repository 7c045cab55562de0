// Edits that are on their way to the server: what is on screen is the confirmed state with these on top.
import {
  applyToPhoto,
  applyToSet,
  isPhotoCommand,
  type Command,
  type Edit,
  type PhotoRow,
  type PhotoSet,
  type StoredFacts,
} from '@dusky-otter/core';

export interface Confirmed {
  rows: PhotoRow[];
  set: PhotoSet;
}

function applied(shown: Confirmed, command: Command): Confirmed {
  if (!isPhotoCommand(command))
    return { ...shown, set: { ...shown.set, ...applyToSet(shown.set, command).change } };
  const rows = shown.rows.map((row) =>
    row.id === command.photo ? { ...row, ...applyToPhoto(row, command).change } : row,
  );
  return { ...shown, rows };
}

/** The confirmed state with pending edits applied, rows in the set's order. An edit that can't be is left to the server to refuse. */
export function withPending(confirmed: Confirmed, pending: readonly Edit[]): Confirmed {
  let shown = confirmed;
  for (const command of pending.flatMap((edit) => edit.commands)) {
    try {
      shown = applied(shown, command);
    } catch {
      continue;
    }
  }
  const place = new Map(shown.set.order.map((id, index) => [id, index]));
  const rows = [...shown.rows].sort((a, b) => (place.get(a.id) ?? Infinity) - (place.get(b.id) ?? Infinity));
  return { set: shown.set, rows };
}

/** What events have told of files that were made, by key. */
export type MadeFiles = ReadonlyMap<string, StoredFacts>;

/** A row with everything that is known to be made: an answer may be older than the events that overtook it. */
export function withMade(row: PhotoRow, made: MadeFiles): PhotoRow {
  if (row.variants.every((variant) => variant.bytes !== null || !made.has(variant.key))) return row;
  return {
    ...row,
    variants: row.variants.map((v) => (made.has(v.key) ? { ...v, ...made.get(v.key), failure: null } : v)),
  };
}

/** A row without files that turned out to be lost: they are being made again. */
export function withoutFiles(row: PhotoRow, lost: ReadonlySet<string>): PhotoRow {
  if (!row.variants.some(({ key }) => lost.has(key))) return row;
  const unmade = { bytes: null, contentHash: null, quality: null, difference: null };
  return { ...row, variants: row.variants.map((v) => (lost.has(v.key) ? { ...v, ...unmade } : v)) };
}

/** Rows with some of them replaced by newer ones; rows that are new are added. */
export function mergeRows(
  rows: readonly PhotoRow[],
  newer: readonly PhotoRow[],
  made: MadeFiles,
): PhotoRow[] {
  const byId = new Map(newer.map((row) => [row.id, row]));
  const merged = rows.map((row) => {
    const next = byId.get(row.id);
    byId.delete(row.id);
    // Answers and events may cross: an older version never replaces a newer one.
    return next && next.version >= row.version ? next : row;
  });
  return [...merged, ...byId.values()].map((row) => withMade(row, made));
}
