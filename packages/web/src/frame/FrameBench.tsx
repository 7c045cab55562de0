// The frame bench: one photo large, all its shapes over it, the focal point in hand.
import { cropFor, shownName, slotsOf, type PhotoRow, type ShapeId } from '@dusky-otter/core';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { viewAddress } from '../api/client.ts';
import { isTyping } from '../shell/SetShell.tsx';
import { concernsFor, useSameAlts, useSetSlots } from '../state/derived.ts';
import { notify, useWork } from '../state/store.ts';
import { confirmFocal } from '../worktable/edits.ts';
import { CropList } from './CropList.tsx';
import { useFraming } from './framing.ts';
import { Overlay } from './Overlay.tsx';
import { shapeUses } from './shapes.ts';
import { stageFor, useSize } from './stage.ts';

/** Keys of the bench that are not about the thing in focus. */
function useBenchKeys(keys: Record<string, () => void>): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (document.querySelector('[role="dialog"]')) return;
      const action = keys[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  });
}

function Bench({ row, rows, setId }: { row: PhotoRow; rows: readonly PhotoRow[]; setId: number }) {
  const setSlots = useSetSlots();
  const same = useSameAlts();
  const navigate = useNavigate();
  const uses = shapeUses(slotsOf(row, setSlots));
  const [picked, setPicked] = useState<ShapeId | null>(uses[0]?.shape ?? null);
  const chosen = uses.some((use) => use.shape === picked) ? picked : null;
  const hands = useFraming(row);
  const [canvas, room] = useSize<HTMLDivElement>();
  const stage = stageFor(row.original, room);
  const at = rows.findIndex((other) => other.id === row.id);
  const go = (id: number | undefined) => id !== undefined && void navigate(`/sets/${setId}/frame/${id}`);
  const nextDoubtful = () => {
    const doubtful = [...rows.slice(at + 1), ...rows.slice(0, at)].find((other) =>
      concernsFor(other, setSlots, same).some((c) => c.code === 'focal-guess'),
    );
    if (doubtful) go(doubtful.id);
    else notify('No other crop is in doubt.');
  };
  const confirm = () => confirmFocal([row]);
  useBenchKeys({
    j: () => go(rows[at + 1]?.id),
    k: () => go(rows[at - 1]?.id),
    c: confirm,
    Escape: () => void navigate(`/sets/${setId}/frame`),
  });
  const crop = chosen && cropFor(hands.shown, chosen);
  const { focal } = hands.shown;
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <div className="flex h-[52px] shrink-0 items-center gap-2.5 border-b border-rule px-4">
        <h1 className="mr-1.5 truncate text-[20px] font-[620] leading-tight tracking-[-.015em]">
          {shownName(row.words, row.fileName)}
        </h1>
        <div role="group" aria-label="Shape in hand" className="flex gap-1.5 overflow-x-auto py-1">
          <button className="chip" aria-pressed={chosen === null} onClick={() => setPicked(null)}>
            All shapes
          </button>
          {uses.map((use) => (
            <button
              key={use.shape}
              className="chip"
              aria-pressed={chosen === use.shape}
              onClick={() => setPicked(use.shape)}
            >
              {use.label}
            </button>
          ))}
        </div>
        <span className="ml-auto" />
        <button className="btn" onClick={nextDoubtful}>
          Next doubtful crop
        </button>
        <Link to={`/sets/${setId}/frame`} className="btn btn-main">
          Back to the table
        </Link>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_356px]">
        <div className="grid min-h-0 grid-rows-[44px_minmax(0,1fr)_48px] bg-stage">
          <div className="flex items-center gap-2 border-b border-rule bg-sheet px-3.5">
            <span className="text-ink-2">
              Photo {at + 1} of {rows.length}
            </span>
            <button className="chip" disabled={at <= 0} onClick={() => go(rows[at - 1]?.id)}>
              Previous
            </button>
            <button className="chip" disabled={at >= rows.length - 1} onClick={() => go(rows[at + 1]?.id)}>
              Next
            </button>
            <span className="ml-auto text-ink-2">
              {focal.confirmed ? '● Focal point confirmed' : '○ Focal point is a guess'}
            </span>
            {!focal.confirmed && (
              <button className="btn" onClick={confirm}>
                Confirm
              </button>
            )}
          </div>
          <div ref={canvas} className="relative m-[22px] min-h-0">
            {stage.scale > 0 && (
              <div
                className="absolute"
                data-stage
                style={{
                  width: stage.width,
                  height: stage.height,
                  left: (room.width - stage.width) / 2,
                  top: (room.height - stage.height) / 2,
                }}
              >
                <img
                  src={viewAddress(row.original.hash, 'bench')}
                  alt={row.words.alt}
                  draggable={false}
                  className="absolute inset-0 size-full max-w-none bg-neutral"
                />
                <Overlay
                  row={row}
                  stage={stage}
                  uses={uses}
                  chosen={chosen}
                  choose={setPicked}
                  hands={hands}
                />
              </div>
            )}
          </div>
          <div className="flex items-center gap-4 overflow-hidden whitespace-nowrap border-t border-rule bg-sheet px-3.5 text-[13px] text-ink-2 [&_b]:text-ink">
            {crop && (
              <>
                <span>
                  Crop{' '}
                  <b>
                    {crop.width} × {crop.height}
                  </b>
                </span>
                <span>
                  from left <b>{crop.x}</b>
                </span>
                <span>
                  from top <b>{crop.y}</b>
                </span>
              </>
            )}
            <span>
              focal{' '}
              <b>
                {Math.round(focal.x * 100)} % · {Math.round(focal.y * 100)} %
              </b>
            </span>
            <span className="ml-auto">Arrows move by 1 px, with Shift by 10</span>
          </div>
        </div>
        <CropList uses={uses} row={hands.shown} chosen={chosen} choose={setPicked} />
      </div>
    </main>
  );
}

export function FrameBench() {
  const params = useParams();
  const setId = Number(params.setId);
  const rows = useWork((state) => state.rows);
  const row = rows.find((candidate) => candidate.id === Number(params.photoId));
  if (!row) {
    return (
      <main className="bg-sheet p-8">
        <h1 className="text-[20px] font-[620]">This photo is not in the set any more</h1>
        <p className="my-3 text-ink-2">It may be in the bin: undo brings it back.</p>
        <Link to={`/sets/${setId}/frame`} className="btn btn-main">
          Back to the table
        </Link>
      </main>
    );
  }
  return <Bench key={row.id} row={row} rows={rows} setId={setId} />;
}
