// The photos of one place side by side, in its crop and its order: however many there are, those in view are drawn.
import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { Slot } from '@dusky-otter/core/contract';
import { ratioOf } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { cropIn } from '@dusky-otter/core/plan';
import { shapeAt } from '@dusky-otter/core/slots';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import { useScreen } from '../screen/screen.ts';
import { useRows, type Row } from '../server/hooks.ts';
import { CropPicture } from '../ui/CropPicture.tsx';
import { stageFor } from '../ui/stage.ts';

const GAP = 6;
/** Of a picture that keeps its own shape, in px. */
const WHOLE = 84;

export interface BoardProps {
  slot: Slot;
  /** Photos that stand in it, in its order. */
  ids: readonly number[];
  height: number;
  /** The place that the selection was made in. */
  isFrom: boolean;
  /** Where what is carried would be put: before this photo, behind all (null), or not here (undefined). */
  gap: number | null | undefined;
  onPick: (id: number, event: MouseEvent) => void;
  onKey: (id: number, event: KeyboardEvent) => void;
  onOpen: (id: number) => void;
}

interface PictureProps extends Pick<BoardProps, 'slot' | 'height' | 'onPick' | 'onKey' | 'onOpen'> {
  row: Row;
  n: number;
  of: number;
  width: number;
  picked: boolean;
  /** The one that Tab comes to. */
  reached: boolean;
}

function Picture({ row, slot, n, of, width, height, picked, reached, onPick, onKey, onOpen }: PictureProps) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `${slot.id}|${row.id}` });
  const shape = (shapeAt(slot, 1280) ?? slot.shapes[0]!).shape;
  const crop = cropIn(row, slot.id, shape);
  const ratio = ratioOf(shape, crop);
  const size = stageFor({ width: ratio * 1000, height: 1000 }, { width, height });
  const name = shownName(row.words, row.fileName);
  return (
    <button
      ref={setNodeRef}
      role="option"
      {...listeners}
      onKeyDown={(event) => onKey(row.id, event)}
      onClick={(event) => onPick(row.id, event)}
      onDoubleClick={() => onOpen(row.id)}
      data-at={`${slot.id} ${row.id}`}
      data-id={row.id}
      aria-selected={picked}
      aria-setsize={of}
      aria-posinset={n + 1}
      aria-label={name}
      title={name}
      tabIndex={reached ? 0 : -1}
      className={`picture-button grid place-items-center ${picked ? 'is-picked' : ''} ${isDragging ? 'opacity-40' : ''}`}
      style={{ width, height }}
    >
      <CropPicture photo={row} crop={crop} width={Math.round(size.width)} height={Math.round(size.height)} />
    </button>
  );
}

export function Board({ slot, ids, height, isFrom, gap, onPick, onKey, onOpen }: BoardProps) {
  const { setNodeRef } = useDroppable({ id: slot.id });
  const scroller = useRef<HTMLDivElement>(null);
  const selected = useScreen((state) => state.selected);
  const cursor = useScreen((state) => state.cursor);
  const { shape } = shapeAt(slot, 1280) ?? slot.shapes[0]!;
  const ratio = shape === 'own' ? WHOLE / height : ratioOf(shape, { width: 1, height: 1 });
  const width = Math.round(Math.min(height * ratio, height * 2.5));
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer's own hook; nothing here is memoized on it
  const virtual = useVirtualizer({
    horizontal: true,
    count: ids.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => width + GAP,
    overscan: 3,
  });
  useEffect(() => virtual.measure(), [width, virtual]);
  const at = isFrom && cursor !== null ? ids.indexOf(cursor) : -1;
  // Whoever goes along the row by keys sees where they are.
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at);
  }, [at, virtual]);
  const items = virtual.getVirtualItems();
  const rows = new Map(
    useRows(items.flatMap(({ index }) => ids[index] ?? [])).map((row) => [row.id, row] as const),
  );
  const marker = (
    <span aria-hidden="true" className="absolute -left-[4.5px] top-0 w-[3px] bg-kelp" style={{ height }} />
  );
  return (
    <div
      ref={setNodeRef}
      data-shelf={slot.id}
      className={`min-w-0 flex-1 self-start border-b-4 ${gap === undefined ? 'border-rule-strong' : 'border-kelp'}`}
    >
      <div ref={scroller} className="overflow-x-auto overflow-y-hidden" style={{ minHeight: height }}>
        {ids.length === 0 ? (
          <p className="grid content-center text-[12.5px] text-ink-2" style={{ height }}>
            No photo stands here yet. Drop some on it, or take +.
          </p>
        ) : (
          <div
            role="listbox"
            aria-multiselectable="true"
            aria-orientation="horizontal"
            aria-label={`Photos in ${slot.name}`}
            className="relative"
            style={{ width: virtual.getTotalSize(), height }}
          >
            {items.map(({ index, start }) => {
              const id = ids[index]!;
              const row = rows.get(id);
              return (
                <span key={id} role="presentation" className="absolute top-0" style={{ left: start }}>
                  {gap === id && marker}
                  {row ? (
                    <Picture
                      {...{ row, slot, width, height, onPick, onKey, onOpen }}
                      n={index}
                      of={ids.length}
                      picked={isFrom && selected.has(id)}
                      reached={at >= 0 ? at === index : index === 0}
                    />
                  ) : (
                    <span className="block bg-neutral" style={{ width, height }} />
                  )}
                </span>
              );
            })}
            {gap === null && (
              <span className="absolute top-0" style={{ left: virtual.getTotalSize() }}>
                {marker}
              </span>
            )}
          </div>
        )}
      </div>
    </div>
  );
}
