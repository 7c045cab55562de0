// The path on the left: the stops of the job, what is left at each, and at its foot what is saved.
import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import { useCounts, useEdits, useOffers, useRefusals, useSet } from '../server/hooks.ts';
import { redo, undo, useSending } from '../server/state.ts';
import { STOPS, stopState, type PathFacts, type StopId } from '../screen/stops.ts';

const DOTS: Record<'none' | 'part' | 'done', string> = {
  none: 'border-rule-strong bg-paper',
  part: 'border-amber bg-[linear-gradient(90deg,var(--amber)_50%,var(--paper)_0)]',
  done: 'border-moss bg-moss',
};
const SAID = { none: 'not begun', part: 'partly done', done: 'done' } as const;

const NOT_YET: PathFacts['set'] = { arranged: true, rehearsed: false, handedOver: false };
const NOTHING: PathFacts['counts'] = {
  filters: { all: 0 },
  open: { frame: 0, weigh: 0, describe: 0, arrange: 0 },
  placed: 0,
};

function StopLink({ id, name, setId }: { id: StopId; name: string; setId: number }) {
  const refusals = useRefusals().length;
  const offers = useOffers().length;
  const counts = useCounts() ?? NOTHING;
  const set = useSet() ?? NOT_YET;
  const { count, state } = stopState(id, { counts, refusals, offers, set });
  return (
    <li className="stop">
      <NavLink
        to={`/sets/${setId}/${id}`}
        className={({ isActive }) =>
          `relative grid h-[46px] grid-cols-[40px_1fr_auto] items-center gap-x-1 whitespace-nowrap pr-3 ${isActive ? 'bg-sheet shadow-[inset_0_1px_var(--rule),inset_0_-1px_var(--rule),inset_3px_0_var(--kelp)]' : 'hover:bg-sheet'}`
        }
      >
        {({ isActive }) => (
          <>
            <i
              className={`relative left-[20px] size-[14px] rounded-full border-2 ${DOTS[state]}`}
              aria-hidden="true"
            />
            <b
              className={`font-title text-[14px] font-[560] leading-tight ${isActive ? 'text-kelp-deep' : 'text-ink'}`}
            >
              {name}
            </b>
            <small className="text-right text-[12px] leading-tight text-ink-2 max-[700px]:pl-1 min-[701px]:whitespace-normal">
              {count}
              <span className="sr-only"> {SAID[state]}</span>
            </small>
          </>
        )}
      </NavLink>
    </li>
  );
}

function Saved() {
  const edits = useEdits();
  const pending = useSending((state) => state.pending.length);
  const unsaved = useSending((state) => state.trouble);
  const connected = useSending((state) => state.connected);
  const at = edits?.savedAt ? new Date(edits.savedAt).toLocaleTimeString('en-GB') : null;
  const head = unsaved ? 'Not saved yet' : pending > 0 ? 'Saving…' : at ? `Saved ${at}` : 'Nothing to save';
  return (
    <div className="mx-3 mt-auto max-[700px]:hidden border-t border-rule-strong pt-2.5 text-[12px] text-ink-2">
      <b
        className={`block text-[12.5px] ${unsaved ? 'text-rust' : 'text-ink'}`}
        role="status"
        data-pending={pending}
      >
        {head}
      </b>
      {unsaved ?? (connected ? 'Originals untouched in the vault.' : 'Connecting to the server again…')}
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        <button
          className="chip justify-center px-1"
          disabled={!edits?.undo}
          onClick={() => void undo()}
          title={edits?.undoLabel ?? undefined}
          aria-describedby={edits?.undoLabel ? 'undo-takes' : undefined}
        >
          <Undo2 size={13} className="shrink-0" aria-hidden="true" /> Undo
        </button>
        <button
          className="chip justify-center px-1"
          disabled={!edits?.redo}
          onClick={() => void redo()}
          title={edits?.redoLabel ?? undefined}
        >
          <Redo2 size={13} className="shrink-0" aria-hidden="true" /> Redo
        </button>
      </div>
      {edits && edits.undo > 0 && (
        <p className="mt-1.5 line-clamp-3" id="undo-takes" title={edits.undoLabel ?? undefined}>
          Undo takes back: {edits.undoLabel}
          {edits.undo > 1 && `, and ${edits.undo - 1} before it`}.
        </p>
      )}
    </div>
  );
}

export function Path({ setId }: { setId: number }) {
  const nav = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const counts = useCounts();
  // On a small screen the path is wider than the screen: where one is must be seen.
  useEffect(() => {
    // With the frame that is drawn anyway: asked at once, it would have the whole page laid out in between.
    const frame = requestAnimationFrame(() =>
      nav.current
        ?.querySelector('[aria-current="page"]')
        ?.scrollIntoView({ inline: 'center', block: 'nearest' }),
    );
    return () => cancelAnimationFrame(frame);
    // What is left at the stops makes them wider, once it is counted.
  }, [pathname, counts]);
  return (
    <nav
      ref={nav}
      aria-label="The path of the job"
      className="flex min-h-0 flex-col overflow-auto border-r border-rule-strong bg-paper py-3 max-[700px]:overflow-x-auto max-[700px]:border-b max-[700px]:py-0"
      tabIndex={-1}
    >
      <ol className="max-[700px]:flex">
        {STOPS.map(({ id, name }) => (
          <StopLink key={id} id={id} name={name} setId={setId} />
        ))}
      </ol>
      <Saved />
    </nav>
  );
}
