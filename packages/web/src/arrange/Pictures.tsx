// The pictures of an arrangement in their order: moved by hand or by keys, taken out, and others put in.
import type { UniqueIdentifier } from '@dnd-kit/core';
import { movedBefore } from '@dusky-otter/core/arrange';
import type { Arrangement, Order } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { notifyFailure } from '../screen/screen.ts';
import { useSetId, useSet, useSite, type Row } from '../server/hooks.ts';
import { HandRow } from '../ui/HandRow.tsx';
import { SortableList } from '../ui/SortableList.tsx';
import { photosOf } from '../editing/photos.ts';
import { takeOut } from '../editing/placing.ts';
import { AddSheet } from './AddSheet.tsx';
import { orderBy, putInOrder } from './edits.ts';
import { Thumb } from './Thumb.tsx';

const ORDERS: readonly { name: string; hint: string; order: () => Exclude<Order, 'hand'> }[] = [
  { name: 'Time taken', hint: 'the oldest first', order: () => 'taken' },
  { name: 'Name', hint: '2 before 10', order: () => 'name' },
  { name: 'Colour', hint: 'greys last', order: () => 'colour' },
  // Another one each time; undo brings the order before.
  {
    name: 'Chance',
    hint: 'shuffled anew',
    order: () => ({ seed: crypto.getRandomValues(new Uint32Array(1))[0]! }),
  },
];

interface PictureProps {
  row: Row;
  n: number;
  of: number;
  picked: boolean;
  /** Alone, or beside those that are picked already. */
  pick: (beside: boolean) => void;
  inHand: boolean;
}

function Picture({ row, n, of, picked, pick, inHand }: PictureProps) {
  const name = shownName(row.words, row.fileName);
  return (
    <HandRow
      id={row.id}
      name={name}
      about={`${n + 1} of ${of}`}
      picture={<Thumb row={row} />}
      inHand={inHand}
      title="What differs here alone"
      take={() => pick(false)}
    >
      <input
        type="checkbox"
        className="size-[18px] shrink-0 accent-kelp"
        aria-label={`Pick ${name}`}
        checked={picked}
        onChange={() => pick(true)}
      />
    </HandRow>
  );
}

interface Props {
  arrangement: Arrangement;
  /** All photos that stand in it, in its order. */
  ids: readonly number[];
  /** The first of them, as many as are listed. */
  rows: readonly Row[];
  /** It is not known yet who stands in it. */
  reading: boolean;
  picked: ReadonlySet<number>;
  setPicked: (ids: ReadonlySet<number>) => void;
  /** The one whose own words, link and crop are shown. */
  inHand: number | null;
  take: (id: number | null) => void;
}

export function Pictures({ arrangement, ids, rows, reading, picked, setPicked, inHand, take }: Props) {
  const [adding, setAdding] = useState(false);
  const setId = useSetId();
  const site = useSite()!;
  const set = useSet()!;
  const { shortName } = arrangement;
  const moving = ids.filter((id) => picked.has(id));
  /** Moves the picked ones together where the one that is moved is among them. */
  const moveTo = (id: number, to: number) => {
    const together = picked.has(id) ? moving : [id];
    const before = ids.indexOf(id) < to ? (ids[to + 1] ?? null) : ids[to]!;
    const next = movedBefore(ids, together, before);
    if (next.join() !== ids.join())
      putInOrder(
        site,
        arrangement,
        next,
        together.length > 1 ? `order of ${together.length} pictures` : 'order',
      );
  };
  const orderAll = async (name: string, order: Exclude<Order, 'hand'>) => {
    try {
      putInOrder(
        site,
        arrangement,
        orderBy(await photosOf(setId, ids), order),
        `order by ${name.toLowerCase()}`,
      );
    } catch (error) {
      notifyFailure(error);
    }
  };
  const first = ids.indexOf(moving[0] ?? -1);
  const last = ids.indexOf(moving.at(-1) ?? -1);
  const shift = (before: number | null) =>
    putInOrder(site, arrangement, movedBefore(ids, moving, before), 'order');
  const MOVES = [
    { name: 'To the front', act: () => shift(ids[0]!), idle: first === 0 && last === moving.length - 1 },
    { name: 'Up', act: () => shift(ids[Math.max(0, first - 1)]!), idle: first <= 0 },
    { name: 'Down', act: () => shift(ids[last + 2] ?? null), idle: last === ids.length - 1 },
    { name: 'To the end', act: () => shift(null), idle: ids.length - first === moving.length },
  ];
  const nameOf = (id: UniqueIdentifier) => {
    const row = rows.find((one) => one.id === id);
    const name = row ? shownName(row.words, row.fileName) : 'The photo';
    return row && picked.has(row.id) && moving.length > 1 ? `${name} with ${moving.length - 1} others` : name;
  };
  return (
    <section className="flex min-h-0 flex-1 flex-col" aria-labelledby="pictures-in-order">
      <div className="flex items-baseline gap-2 px-3 py-2.5">
        <h2 id="pictures-in-order" className="font-title text-[14px] font-[600]">
          In order
        </h2>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className="chip ml-auto" disabled={ids.length < 2}>
            Order by…
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="menu" align="start">
              {ORDERS.map(({ name, hint, order }) => (
                <DropdownMenu.Item
                  key={name}
                  className="menu-item"
                  onSelect={() => void orderAll(name, order())}
                >
                  {name} <span className="ml-auto text-[12px] text-ink-2">{hint}</span>
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
        <button className="chip" onClick={() => setAdding(true)}>
          Put in…
        </button>
      </div>
      {moving.length > 0 && (
        <div
          role="toolbar"
          aria-label={`${moving.length} picked`}
          className="flex flex-wrap items-center gap-1 border-t border-rule bg-kelp-soft px-2 py-1.5"
        >
          {MOVES.map(({ name, act, idle }) => (
            <button key={name} className="chip" disabled={idle} onClick={act}>
              {name}
            </button>
          ))}
          <button
            className="chip"
            onClick={() => {
              takeOut(
                rows.filter(({ id }) => picked.has(id)),
                { set, site },
                shortName,
              );
              setPicked(new Set());
              take(null);
            }}
          >
            Out
          </button>
          <button className="chip" onClick={() => setPicked(new Set())}>
            Pick none
          </button>
        </div>
      )}
      <SortableList ids={rows.map(({ id }) => id)} nameOf={nameOf} move={(id, to) => moveTo(Number(id), to)}>
        <ol className="min-h-0 flex-1 overflow-auto">
          {rows.map((row, n) => (
            <Picture
              key={row.id}
              row={row}
              n={n}
              of={ids.length}
              picked={picked.has(row.id)}
              inHand={inHand === row.id}
              pick={(beside) => {
                if (!beside) return take(inHand === row.id ? null : row.id);
                const next = new Set(picked);
                if (!next.delete(row.id)) next.add(row.id);
                setPicked(next);
              }}
            />
          ))}
        </ol>
      </SortableList>
      {ids.length === 0 && (
        <p className="px-3 pb-3 text-ink-2">
          {reading ? 'Reading…' : 'No photo stands in it yet: put some in.'}
        </p>
      )}
      {adding && <AddSheet here={ids} slot={shortName} onClose={() => setAdding(false)} />}
    </section>
  );
}
