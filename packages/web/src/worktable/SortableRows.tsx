// Rows that can be moved. Tables that can't be sorted are drawn without: each row that listens to a drag is drawn again
// whenever the table scrolls.
import { shownName } from '@dusky-otter/core/naming';
import type { ReactNode } from 'react';
import { rowAt } from '../server/hooks.ts';
import { SortableList, useMoving } from '../ui/SortableList.tsx';
import { moveBetween } from '../editing/edits.ts';
import { Row, type RowProps } from './Row.tsx';

interface Props {
  setId: number;
  /** Photos as far as they are read, in order. */
  shown: readonly number[];
  children: ReactNode;
}

export function SortableRows({ setId, shown, children }: Props) {
  const rowOf = (id: number | undefined) => (id === undefined ? null : rowAt(setId, id));
  const move = (id: number, to: number) => {
    const left = shown.filter((one) => one !== id);
    const row = rowOf(id);
    if (row) moveBetween(row, rowOf(left[to - 1]), rowOf(left[to]));
  };
  return (
    <SortableList
      ids={shown}
      nameOf={(id) => {
        const row = rowOf(Number(id));
        return row ? shownName(row.words, row.fileName) : 'The photo';
      }}
      move={(id, to) => move(Number(id), to)}
    >
      {children}
    </SortableList>
  );
}

export const SortableRow = ({ name, ...props }: RowProps & { name: string }) => (
  <Row {...props} moving={useMoving(props.id, name, '')} />
);
