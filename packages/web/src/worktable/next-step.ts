// The next step of each stop, as the main button of the table: the next photo whose work is open there, or the stop's own act.
import { isMild, type Concern, type PhotoRow } from '@dusky-otter/core';
import { placesAreGuessed, type StopId } from '../shell/stops.ts';
import { edit, notify, openSheet, useWork } from '../state/store.ts';

export interface NextStep {
  label: string;
  act: () => void;
}

interface Means {
  rows: readonly PhotoRow[];
  concernsFor: (row: PhotoRow) => readonly Concern[];
  chooseFiles: () => void;
  /** Opens the photo's bench. */
  open: (id: number) => void;
  /** Brings a row into view with the cursor on it, and something of it into focus. */
  reveal: (id: number, focus: string) => void;
}

/** The next row behind the cursor that has open work, or the first one; null where there is none. */
export function nextOpen(
  rows: readonly PhotoRow[],
  cursor: number | null,
  isOpen: (row: PhotoRow) => boolean,
): PhotoRow | null {
  const at = rows.findIndex((row) => row.id === cursor);
  return rows.find((row, index) => index > at && isOpen(row)) ?? rows.find(isOpen) ?? null;
}

function walk(
  means: Means,
  isOpen: (row: PhotoRow) => boolean,
  done: string,
  then: (row: PhotoRow) => void,
): void {
  const next = nextOpen(means.rows, useWork.getState().cursor, isOpen);
  if (!next) return notify(done);
  useWork.setState({ cursor: next.id, anchor: next.id });
  then(next);
}

export function nextWithoutWords(means: Means): void {
  walk(
    means,
    (row) => means.concernsFor(row).some((c) => c.stop === 'describe'),
    'Every photo on the table has its words.',
    (row) => means.reveal(row.id, `[data-alt-of="${row.id}"]`),
  );
}

/** What the main button says and does at a stop. */
export function nextStep(stop: Exclude<StopId, 'rehearse'>, means: Means): NextStep {
  const { rows, concernsFor } = means;
  const has = (of: Concern['stop']) => (row: PhotoRow) =>
    concernsFor(row).some((c) => c.stop === of && !isMild(c));
  const show = (row: PhotoRow) => means.reveal(row.id, `[data-row="${row.id}"]`);
  switch (stop) {
    case 'gather':
      return { label: 'Add photos', act: means.chooseFiles };
    case 'frame':
      return {
        label: 'Next crop to confirm',
        act: () =>
          walk(means, has('frame'), 'Every focal point on the table is confirmed.', (row) =>
            means.open(row.id),
          ),
      };
    case 'weigh':
      return {
        label: 'Next that needs care',
        act: () =>
          walk(means, has('weigh'), 'Every photo on the table is within its budgets and large enough.', show),
      };
    case 'describe':
      return { label: 'Next without words', act: () => nextWithoutWords(means) };
    case 'arrange': {
      const { set } = useWork.getState();
      if (set && rows.length > 0 && placesAreGuessed(set, rows)) {
        return {
          label: 'These places are right',
          act: () => edit('places confirmed', [{ kind: 'set', change: { arranged: true } }]),
        };
      }
      return {
        label: 'Next without a place',
        act: () => walk(means, has('arrange'), 'Every photo on the table goes somewhere.', show),
      };
    }
    case 'hand-over':
      return { label: 'Download the files', act: () => openSheet('download') };
  }
}
