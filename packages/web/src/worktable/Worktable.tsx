// The worktable: a photo a row, seen through the lens of the stop one is at. Only rows in view are drawn.
import { useVirtualizer } from '@tanstack/react-virtual';
import { SlidersHorizontal } from 'lucide-react';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { api } from '../api/client.ts';
import { PlacesSheet } from './PlacesSheet.tsx';
import { Proposal, useProposal } from './Proposal.tsx';
import { TableSheet } from '../describe/TableSheet.tsx';
import { useGathering, useReplacing } from '../gather/arrivals.ts';
import { OfferRows } from '../gather/OfferRows.tsx';
import { openSheet, useScreen } from '../screen/screen.ts';
import { clearSelection, moveCursor, select, selectAll } from '../editing/selection.ts';
import { useList } from '../server/hooks.ts';
import { idsUnder } from '../server/state.ts';
import type { ShellContext } from '../screen/shell-context.ts';
import { isTyping } from '../ui/typing.ts';
import { NotFound } from '../ui/NotFound.tsx';
import { isStop, stopOf } from '../screen/stops.ts';
import { ArrivalRows } from '../gather/ArrivalRows.tsx';
import { Bin } from './BinSheet.tsx';
import { binSelected } from '../editing/edits.ts';
import { Empty, Filters } from './Filters.tsx';
import { Foot } from './Foot.tsx';
import { HEADINGS, useLens } from './lenses.ts';
import { nextStep, nextWithoutWords, type Means } from './next-step.ts';
import { focusSoon } from '../ui/reveal.ts';
import { Row } from './Row.tsx';
import { Head } from '../ui/Head.tsx';

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

/** A row that is being read. */
function Blank({ height }: { height: number }) {
  return (
    <div role="row" aria-busy="true" className="border-b border-rule bg-sheet" style={{ height }}>
      <div role="gridcell" className="px-[56px] py-4 text-ink-3">
        Reading…
      </div>
    </div>
  );
}

export function Worktable() {
  const params = useParams();
  const setId = Number(params.setId);
  const stop =
    isStop(params.stop) && params.stop !== 'rehearse' && params.stop !== 'arrange' ? params.stop : 'gather';
  const lens = useLens(stop);
  const navigate = useNavigate();
  const shell = useOutletContext<ShellContext>();
  const { chooseFiles } = shell;
  const arriving = useGathering((state) => state.arrivals.length > 0);
  const replacing = useReplacing();
  const filter = useScreen((state) => state.filter);
  const sheet = useScreen((state) => state.sheet);
  const proposal = useProposal();
  const cursor = useScreen((state) => state.cursor);
  const [range, setRange] = useState({ from: 0, to: 0 });
  const list = useList(filter, range.from, range.to);
  const { ids: shown, total } = list;
  // Rows ask for it when they are clicked: a list that is read on while one scrolls draws none of them again.
  const latest = useRef(shown);
  useEffect(() => {
    latest.current = shown;
  }, [shown]);
  const lately = useCallback(() => latest.current, []);
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer's own hook; nothing here is memoized on it
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => lens.rowHeight,
    overscan: 4,
  });
  useEffect(() => virtual.measure(), [lens, virtual]);
  const items = virtual.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  if (from !== range.from || to !== range.to) setRange({ from, to });
  useEffect(() => {
    // Nothing is handed on: browsers return a promise here, which is no way to end an effect.
    scroller.current?.scrollTo({ top: 0 });
  }, [filter]);
  useAttention(
    setId,
    items.flatMap((item) => list.at(item.index) ?? []),
  );
  const bench = stop === 'weigh' || stop === 'describe' ? stop : 'frame';
  const open = useCallback(
    (id: number) => void navigate(`/sets/${setId}/${bench}/${id}`),
    [navigate, setId, bench],
  );
  const reveal = (id: number, index: number, focus: string) => {
    // Words are written where the table has a column for them.
    const needsWords =
      focus.includes('data-alt-of') && !lens.columns.some((c) => c === 'words' || c === 'text');
    if (needsWords) void navigate(`/sets/${setId}/describe`);
    virtual.scrollToIndex(index);
    focusSoon(
      () => scroller.current?.querySelector<HTMLElement>(focus) ?? null,
      () => useScreen.getState().cursor === id,
    );
  };
  const means: Means = { setId, chooseFiles, open, reveal };
  const step = nextStep(stop, means);

  /** Goes to the photo before or behind the cursor, also where it is not read yet. */
  const go = async (by: 1 | -1, extend: boolean) => {
    if (total === 0) return;
    const { cursor } = useScreen.getState();
    const here = cursor === null ? -1 : shown.indexOf(cursor);
    const at =
      here >= 0
        ? list.first + here
        : cursor === null
          ? by > 0
            ? -1
            : total
          : (await idsUnder(filter)).ids.indexOf(cursor);
    const index = Math.min(total - 1, Math.max(0, at + by));
    const next = list.at(index) ?? (await idsUnder(filter)).ids[index];
    if (next === undefined) return;
    moveCursor(next, shown, extend);
    reveal(next, index, `[data-row="${next}"]`);
  };
  const press = (event: KeyboardEvent | globalThis.KeyboardEvent) => {
    if (isTyping(event.target) || (event.target instanceof Element && event.target.closest('button'))) return;
    const { cursor, selected } = useScreen.getState();
    const key = event.key;
    if (key === 'ArrowDown' || key === 'ArrowUp') void go(key === 'ArrowDown' ? 1 : -1, event.shiftKey);
    else if (key === ' ' && cursor !== null) select(cursor, shown, { shift: false, toggle: true });
    else if (key === 'Enter' && cursor !== null && !event.shiftKey && !event.ctrlKey && !event.metaKey)
      open(cursor);
    else if (key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) selectAll();
    else if (key === 'Escape') clearSelection();
    else if (key === 'w' && !event.ctrlKey) nextWithoutWords(means);
    else if (key === 'Delete' && selected.size > 0) void binSelected(filter);
    else return;
    event.preventDefault();
  };

  const pressed = useRef(press);
  useEffect(() => {
    pressed.current = press;
  });
  useEffect(() => {
    // Where nothing has the focus the keys are the table's.
    const anywhere = (event: globalThis.KeyboardEvent) => {
      if (event.target === document.body && !document.querySelector('[role="dialog"]'))
        pressed.current(event);
    };
    document.addEventListener('keydown', anywhere);
    return () => document.removeEventListener('keydown', anywhere);
  }, []);

  if (params.stop !== undefined && !isStop(params.stop))
    return (
      <main className="bg-sheet p-8">
        <NotFound />
      </main>
    );
  const rows = (
    <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
      <div role="presentation" style={{ transform: `translateY(${items[0]?.start ?? 0}px)` }}>
        {items.map(({ index, key }) => {
          const id = list.at(index);
          if (id === undefined) return <Blank key={key} height={lens.rowHeight} />;
          const row = { id, index, lens, shown: lately, onOpen: open };
          return <Row key={id} {...row} />;
        })}
      </div>
    </div>
  );
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet [@media(max-height:560px)]:overflow-auto">
      <Head title={stopOf(stop).heading}>
        <Filters />
        <span className="ml-auto" />
        <Bin />
        {stop === 'weigh' ? (
          <>
            <Link className="btn max-[1100px]:px-2" to={`/sets/${setId}/limit`}>
              Page limit
            </Link>
            <Link className="btn max-[1100px]:px-2" to={`/sets/${setId}/rules`}>
              Rules
            </Link>
          </>
        ) : stop === 'describe' ? (
          <>
            <button className="btn max-[1100px]:px-2" onClick={() => openSheet('table')}>
              Table of words
            </button>
            <Link className="btn max-[1100px]:px-2" to={`/sets/${setId}/reading`}>
              Read aloud
            </Link>
          </>
        ) : (
          <button className="btn max-[1100px]:px-2" onClick={() => openSheet('places')}>
            <SlidersHorizontal size={14} aria-hidden="true" /> Places
          </button>
        )}
        {stop !== 'gather' && stop !== 'weigh' && stop !== 'describe' && (
          <button className="btn" onClick={chooseFiles}>
            Add photos
          </button>
        )}
        <button className="btn btn-main" onClick={step.act}>
          {step.label}
        </button>
      </Head>
      {(stop === 'gather' || replacing) && <ArrivalRows />}
      <OfferRows folded={stop !== 'gather'} />
      {proposal && <Proposal of={proposal} elsewhere />}
      {list.problem !== null && total === 0 ? (
        <p role="alert" className="p-8">
          {list.problem}
        </p>
      ) : total === 0 ? (
        !arriving && !list.reading && <Empty {...shell} />
      ) : (
        <div
          role="grid"
          data-work
          aria-label="Photos, arrow keys go through them"
          // The rows take the focus themselves; until one does, the grid says which one they go on from.
          tabIndex={0}
          aria-activedescendant={
            cursor !== null && items.some(({ index }) => list.at(index) === cursor)
              ? `photo-${cursor}`
              : undefined
          }
          aria-rowcount={total + 1}
          aria-multiselectable="true"
          className="flex min-h-[220px] flex-1 flex-col outline-offset-[-2px]"
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
          <div role="rowgroup" ref={scroller} className="min-h-0 flex-1 overflow-auto">
            {rows}
          </div>
        </div>
      )}
      <span className="mt-auto" />
      <Foot setId={setId} filter={filter} describing={stop === 'describe'} />
      {sheet === 'table' && <TableSheet setId={setId} onClose={() => openSheet(null)} />}
      <PlacesSheet open={sheet === 'places'} onClose={() => openSheet(null)} />
    </main>
  );
}
