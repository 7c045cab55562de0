// The stops of the path, and what is left to do at each.
import type { Concern, PhotoRow, Stop } from '@dusky-otter/core';

export const STOPS = [
  { id: 'gather', name: 'Gather' },
  { id: 'frame', name: 'Frame' },
  { id: 'weigh', name: 'Weigh' },
  { id: 'describe', name: 'Describe' },
  { id: 'arrange', name: 'Arrange' },
  { id: 'rehearse', name: 'Rehearse' },
  { id: 'hand-over', name: 'Hand over' },
] as const;

export type StopId = (typeof STOPS)[number]['id'];

export const isStop = (text: string | undefined): text is StopId => STOPS.some((stop) => stop.id === text);

export interface StopState {
  count: string;
  state: 'none' | 'part' | 'done';
}

/** What the path says at a stop: how many photos are left, and whether the stop is begun or done. */
export function stopState(
  id: StopId,
  rows: readonly PhotoRow[],
  concernsFor: (row: PhotoRow) => readonly Concern[],
  refusals: number,
): StopState {
  if (id === 'gather') {
    const count = refusals > 0 ? `${rows.length}, ${refusals} refused` : String(rows.length);
    return { count, state: rows.length === 0 ? 'none' : refusals > 0 ? 'part' : 'done' };
  }
  if (id === 'rehearse' || id === 'hand-over' || rows.length === 0) return { count: '', state: 'none' };
  const open = (row: PhotoRow) =>
    concernsFor(row).filter((c) => c.stop === (id satisfies Stop) && c.code !== 'soft');
  const left = rows.filter((row) => open(row).length > 0).length;
  if (left === 0) return { count: '', state: 'done' };
  return { count: `${left} left`, state: left < rows.length ? 'part' : 'none' };
}
