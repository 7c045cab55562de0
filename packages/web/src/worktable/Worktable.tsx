// The worktable: a photo a row, seen through the lens of the stop one is at. Only rows in view are drawn.
import type { Filter, PhotoRow } from '@dusky-otter/core';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { useVirtualizer } from '@tanstack/react-virtual';
import { SlidersHorizontal } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import { useNavigate, useOutletContext, useParams } from 'react-router';
import { api } from '../api/client.ts';
import { PlacesSheet } from '../arrange/PlacesSheet.tsx';
import { useGathering } from '../gather/arrivals.ts';
import { isTyping, type ShellContext } from '../shell/SetShell.tsx';
import { NotFound } from '../shell/NotFound.tsx';
import { isStop, stopOf } from '../shell/stops.ts';
import { concernsFor, useCounts, useSameAlts, useSetSlots, useShownRows } from '../state/derived.ts';
import { clearSelection, moveCursor, select, selectAll } from '../state/selection.ts';
import { edit, openSheet, useWork } from '../state/store.ts';
import { ArrivalRows } from './ArrivalRows.tsx';
import { Bin } from './BinSheet.tsx';
import { putIntoBin } from './edits.ts';
import { Foot } from './Foot.tsx';
import { HEADINGS, useLens } from './lenses.ts';
import { nextStep, nextWithoutWords } from './next-step.ts';
import { Row } from './Row.tsx';

const FILTERS: { id: Filter; name: string }[] = [
  { id: 'all', name: 'All' },
  { id: 'words', name: 'Need words' },
  { id: 'crop', name: 'Check crop' },
  { id: 'budget', name: 'Over budget' },
  { id: 'small', name: 'Too small' },
  { id: 'ready', name: 'Ready' },
];

function Filters() {
  const filter = useWork((state) => state.filter);
  const counts = useCounts();
  return (
    <div role="group" aria-label="Show" className="flex min-w-0 gap-1 overflow-x-auto py-1">
      {FILTERS.map(({ id, name }) => (
        <button
          key={id}
          className="chip px-2"
          aria-pressed={filter === id}
          onClick={() => useWork.setState({ filter: id })}
        >
          {name} <b className="font-semibold">{counts[id]}</b>
        </button>
      ))}
    </div>
  );
}

function Empty({ chooseFiles, take }: ShellContext) {
  const any = useWork((state) => state.rows.length > 0);
  if (any) {
    return (
      <div className="p-10 text-center text-ink-2">
        No photo stands under this filter.{' '}
        <button className="btn ml-2" onClick={() => useWork.setState({ filter: 'all' })}>
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

/** Tells the server which rows are on screen: their versions are made first. */
function useAttention(setId: number, ids: readonly number[]): void {
  const seen = ids.join();
  useEffect(() => {
    const timer = setTimeout(() => {
      // A wish, not a change: when it gets lost the work is done in the set's order.
      api.attend(setId, seen ? seen.split(',').map(Number) : []).catch(() => undefined);
    }, 200);
    return () => clearTimeout(timer);
  }, [setId, seen]);
}

export function Worktable() {
  const params = useParams();
  const setId = Number(params.setId);
  const stop = isStop(params.stop) && params.stop !== 'rehearse' ? params.stop : 'gather';
  const lens = useLens(stop);
  const navigate = useNavigate();
  const shell = useOutletContext<ShellContext>();
  const { chooseFiles } = shell;
  const setSlots = useSetSlots();
  const same = useSameAlts();
  const rows = useShownRows();
  const arriving = useGathering((state) => state.arrivals.length > 0);
  const filter = useWork((state) => state.filter);
  const sheet = useWork((state) => state.sheet);
  const shown = useMemo(() => rows.map((row) => row.id), [rows]);
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer's own hook; nothing here is memoized on it
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => lens.rowHeight,
    overscan: 4,
  });
  useEffect(() => virtual.measure(), [lens, virtual]);
  const items = virtual.getVirtualItems();
  useAttention(
    setId,
    items.map((item) => shown[item.index]!),
  );
  const open = useCallback((id: number) => void navigate(`/sets/${setId}/frame/${id}`), [navigate, setId]);

  const reveal = (id: number, focus: string) => {
    virtual.scrollToIndex(shown.indexOf(id));
    requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(focus)?.focus());
  };
  const means = {
    rows,
    concernsFor: (row: PhotoRow) => concernsFor(row, setSlots, same),
    chooseFiles,
    open,
    reveal: (id: number, focus: string) => {
      // Words are written where the table has a column for them.
      const needsWords =
        focus.includes('data-alt-of') && !lens.columns.some((c) => c === 'words' || c === 'text');
      if (needsWords) void navigate(`/sets/${setId}/describe`);
      setTimeout(() => reveal(id, focus), 0);
    },
  };
  const step = nextStep(stop, means);
  const press = (event: KeyboardEvent) => {
    if (isTyping(event.target) || (event.target instanceof Element && event.target.closest('button'))) return;
    const { cursor, selected } = useWork.getState();
    const key = event.key;
    if (key === 'ArrowDown' || key === 'ArrowUp') {
      const next = moveCursor(key === 'ArrowDown' ? 1 : -1, shown, event.shiftKey);
      if (next !== null) reveal(next, `[data-row="${next}"]`);
    } else if (key === ' ' && cursor !== null) select(cursor, shown, { shift: false, toggle: true });
    else if (key === 'Enter' && cursor !== null && !event.shiftKey && !event.ctrlKey && !event.metaKey)
      open(cursor);
    else if (key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) selectAll(shown);
    else if (key === 'Escape') clearSelection();
    else if (key === 'w' && !event.ctrlKey) nextWithoutWords(means);
    else if (key === 'Delete' && rows.some((row) => selected.has(row.id)))
      putIntoBin(rows.filter((row) => selected.has(row.id)));
    else return;
    event.preventDefault();
  };

  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const order = useWork.getState().set?.order ?? [];
    if (!over || active.id === over.id) return;
    const next = arrayMove(order, order.indexOf(Number(active.id)), order.indexOf(Number(over.id)));
    edit('order of the photos', [{ kind: 'set', change: { order: next } }]);
  };

  if (params.stop !== undefined && !isStop(params.stop))
    return (
      <main className="bg-sheet p-8">
        <NotFound />
      </main>
    );
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet [@media(max-height:560px)]:overflow-auto">
      <div className="flex min-h-[52px] shrink-0 items-center gap-2.5 border-b border-rule px-4 max-[700px]:flex-wrap max-[700px]:py-2">
        <h1 className="mr-1.5 whitespace-nowrap text-[20px] font-[620] leading-none tracking-[-.015em]">
          {stopOf(stop).heading}
        </h1>
        <Filters />
        <span className="ml-auto" />
        <Bin />
        <button className="btn max-[1100px]:px-2" onClick={() => openSheet('places')}>
          <SlidersHorizontal size={14} aria-hidden="true" /> Places
        </button>
        {stop !== 'gather' && (
          <button className="btn" onClick={chooseFiles}>
            Add photos
          </button>
        )}
        <button className="btn btn-main" onClick={step.act}>
          {step.label}
        </button>
      </div>
      {stop === 'gather' && <ArrivalRows />}
      {rows.length === 0 ? (
        !arriving && <Empty {...shell} />
      ) : (
        <div
          role="grid"
          aria-label="Photos"
          aria-rowcount={rows.length + 1}
          aria-multiselectable="true"
          className="flex min-h-[220px] flex-1 flex-col"
          onKeyDown={press}
        >
          <div
            role="row"
            aria-rowindex={1}
            className="grid h-[28px] shrink-0 border-b border-rule-strong bg-paper text-[11.5px] font-[560] leading-[28px] text-ink-2 max-[700px]:hidden"
            style={{ gridTemplateColumns: `46px ${lens.widths}` }}
          >
            <span role="columnheader">
              <span className="sr-only">Number</span>
            </span>
            {lens.columns.map((column) => (
              <span
                key={column}
                role="columnheader"
                className={`truncate px-2.5 ${column === 'seal' ? 'text-center' : ''}`}
              >
                {HEADINGS[column]}
              </span>
            ))}
          </div>
          <div
            role="rowgroup"
            ref={scroller}
            className="min-h-0 flex-1 overflow-auto"
            tabIndex={0}
            aria-label="Photos, arrow keys go through them"
          >
            <DndContext
              accessibility={{ container: document.body }}
              sensors={sensors}
              collisionDetection={closestCenter}
              onDragEnd={drop}
            >
              <SortableContext items={[...shown]} strategy={verticalListSortingStrategy}>
                <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
                  <div role="presentation" style={{ transform: `translateY(${items[0]?.start ?? 0}px)` }}>
                    {items.map((item) => {
                      const row = rows[item.index]!;
                      return (
                        <Row
                          key={row.id}
                          row={row}
                          index={item.index}
                          lens={lens}
                          setSlots={setSlots}
                          shown={shown}
                          onOpen={open}
                          sortable={stop === 'arrange' && filter === 'all'}
                        />
                      );
                    })}
                  </div>
                </div>
              </SortableContext>
            </DndContext>
          </div>
        </div>
      )}
      <span className="mt-auto" />
      <Foot setId={setId} shown={rows} />
      <PlacesSheet open={sheet === 'places'} onClose={() => openSheet(null)} />
    </main>
  );
}
