// A list whose items can be moved by a handle, with the pointer or from the keyboard; what is moved is said by its name.
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
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { CSSProperties, ReactNode } from 'react';

interface Props {
  ids: readonly UniqueIdentifier[];
  nameOf: (id: UniqueIdentifier) => string;
  /** The item goes to where another one stands, from 0. */
  move: (id: UniqueIdentifier, to: number) => void;
  children: ReactNode;
}

function announcementsFor({ ids, nameOf }: Pick<Props, 'ids' | 'nameOf'>): Announcements {
  const placeOf = (id: UniqueIdentifier) => `place ${ids.indexOf(id) + 1} of ${ids.length}`;
  return {
    onDragStart: ({ active }) => `${nameOf(active.id)} is picked up, at ${placeOf(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over ? `${nameOf(active.id)} is over ${nameOf(over.id)}, at ${placeOf(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) =>
      over ? `${nameOf(active.id)} is put down at ${placeOf(over.id)}.` : `${nameOf(active.id)} is put back.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} is put back where it was.`,
  };
}

export function SortableList({ ids, nameOf, move, children }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const to = over && active.id !== over.id ? ids.indexOf(over.id) : -1;
    if (to >= 0) move(active.id, to);
  };
  return (
    <DndContext
      accessibility={{ container: document.body, announcements: announcementsFor({ ids, nameOf }) }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** What makes an element movable. */
export interface Moving {
  row: (element: HTMLElement | null) => void;
  style: CSSProperties;
  handle: ReactNode;
}

/** What an item is moved by, inside `SortableList`. */
export function useMoving(id: UniqueIdentifier, name: string, className: string): Moving {
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
