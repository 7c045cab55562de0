// The bin of a set: photos that were put away, with their decisions, the way back, and the way out for good.
import { useState } from 'react';
import { shownName, type PhotoRow } from '@dusky-otter/core';
import { api, viewAddress } from '../api/client.ts';
import { allSaved, edit, notify, openSheet, useWork } from '../state/store.ts';
import { Sheet } from '../ui/Sheet.tsx';

const nameOf = (row: PhotoRow): string => shownName(row.words, row.fileName);

/** Asks once more: this is the one act that can't be undone. */
function EmptyBin({ count, setId }: { count: number; setId: number }) {
  const [asking, setAsking] = useState(false);
  const photos = count === 1 ? 'photo' : 'photos';
  const empty = async () => {
    try {
      await allSaved();
      await api.emptyBin(setId);
      notify(`${count} ${photos} deleted for good.`);
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error), 'bad');
    }
    setAsking(false);
  };
  if (!asking) {
    return (
      <button className="btn mt-4" onClick={() => setAsking(true)}>
        Empty the bin
      </button>
    );
  }
  return (
    <div role="alert" className="mt-4 grid gap-2 border-t border-rule-strong pt-3">
      <p>
        Delete {count} {photos} with words, crops and originals for good? This can’t be undone. Originals that
        stand in another set stay.
      </p>
      <div className="flex gap-2">
        <button className="btn btn-main" onClick={() => void empty()}>
          Delete for good
        </button>
        <button className="btn" onClick={() => setAsking(false)}>
          Keep them
        </button>
      </div>
    </div>
  );
}

/** The button appears once there is something in the bin. */
export function Bin() {
  const open = useWork((state) => state.sheet === 'bin');
  const binned = useWork((state) => state.binned);
  const setId = useWork((state) => state.setId);
  if (setId === null || (binned.length === 0 && !open)) return null;
  const putBack = (row: PhotoRow) =>
    edit(`${nameOf(row)} put back`, [{ kind: 'bin', photo: row.id, binned: false }]);
  return (
    <>
      <button className="btn" onClick={() => openSheet('bin')}>
        Bin {binned.length}
      </button>
      <Sheet
        open={open}
        onClose={() => openSheet(null)}
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
        {binned.length > 0 && <EmptyBin count={binned.length} setId={setId} />}
      </Sheet>
    </>
  );
}
