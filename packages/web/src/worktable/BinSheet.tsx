// The bin of a set: photos that were put away, with their decisions, and the way back.
import { useState } from 'react';
import { shownName, type PhotoRow } from '@dusky-otter/core';
import { viewAddress } from '../api/client.ts';
import { edit, useWork } from '../state/store.ts';
import { Sheet } from '../ui/Sheet.tsx';

const nameOf = (row: PhotoRow): string => shownName(row.words, row.fileName);

/** The button appears once there is something in the bin. */
export function Bin() {
  const [open, setOpen] = useState(false);
  const binned = useWork((state) => state.binned);
  if (binned.length === 0 && !open) return null;
  const putBack = (row: PhotoRow) =>
    edit(`${nameOf(row)} put back`, [{ kind: 'bin', photo: row.id, binned: false }]);
  return (
    <>
      <button className="btn" onClick={() => setOpen(true)}>
        Bin {binned.length}
      </button>
      <Sheet
        open={open}
        onClose={() => setOpen(false)}
        title="Bin"
        about="Photos here are in no download. Their originals and decisions are kept."
      >
        {binned.length === 0 && <p className="text-ink-2">The bin is empty.</p>}
        <ul>
          {binned.map((row) => (
            <li key={row.id} className="flex items-center gap-3 border-b border-rule py-2">
              <img
                src={viewAddress(row.original.hash, 'row')}
                alt=""
                className="h-12 w-16 bg-neutral object-contain"
              />
              <span className="min-w-0 truncate font-semibold">{nameOf(row)}</span>
              <button className="btn ml-auto" onClick={() => putBack(row)}>
                Put back
              </button>
            </li>
          ))}
        </ul>
      </Sheet>
    </>
  );
}
