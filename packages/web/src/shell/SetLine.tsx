// One set on the start screen: its first photos, how far it has come at each stop, and what is next.
import type { SetSummary } from '@dusky-otter/core/contract';
import { Link } from 'react-router';
import { viewAddress } from '../api/client.ts';
import { StateTag } from '../ui/marks.tsx';
import { STOPS, stopState, type StopId, type StopState } from '../screen/stops.ts';
import { some } from '../ui/some.ts';

/** Columns of the list: pictures, set, seven stops, next. */
export const COLUMNS =
  'grid grid-cols-[250px_minmax(170px,1fr)_repeat(7,58px)_190px] items-center max-[1240px]:grid-cols-[150px_minmax(150px,1fr)_repeat(7,52px)_170px] max-[940px]:grid-cols-[86px_minmax(0,1fr)_auto] ';

const MARKS: Record<StopState['state'], string> = {
  none: 'border-rule-strong bg-sheet',
  part: 'border-amber bg-[linear-gradient(90deg,var(--amber)_50%,var(--sheet)_0)]',
  done: 'border-moss bg-moss',
};
const SAID: Record<StopState['state'], string> = { none: 'not begun', part: 'partly done', done: 'done' };

/** The states of a set's stops; null where they are not known. */
export function stopsOf(set: SetSummary): Record<StopId, StopState> | null {
  const { counts, refusals, offers } = set;
  if (!counts) return null;
  const states = STOPS.map(({ id }) => [id, stopState(id, { counts, refusals, offers, set })]);
  return Object.fromEntries(states) as Record<StopId, StopState>;
}

/** The first stop whose work is open, or null where there is none. */
export const nextStopOf = (states: Record<StopId, StopState>): StopId | null =>
  STOPS.find(({ id }) => states[id].state !== 'done')?.id ?? null;

/** What is next at a stop, as a button says it. */
function actOf(stop: StopId, { counts, refusals, offers, photos, arranged }: SetSummary): string {
  const open = counts!.open;
  switch (stop) {
    case 'gather':
      if (photos === 0) return 'Add photos';
      return refusals > 0
        ? `See ${some(refusals, 'refused file', 'refused files')}`
        : `Decide on ${some(offers, 'file', 'files')}`;
    case 'frame':
      return `Look at ${some(open.frame, 'crop', 'crops')}`;
    case 'weigh':
      return `See ${some(open.weigh, 'weight', 'weights')}`;
    case 'describe':
      return `Write ${some(open.describe, 'alt text', 'alt texts')}`;
    case 'arrange':
      return !arranged && open.arrange === 0
        ? 'Confirm the places'
        : `Place ${some(open.arrange, 'photo', 'photos')}`;
    case 'rehearse':
      return 'Rehearse the page';
    case 'hand-over':
      return 'Hand over the files';
  }
}

function Pictures({ hashes }: { hashes: readonly string[] }) {
  return (
    <span className="flex h-[52px] gap-[2px] overflow-hidden" aria-hidden="true">
      {hashes.map((hash, at) => (
        <img
          key={hash}
          src={viewAddress(hash, 'row')}
          alt=""
          className={`h-full shrink-0 bg-neutral object-cover ${at === 0 ? 'w-[76px]' : 'w-[42px] max-[940px]:hidden'}`}
        />
      ))}
      {hashes.length === 0 && <span className="h-full w-[76px] border border-dashed border-ink-3" />}
    </span>
  );
}

function Mark({ name, state, next }: { name: string; state: StopState; next: boolean }) {
  return (
    <span
      className={`relative grid justify-items-center gap-1 self-stretch pt-5 text-[11.5px] leading-tight max-[940px]:hidden ${next ? 'font-[680] text-kelp-deep' : 'text-ink-2'}`}
    >
      <i className="absolute left-0 right-0 top-[26px] h-[2px] bg-rule-strong" aria-hidden="true" />
      <i className={`relative size-[13px] rounded-full border-2 ${MARKS[state.state]}`} aria-hidden="true" />
      <span className="text-center">
        <span className="sr-only">
          {name}: {SAID[state.state]}{' '}
        </span>
        {state.count}
      </span>
    </span>
  );
}

const dayOf = (iso: string): string => {
  const then = new Date(iso);
  const time = then.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  const days = Math.floor(
    (new Date().setHours(0, 0, 0, 0) - new Date(then).setHours(0, 0, 0, 0)) / 86_400_000,
  );
  if (days === 0) return `today, ${time}`;
  if (days === 1) return `yesterday, ${time}`;
  return then.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
};

interface Props {
  set: SetSummary;
  /** The one that was worked on last. */
  last: boolean;
  onRename: () => void;
  onAway: () => void;
}

export function SetLine({ set, last, onRename, onAway }: Props) {
  const states = stopsOf(set);
  const next = states && nextStopOf(states);
  return (
    <div
      className={`${COLUMNS} min-h-[74px] gap-x-2 px-4 hover:bg-raised ${last ? 'shadow-[inset_3px_0_var(--focus)]' : ''}`}
    >
      <Pictures hashes={set.pictures} />
      <span className="grid min-w-0 gap-0.5 py-2">
        {set.problem === null ? (
          <Link
            to={`/sets/${set.id}/${next ?? 'gather'}`}
            className="truncate font-title text-[15.5px] font-[600] hover:underline"
          >
            {set.name}
          </Link>
        ) : (
          <b className="truncate font-title text-[15.5px] font-[600]">{set.name}</b>
        )}
        <span className="truncate text-[12px] text-ink-2">
          {set.workedAt ? dayOf(set.workedAt) : 'not worked on yet'}
          {set.counts && ` · ${set.counts.filters.ready} of ${set.photos} ready`}
        </span>
        <span className="flex gap-2 text-[12px]">
          <button
            className="text-ink-2 underline decoration-rule-strong hover:text-ink"
            onClick={onRename}
            aria-label={`Rename ${set.name}`}
          >
            Rename
          </button>
          <button
            className="text-ink-2 underline decoration-rule-strong hover:text-ink"
            onClick={onAway}
            aria-label={`Put away ${set.name}`}
          >
            Put away
          </button>
        </span>
      </span>
      {set.problem !== null ? (
        <span className="col-span-8">
          <StateTag state="stop">{set.problem}</StateTag>
        </span>
      ) : (
        states && (
          <>
            {STOPS.map(({ id, name }) => (
              <Mark key={id} name={name} state={states[id]} next={id === next} />
            ))}
            <span className="justify-self-end">
              {next ? (
                <Link
                  to={`/sets/${set.id}/${next}`}
                  className={`btn whitespace-nowrap ${last ? 'btn-main' : ''}`}
                >
                  {actOf(next, set)}
                </Link>
              ) : (
                <span className="text-[12.5px] text-ink-2">● Out. Nothing to do.</span>
              )}
            </span>
          </>
        )
      )}
    </div>
  );
}
