// A row of a list that is put in order: its handle, what it shows, and whether it is in hand. Its panel lies beside the list.
import type { ReactNode } from 'react';
import { useMoving } from './SortableList.tsx';

interface Props {
  id: string | number;
  name: string;
  about: string;
  /** What it looks like, small. */
  picture: ReactNode;
  inHand: boolean;
  take: () => void;
  title?: string;
  /** Stands between the handle and the picture. */
  children?: ReactNode;
}

export function HandRow({ id, name, about, picture, inHand, take, title, children }: Props) {
  const { row, style, handle } = useMoving(id, name, 'grid size-[28px] shrink-0 place-items-center');
  return (
    <li
      ref={row}
      className={`relative flex min-h-[52px] items-center gap-1.5 border-t border-rule py-1.5 pl-1 pr-2 ${inHand ? 'bg-kelp-soft' : 'bg-sheet'}`}
      style={style}
    >
      {handle}
      {children}
      <button
        className="flex min-w-0 flex-1 items-center gap-2 text-left"
        aria-pressed={inHand}
        title={title}
        onClick={take}
      >
        {picture}
        <span className="min-w-0 flex-1">
          <b className="block truncate font-semibold">{name}</b>
          <small className="text-[12px] text-ink-2">{about}</small>
        </span>
      </button>
    </li>
  );
}
