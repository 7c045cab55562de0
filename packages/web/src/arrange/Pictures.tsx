// The pictures of an arrangement in their order: moved by hand or by keys, taken out, and others put in.
import { frameSpace, shownName, slotsOf, type Order, type SlotId } from '@dusky-otter/core';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { stageFor } from '../frame/stage.ts';
import { useSetId, useSetSlots, type Row } from '../server/hooks.ts';
import { TurnedView } from '../ui/CropPicture.tsx';
import { Sheet } from '../ui/Sheet.tsx';
import { Tick } from '../ui/Tick.tsx';
import { SortableRows, useMoving } from '../worktable/SortableRows.tsx';
import { reorder, stand } from './edits.ts';

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

const ROOM = { width: 46, height: 38 };

function Thumb({ row }: { row: Row }) {
  const { width, height } = stageFor(frameSpace(row.original, row.frame), ROOM);
  return (
    <span className="grid h-[38px] w-[46px] shrink-0 place-items-center bg-neutral">
      <span className="relative block overflow-hidden" style={{ width, height }}>
        <TurnedView photo={row} size="row" />
      </span>
    </span>
  );
}

function Picture({ row, n, of, slot }: { row: Row; n: number; of: number; slot: SlotId }) {
  const setSlots = useSetSlots();
  const name = shownName(row.words, row.fileName);
  const {
    row: place,
    style,
    handle,
  } = useMoving(row.id, name, 'grid size-[28px] shrink-0 place-items-center');
  return (
    <li
      ref={place}
      className="relative flex min-h-[52px] items-center gap-2 border-t border-rule bg-sheet py-1.5 pl-1.5 pr-3"
      style={style}
    >
      {handle}
      <Thumb row={row} />
      <span className="min-w-0 flex-1">
        <b className="block truncate font-semibold">{name}</b>
        <small className="text-[12px] text-ink-2">
          {n + 1} of {of}
        </small>
      </span>
      <button
        className="chip"
        aria-label={`Take ${name} out`}
        onClick={() => stand([row], setSlots, slot, false)}
      >
        Out
      </button>
    </li>
  );
}

function AddSheet({ rows, slot, onClose }: { rows: readonly Row[]; slot: SlotId; onClose: () => void }) {
  const setSlots = useSetSlots();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const others = rows.filter((row) => !slotsOf(row, setSlots).includes(slot));
  const toggle = (id: number, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
  return (
    <Sheet
      open
      onClose={onClose}
      title="Put photos in"
      about="Photos of this set that do not stand in it yet."
    >
      {others.length === 0 && <p>All photos of this set stand in it.</p>}
      <div className="grid max-h-[50vh] overflow-auto">
        {others.map((row) => (
          <Tick
            key={row.id}
            className="border-t border-rule py-1.5"
            checked={chosen.has(row.id)}
            set={(on) => toggle(row.id, on)}
          >
            <Thumb row={row} />
            {shownName(row.words, row.fileName)}
          </Tick>
        ))}
      </div>
      <div className="mt-3 flex gap-2">
        <button
          className="btn btn-main"
          disabled={chosen.size === 0}
          onClick={() => {
            stand(
              others.filter(({ id }) => chosen.has(id)),
              setSlots,
              slot,
              true,
            );
            onClose();
          }}
        >
          Put {chosen.size === 0 ? 'them' : chosen.size} in
        </button>
        <button className="btn" onClick={() => setChosen(new Set(others.map(({ id }) => id)))}>
          All of them
        </button>
      </div>
    </Sheet>
  );
}

export function Pictures({ rows, all, slot }: { rows: readonly Row[]; all: readonly Row[]; slot: SlotId }) {
  const [adding, setAdding] = useState(false);
  const setId = useSetId();
  return (
    <section className="flex min-h-0 flex-col" aria-labelledby="pictures-in-order">
      <div className="flex items-baseline gap-2 px-3 py-2.5">
        <h2 id="pictures-in-order" className="font-title text-[14px] font-[600]">
          In order
        </h2>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className="chip ml-auto" disabled={rows.length < 2}>
            Order by…
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="menu" align="start">
              {ORDERS.map(({ name, hint, order }) => (
                <DropdownMenu.Item
                  key={name}
                  className="menu-item"
                  onSelect={() => reorder(rows, order(), `by ${name.toLowerCase()}`)}
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
      <SortableRows setId={setId} shown={rows.map(({ id }) => id)}>
        <ol className="min-h-0 flex-1 overflow-auto">
          {rows.map((row, n) => (
            <Picture key={row.id} row={row} n={n} of={rows.length} slot={slot} />
          ))}
        </ol>
      </SortableRows>
      {rows.length === 0 && <p className="px-3 pb-3 text-ink-2">No photo stands in it yet: put some in.</p>}
      {adding && <AddSheet rows={all} slot={slot} onClose={() => setAdding(false)} />}
    </section>
  );
}
