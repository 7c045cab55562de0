// A bench opens over the table for one photo: the photo while it is read, and a way back where it is gone.
import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { useRowOr, type Row } from '../server/hooks.ts';

/** @param stop the table that one goes back to */
export function OneBench({
  stop,
  children,
}: {
  stop: 'frame' | 'weigh' | 'describe';
  children: (row: Row, setId: number) => ReactNode;
}) {
  const params = useParams();
  const setId = Number(params.setId);
  const { row, gone } = useRowOr(Number(params.photoId));
  if (row && !row.binned) return children(row, setId);
  return (
    <main className="bg-sheet p-8">
      {gone || row ? (
        <>
          <h1 className="text-[20px] font-[620]">This photo is not in the set any more</h1>
          <p className="my-3 text-ink-2">It may be in the bin: undo brings it back.</p>
          <Link to={`/sets/${setId}/${stop}`} className="btn btn-main">
            Back to the table
          </Link>
        </>
      ) : (
        <p className="text-ink-2">Opening the photo…</p>
      )}
    </main>
  );
}
