// Several changes of places that wait: applied at once, as one step that one undo takes back, or dropped.
import type { Site, Slot } from '@dusky-otter/core/contract';
import { useQueries } from '@tanstack/react-query';
import { useSetId } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';
import { some } from '../ui/some.ts';
import { costQuery, useRested } from './cost.ts';
import { draftOf, dropDraft, finished, useDrafts, widthRead } from './drafts.ts';

const sumOf = (numbers: readonly number[]): number => numbers.reduce((sum, one) => sum + one, 0);

/** What all changes together make, in words; each place is counted by itself, once nothing is typed any more. */
function useCost(site: Site, values: readonly Slot[]): string {
  const setId = useSetId();
  const asked = useRested(values);
  const answers = useQueries({
    queries: asked.map((value) => ({
      ...costQuery(setId, value, site.version),
      enabled: asked.length > 1,
    })),
  });
  const error = answers.find((answer) => answer.error)?.error;
  if (error) return error.message;
  const costs = answers.flatMap(({ data }) => data ?? []);
  const isCounted = costs.length === values.length && JSON.stringify(asked) === JSON.stringify(values);
  if (!isCounted) return 'Counting the files…';
  return `${sumOf(costs.map(({ toMake }) => toMake))} files to be made, ${sumOf(costs.map(({ toGo }) => toGo))} go.`;
}

/** @param places those of the site, as they are saved */
export function ApplyAll({ site, places }: { site: Site; places: readonly Slot[] }) {
  const drafts = useDrafts();
  const waiting = places.flatMap(({ id }) => draftOf(drafts, site.id, id) ?? []);
  const ready = waiting.filter(
    ({ slot, width }) => slot.name.trim() !== '' && widthRead(width).read !== null,
  );
  const values = ready.map(({ slot }) => finished(slot));
  const cost = useCost(site, values);
  if (waiting.length < 2) return null;
  const dropAll = () => {
    for (const { slot } of waiting) dropDraft(site.id, slot.id);
  };
  const apply = () => {
    edit(
      some(values.length, 'place', 'places'),
      values.map((value) => ({ kind: 'slot', slot: value.id, value })),
    );
    for (const { id } of values) dropDraft(site.id, id);
  };
  const unread = waiting.length - ready.length;
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-rule-strong bg-raised px-4 py-2">
      <StateTag state={unread > 0 ? 'stop' : 'care'}>{`${waiting.length} changes not applied yet`}</StateTag>
      <span role="status" className="text-ink-2">
        {cost}
        {unread > 0 && ` ${unread} of them can’t be read yet, and ${unread === 1 ? 'stays' : 'stay'}.`}
      </span>
      <span className="ml-auto" />
      <button className="btn" onClick={dropAll}>
        Drop all
      </button>
      <button className="btn btn-main" disabled={values.length === 0} onClick={apply}>
        {unread > 0 ? `Apply ${values.length}` : 'Apply all'}
      </button>
    </div>
  );
}
