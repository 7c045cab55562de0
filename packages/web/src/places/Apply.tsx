// A change that is not applied yet: what it costs, and the buttons that make it or drop it.
import type { Site, Slot } from '@dusky-otter/core/contract';
import { useQuery } from '@tanstack/react-query';
import { useSetId } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';
import { costQuery, useRested } from './cost.ts';
import { dropDraft, finished } from './drafts.ts';

/** What a change costs, and the buttons that make it or drop it. */
export function Apply({ site, slot, readable }: { site: Site; slot: Slot; readable: boolean }) {
  const setId = useSetId();
  const value = finished(slot);
  const asked = useRested(value);
  const named = value.name !== '';
  const {
    data: cost,
    isFetching,
    error,
  } = useQuery({
    ...costQuery(setId, asked, site.version),
    enabled: readable && named && asked.name !== '',
    placeholderData: (before) => before,
  });
  // What is said is what would be made: a count of before the last stroke is none.
  const counted = !isFetching && JSON.stringify(asked) === JSON.stringify(value);
  const apply = () => {
    edit(`place ${value.name}`, [{ kind: 'slot', slot: slot.id, value }]);
    dropDraft(site.id, slot.id);
  };
  const said = !named
    ? 'A place needs a name.'
    : !readable
      ? 'Its width can’t be read yet.'
      : error
        ? error.message
        : cost && counted
          ? cost.photos === 0
            ? 'No photo stands in it: nothing is made anew.'
            : `${cost.files} files for ${cost.photos} ${cost.photos === 1 ? 'photo' : 'photos'}: ${cost.toMake} to be made, ${cost.toGo} go.`
          : 'Counting the files…';
  return (
    <div className="col-span-full flex flex-wrap items-center gap-2 border-t border-rule-strong bg-raised px-4 py-2">
      <StateTag state={readable && named && !error ? 'care' : 'stop'}>Not applied yet</StateTag>
      <span role="status" className="text-ink-2">
        {said}
      </span>
      <span className="ml-auto" />
      <button className="btn" onClick={() => dropDraft(site.id, slot.id)}>
        Drop the change
      </button>
      <button
        className="btn btn-main"
        disabled={!readable || !named || !counted || error !== null}
        onClick={apply}
      >
        Apply
      </button>
    </div>
  );
}
