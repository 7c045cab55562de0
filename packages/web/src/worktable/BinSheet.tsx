// The bin of a set: photos that were put away, with their decisions, the way back, and the way out for good.
import { useState } from 'react';
import type { Photo } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { api, viewAddress } from '../api/client.ts';
import { notify, notifyFailure, openSheet, useScreen } from '../screen/screen.ts';
import { useCounts, useList, useRow, useSetId } from '../server/hooks.ts';
import { allSaved, edit } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';

const nameOf = (row: Photo): string => shownName(row.words, row.fileName);

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
      notifyFailure(error);
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

function BinnedRow({ id }: { id: number }) {
  const row = useRow(id);
  if (!row) return <li className="border-b border-rule py-2 text-ink-3">Reading…</li>;
  const putBack = () => edit(`${nameOf(row)} put back`, [{ kind: 'bin', photo: id, binned: false }]);
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2">
      <img
        src={viewAddress(row.original.hash, 'row')}
        alt=""
        className="h-12 w-16 bg-neutral object-contain"
      />
      <span className="min-w-0 truncate font-semibold">{nameOf(row)}</span>
      <button className="btn ml-auto" onClick={putBack}>
        Put back
      </button>
    </li>
  );
}

/** So many at first, and as many more each time one asks. */
const SHOWN = 40;

function Binned({ setId }: { setId: number }) {
  const [upTo, setUpTo] = useState(SHOWN);
  const list = useList('bin', 0, upTo - 1);
  return (
    <>
      {list.total === 0 && (
        <p className="text-ink-2">{list.reading ? 'Looking into the bin…' : 'The bin is empty.'}</p>
      )}
      <ul>
        {list.ids.slice(0, upTo).map((id) => (
          <BinnedRow key={id} id={id} />
        ))}
      </ul>
      {list.total > upTo && (
        <button className="btn mt-3" onClick={() => setUpTo(upTo + SHOWN)}>
          Show more of {list.total}
        </button>
      )}
      {list.total > 0 && <EmptyBin count={list.total} setId={setId} />}
    </>
  );
}

/** The button appears once there is something in the bin. */
export function Bin() {
  const open = useScreen((state) => state.sheet === 'bin');
  const binned = useCounts()?.binned ?? 0;
  const setId = useSetId();
  if (binned === 0 && !open) return null;
  return (
    <>
      <button className="btn" onClick={() => openSheet('bin')}>
        Bin {binned}
      </button>
      <Sheet
        open={open}
        onClose={() => openSheet(null)}
        title="Bin"
        about="Photos here are in no download. Their originals and decisions are kept."
      >
        <Binned setId={setId} />
      </Sheet>
    </>
  );
}
