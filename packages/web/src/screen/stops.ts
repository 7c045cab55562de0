// The stops of the path: what each is called, what its work is, and what is left of it.
import type { PhotoSet, SetCounts, Stop } from '@dusky-otter/core/contract';

export const STOPS = [
  { id: 'gather', name: 'Gather', heading: 'Gather photos' },
  { id: 'frame', name: 'Frame', heading: 'Frame photos' },
  { id: 'weigh', name: 'Weigh', heading: 'Weigh files' },
  { id: 'describe', name: 'Describe', heading: 'Describe photos' },
  { id: 'arrange', name: 'Arrange', heading: 'Arrange photos' },
  { id: 'rehearse', name: 'Rehearse', heading: 'Rehearse the page' },
  { id: 'hand-over', name: 'Hand over', heading: 'Hand over files' },
] as const;

export type StopId = (typeof STOPS)[number]['id'];

export const isStop = (text: string | undefined): text is StopId => STOPS.some((stop) => stop.id === text);

export const stopOf = (id: StopId) => STOPS.find((stop) => stop.id === id)!;

export interface StopState {
  count: string;
  state: 'none' | 'part' | 'done';
}

/** What the stops look at. */
export interface PathFacts {
  counts: Pick<SetCounts, 'open' | 'placed'> & { filters: Pick<SetCounts['filters'], 'all'> };
  refusals: number;
  /** Files that may take a photo's place, until somebody says so. */
  offers: number;
  set: Pick<PhotoSet, 'arranged' | 'rehearsed' | 'handedOver'>;
}

/** True until somebody has said where the photos go: sets of earlier versions began with places of their own accord. */
export const placesAreGuessed = (set: PathFacts['set'], counts: Pick<SetCounts, 'placed'>): boolean =>
  !set.arranged && counts.placed === 0;

/** What the path says at a stop: how much is left, and whether its work is begun or done; not whether it was opened. */
export function stopState(id: StopId, { counts, refusals, offers, set }: PathFacts): StopState {
  const { all } = counts.filters;
  if (id === 'gather') {
    const rest = [refusals > 0 && `${refusals} refused`, offers > 0 && `${offers} to decide`].filter(Boolean);
    return {
      count: [all, ...rest].join(', '),
      state: all === 0 ? 'none' : rest.length > 0 ? 'part' : 'done',
    };
  }
  if (all === 0) return { count: '', state: 'none' };
  if (id === 'rehearse') return { count: '', state: set.rehearsed ? 'done' : 'none' };
  if (id === 'hand-over')
    return { count: set.handedOver ? 'out' : '', state: set.handedOver ? 'done' : 'none' };
  const left = counts.open[id satisfies Stop];
  if (left > 0) return { count: `${left} left`, state: left < all ? 'part' : 'none' };
  if (id === 'arrange' && placesAreGuessed(set, counts)) return { count: 'to confirm', state: 'none' };
  return { count: '', state: 'done' };
}
