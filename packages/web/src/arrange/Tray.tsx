// Photos of the set beside its places: those that stand nowhere yet, and all of them with the number of places they stand in.
import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { Filter } from '@dusky-otter/core/contract';
import { frameSpace } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { slotsOf } from '@dusky-otter/core/plan';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { useScreen } from '../screen/screen.ts';
import { useList, useRows, useSetPlaces, type Row } from '../server/hooks.ts';
import { CropPicture } from '../ui/CropPicture.tsx';
import { useSize } from '../ui/stage.ts';

/** Side by side at least. */
const ACROSS = 3;
const [WIDTH, HEIGHT, GAP] = [58, 44, 6];

export interface TrayProps {
  filter: Extract<Filter, 'all' | 'unplaced'>;
  name: string;
  isFrom: boolean;
  onPick: (id: number, shown: readonly number[], event: MouseEvent) => void;
  onOpen: (id: number) => void;
}

interface TileProps {
  row: Row;
  filter: string;
  n: number;
  of: number;
  picked: boolean;
  reached: boolean;
  onPick: (event: MouseEvent) => void;
  onKey: (event: KeyboardEvent) => void;
  onOpen: () => void;
}

function Tile({ row, filter, n, of, picked, reached, onPick, onKey, onOpen }: TileProps) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `${filter}/|${row.id}` });
  const places = slotsOf(row, useSetPlaces()).length;
  const name = shownName(row.words, row.fileName);
  const space = frameSpace(row.original, row.frame);
  // Its middle, as wide as the tile: what it is, not how it will be cut.
  const part = Math.min(1, WIDTH / HEIGHT / (space.width / space.height));
  const tall = Math.min(1, space.width / space.height / (WIDTH / HEIGHT));
  const crop = {
    x: (space.width * (1 - part)) / 2,
    y: (space.height * (1 - tall)) / 2,
    width: space.width * part,
    height: space.height * tall,
  };
  const where = places === 0 ? 'no place yet' : places === 1 ? 'in 1 place' : `in ${places} places`;
  return (
    <button
      ref={setNodeRef}
      role="option"
      {...listeners}
      onKeyDown={onKey}
      onClick={onPick}
      onDoubleClick={onOpen}
      data-tray={row.id}
      aria-selected={picked}
      aria-setsize={of}
      aria-posinset={n + 1}
      aria-label={`${name}, ${where}`}
      title={`${name}, ${where}`}
      tabIndex={reached ? 0 : -1}
      className={`picture-button block ${picked ? 'is-picked' : places === 0 ? 'is-waiting' : ''} ${isDragging ? 'opacity-40' : ''}`}
      style={{ width: WIDTH, height: HEIGHT }}
    >
      <CropPicture photo={row} crop={crop} width={WIDTH} height={HEIGHT} />
      {places > 0 && (
        <i
          aria-hidden="true"
          className="absolute bottom-0 right-0 bg-sheet px-1 font-figure text-[11px] font-[650] not-italic leading-[15px] text-ink"
        >
          {places}
        </i>
      )}
    </button>
  );
}

export function Tray({ filter, name, isFrom, onPick, onOpen }: TrayProps) {
  const [room, { width }] = useSize<HTMLDivElement>();
  const across = Math.max(ACROSS, Math.floor((width + GAP) / (WIDTH + GAP)));
  const scroller = useRef<HTMLDivElement>(null);
  const { setNodeRef } = useDroppable({ id: `${filter}/` });
  const selected = useScreen((state) => state.selected);
  const cursor = useScreen((state) => state.cursor);
  const [range, setRange] = useState({ from: 0, to: 0 });
  const list = useList(filter, range.from, range.to);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer's own hook; nothing here is memoized on it
  const virtual = useVirtualizer({
    count: Math.ceil(list.total / across),
    getScrollElement: () => scroller.current,
    estimateSize: () => HEIGHT + GAP,
    overscan: 3,
  });
  const lines = virtual.getVirtualItems();
  const [from, to] = [(lines[0]?.index ?? 0) * across, ((lines.at(-1)?.index ?? 0) + 1) * across - 1];
  if (from !== range.from || to !== range.to) setRange({ from, to });
  const cells = lines.flatMap(({ index, start }) =>
    Array.from({ length: across }, (_, column) => ({ n: index * across + column, start, column })).filter(
      ({ n }) => n < list.total,
    ),
  );
  const rows = new Map(
    useRows(cells.flatMap(({ n }) => list.at(n) ?? [])).map((row) => [row.id, row] as const),
  );
  const at = isFrom && cursor !== null ? list.first + list.ids.indexOf(cursor) : -1;
  const isHere = at >= list.first && list.at(at) === cursor;
  const [focus, setFocus] = useState<number | null>(null);
  useEffect(() => {
    if (focus === null) return;
    const id = list.at(focus);
    scroller.current?.querySelector<HTMLElement>(`[data-tray="${id}"]`)?.focus();
  }, [focus, list]);
  const go = (n: number) => {
    const to = Math.min(list.total - 1, Math.max(0, n));
    virtual.scrollToIndex(Math.floor(to / across));
    setFocus(to);
  };
  const press = (n: number) => (event: KeyboardEvent) => {
    const steps: Record<string, number> = {
      ArrowLeft: n - 1,
      ArrowRight: n + 1,
      ArrowUp: n - across,
      ArrowDown: n + across,
      Home: 0,
      End: list.total - 1,
    };
    const to = steps[event.key];
    if (to === undefined) return;
    event.preventDefault();
    go(to);
  };
  return (
    <div ref={setNodeRef} className="min-h-0 flex-1 overflow-hidden">
      <div ref={scroller} className="h-full overflow-auto px-3.5 pb-3">
        <div
          ref={room}
          {...(list.total > 0 && { role: 'listbox', 'aria-multiselectable': true, 'aria-label': name })}
          className="relative"
          style={{ height: virtual.getTotalSize() }}
        >
          {cells.map(({ n, start, column }) => {
            const id = list.at(n);
            const row = id === undefined ? undefined : rows.get(id);
            return (
              <span
                key={id ?? `blank ${n}`}
                role="presentation"
                className="absolute"
                style={{ top: start, left: column * (WIDTH + GAP) }}
              >
                {row ? (
                  <Tile
                    {...{ row, filter, n }}
                    of={list.total}
                    picked={isFrom && selected.has(row.id)}
                    reached={isHere ? n === at : n === (focus ?? 0)}
                    onPick={(event) => onPick(row.id, list.ids, event)}
                    onKey={press(n)}
                    onOpen={() => onOpen(row.id)}
                  />
                ) : (
                  <span className="block bg-neutral" style={{ width: WIDTH, height: HEIGHT }} />
                )}
              </span>
            );
          })}
        </div>
      </div>
    </div>
  );
}
