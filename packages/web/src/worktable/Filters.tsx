// What of the set stands on the table: the filters with their counts, and what to do where nothing does.
import type { Filter } from '@dusky-otter/core/contract';
import { useScreen } from '../screen/screen.ts';
import { useCounts } from '../server/hooks.ts';
import type { ShellContext } from '../screen/shell-context.ts';

const FILTERS: { id: Filter; name: string }[] = [
  { id: 'all', name: 'All' },
  { id: 'words', name: 'Need words' },
  { id: 'crop', name: 'Check crop' },
  { id: 'budget', name: 'Over budget' },
  { id: 'small', name: 'Too small' },
  { id: 'ready', name: 'Ready' },
];

export function Filters() {
  const filter = useScreen((state) => state.filter);
  const counts = useCounts();
  return (
    <div role="group" aria-label="Show" className="flex min-w-0 gap-1 overflow-x-auto py-1">
      {FILTERS.map(({ id, name }) => (
        <button
          key={id}
          className="chip px-2 max-[1120px]:gap-1 max-[1120px]:px-1.5 max-[1120px]:text-[12px]"
          aria-pressed={filter === id}
          onClick={() => useScreen.setState({ filter: id })}
        >
          {name} <b className="font-semibold">{counts?.filters[id] ?? '–'}</b>
        </button>
      ))}
    </div>
  );
}

export function Empty({ chooseFiles, take }: ShellContext) {
  const any = (useCounts()?.filters.all ?? 0) > 0;
  if (any) {
    return (
      <div className="p-10 text-center text-ink-2">
        No photo stands under this filter.{' '}
        <button className="btn ml-2" onClick={() => useScreen.setState({ filter: 'all' })}>
          Show all
        </button>
      </div>
    );
  }
  return (
    <div className="m-auto max-w-[460px] p-10 text-center">
      <h2 className="text-[20px] font-[620]">Drop photos anywhere on this window</h2>
      <p className="my-3 text-ink-2">
        Files or folders, straight from the camera. The originals are kept as they are; each photo gets a row
        that shows what becomes of it.
      </p>
      <div className="flex justify-center gap-2">
        <button className="btn btn-main" onClick={chooseFiles}>
          Choose photos
        </button>
        <label className="btn cursor-pointer focus-within:outline-2 focus-within:outline-focus">
          Choose a folder
          <input
            type="file"
            className="sr-only"
            multiple
            {...{ webkitdirectory: '' }}
            onChange={(event) => take([...(event.target.files ?? [])])}
          />
        </label>
      </div>
    </div>
  );
}
