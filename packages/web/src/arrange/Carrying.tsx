// Dragging photos between places: what is picked goes along, and a line shows where it would be put.
import {
  DndContext,
  DragOverlay,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
} from '@dnd-kit/core';
import { useState, type ReactNode } from 'react';
import { some } from '../ui/some.ts';
import { beforeAt, type Carried } from './shelves.ts';

/** Where photos would go: a place and the photo before which; behind all where none is named. */
interface Gap {
  slot: string;
  before: number | null;
}

interface Props {
  /** Photos that go along with one that is taken at a place. */
  idsOf: (place: string, id: number) => readonly number[];
  drop: (carried: Carried) => void;
  /** What is drawn, told where the line is in a place. */
  children: (gapIn: (slot: string) => number | null | undefined) => ReactNode;
}

/** A place's name, or null for a tray. */
const placeIn = (name: string): string | null => (name.endsWith('/') ? null : name);

function taken(name: string): { place: string; id: number } {
  const at = name.lastIndexOf('|');
  return { place: name.slice(0, at), id: Number(name.slice(at + 1)) };
}

/** Where the pointer is between the pictures of a board. */
function gapUnder({ activatorEvent, delta, over }: DragMoveEvent | DragEndEvent): Gap | null {
  if (!over || placeIn(String(over.id)) === null) return null;
  const slot = String(over.id);
  const start =
    activatorEvent instanceof TouchEvent ? activatorEvent.touches[0] : (activatorEvent as MouseEvent);
  const drawn = [...document.querySelectorAll<HTMLElement>(`[data-shelf="${CSS.escape(slot)}"] [data-id]`)]
    .map((element) => {
      const { left, width } = element.getBoundingClientRect();
      return { id: Number(element.dataset.id), middle: left + width / 2 };
    })
    .sort((a, b) => a.middle - b.middle);
  return { slot, before: beforeAt((start?.clientX ?? 0) + delta.x, drawn) };
}

export function Carrying({ idsOf, drop, children }: Props) {
  const [gap, setGap] = useState<Gap | null>(null);
  const [count, setCount] = useState(0);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    // A finger that moves at once scrolls.
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 6 } }),
  );
  const end = (event: DragEndEvent) => {
    const { place, id } = taken(String(event.active.id));
    const there = gapUnder(event);
    setGap(null);
    setCount(0);
    if (!event.over) return;
    drop({
      from: placeIn(place),
      to: there?.slot ?? null,
      ids: idsOf(place, id),
      before: there?.before ?? null,
    });
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      // Keys have acts of their own, which are said as they are done.
      accessibility={{ container: document.body, screenReaderInstructions: { draggable: '' } }}
      onDragStart={({ active }) => {
        const { place, id } = taken(String(active.id));
        setCount(idsOf(place, id).length);
      }}
      onDragMove={(event) => {
        const now = gapUnder(event);
        setGap((was) => (was?.slot === now?.slot && was?.before === now?.before ? was : now));
      }}
      onDragEnd={end}
      onDragCancel={() => {
        setGap(null);
        setCount(0);
      }}
    >
      {children((slot) => (gap?.slot === slot ? gap.before : undefined))}
      <DragOverlay dropAnimation={null}>
        {count > 0 && (
          <span className="inline-block rounded-paper border border-kelp bg-sheet px-2 py-1 text-[12.5px] font-semibold shadow-md">
            {some(count, 'photo', 'photos')}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}
