// Edits that are on their way to the server: what is on screen is the confirmed state with these on top.
import {
  applyToPhoto,
  applyToSet,
  isPhotoCommand,
  type Command,
  type Edit,
  type PhotoRow,
  type PhotoSet,
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

/** Rows with some of them replaced by newer ones; rows that are new are added. */
export function mergeRows(rows: readonly PhotoRow[], newer: readonly PhotoRow[]): PhotoRow[] {
  const byId = new Map(newer.map((row) => [row.id, row]));
  const merged = rows.map((row) => {
    const next = byId.get(row.id);
    byId.delete(row.id);
    // Answers and events may cross: an older version never replaces a newer one.
    return next && next.version >= row.version ? next : row;
  });
  return [...merged, ...byId.values()];
}
