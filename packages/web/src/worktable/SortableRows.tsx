// Rows that can be moved by a handle, with the pointer or from the keyboard. Tables that can't be sorted are drawn without:
// each row that listens to a drag is drawn again whenever the table scrolls.
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { shownName } from '@dusky-otter/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { type ReactNode } from 'react';
import { rowAt } from '../server/hooks.ts';
import { moveBetween } from './edits.ts';
import { Row, type Moving, type RowProps } from './Row.tsx';

interface Props {
  setId: number;
  /** Photos as far as they are read, in order. */
  shown: readonly number[];
  children: ReactNode;
}

/** What is said while a photo is moved: photos by name, places by how many there are. */
function announcementsFor(setId: number, shown: readonly number[]): Announcements {
  const nameOf = (id: UniqueIdentifier) => {
    const row = rowAt(setId, Number(id));
    return row ? shownName(row.words, row.fileName) : 'The photo';
  };
  const placeOf = (id: UniqueIdentifier) => `place ${shown.indexOf(Number(id)) + 1} of ${shown.length}`;
  return {
    onDragStart: ({ active }) => `${nameOf(active.id)} is picked up, at ${placeOf(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over ? `${nameOf(active.id)} is over ${nameOf(over.id)}, at ${placeOf(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) =>
      over ? `${nameOf(active.id)} is put down at ${placeOf(over.id)}.` : `${nameOf(active.id)} is put back.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} is put back where it was.`,
  };
}

export function SortableRows({ setId, shown, children }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const [old, now] = [shown.indexOf(Number(active.id)), shown.indexOf(Number(over.id))];
    const left = shown.filter((id) => id !== Number(active.id));
    const rowOf = (id: number | undefined) => (id === undefined ? null : rowAt(setId, id));
    const row = rowOf(Number(active.id));
    if (row && old >= 0 && now >= 0) moveBetween(row, rowOf(left[now - 1]), rowOf(left[now]));
  };
  return (
    <DndContext
      accessibility={{ container: document.body, announcements: announcementsFor(setId, shown) }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
    >
      <SortableContext items={[...shown]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** What a photo is moved by, inside `SortableRows`. */
export function useMoving(id: number, name: string, className: string): Moving {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id });
  const handle = (
    <button
      ref={setActivatorNodeRef}
      {...attributes}
      {...listeners}
      role="button"
      aria-label={`Move ${name}`}
      className={`cursor-grab text-ink-3 ${className}`}
    >
      <GripVertical size={14} aria-hidden="true" />
    </button>
  );
  const style = {
    transform: CSS.Translate.toString(transform),
    transition,
    zIndex: isDragging ? 5 : undefined,
  };
  return { row: setNodeRef, style, handle };
}

export const SortableRow = ({ name, ...props }: RowProps & { name: string }) => (
  <Row {...props} moving={useMoving(props.id, name, '')} />
);
