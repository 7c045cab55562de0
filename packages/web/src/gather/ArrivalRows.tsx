// Rows for what is not a photo yet: files on their way, each with its progress, and files that were refused.
import { bytesInWords } from '@dusky-otter/core/weight';
import { CreditRow } from './CreditRow.tsx';
import { dismissArrival, dismissLost, useGathering, type Arrival } from './arrivals.ts';
import { useRefusals, useSetId } from '../server/hooks.ts';
import { dismissRefusal, dismissRefusals } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';

function saidOf({ state, sent, sentence }: Arrival): string {
  if (sentence) return sentence;
  if (state === 'waiting') return 'Waits for its turn';
  return sent < 1 ? `${Math.round(sent * 100)} % sent` : 'Looking at the picture';
}

function ArrivalRow({ arrival }: { arrival: Arrival }) {
  const { name, bytes, sent, state } = arrival;
  const over = state === 'known' || state === 'failed';
  return (
    <li className="grid grid-cols-[46px_270px_236px_minmax(0,1fr)_auto] items-center border-b border-rule bg-sheet py-2 pr-4 max-[700px]:grid-cols-[1fr_auto]">
      <span />
      <span className="min-w-0 px-2.5">
        <b className="block truncate font-semibold">{name}</b>
        <span className="text-[12px] text-ink-2">{bytesInWords(bytes)}</span>
      </span>
      {over ? (
        <span />
      ) : (
        <span
          className="mx-2.5 h-[6px] bg-rule"
          role="progressbar"
          aria-label={`Sending ${name}`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(sent * 100)}
        >
          <span className="block h-full bg-kelp" style={{ width: `${sent * 100}%` }} />
        </span>
      )}
      <span className="px-2.5">
        {over ? (
          <StateTag state={state === 'known' ? 'todo' : 'stop'}>{saidOf(arrival)}</StateTag>
        ) : (
          <span className="text-ink-2">{saidOf(arrival)}</span>
        )}
      </span>
      <button className="chip" onClick={() => dismissArrival(arrival.id)}>
        {over ? 'Put away' : 'Cancel'}
      </button>
    </li>
  );
}

/** Names that are said of files that did not arrive; more are counted. */
const NAMED = 6;

/** Files that were still waiting when the window was closed or broke off. */
function LostRow() {
  const setId = useSetId();
  const lost = useGathering((state) => state.lost);
  const names = lost.flatMap(({ files }) => files.filter((file) => file.setId === setId));
  if (names.length === 0) return null;
  const said = names.slice(0, NAMED).map(({ name }) => name);
  const more = names.length - said.length;
  return (
    <div className="flex shrink-0 items-center gap-3 border-b border-rule-strong bg-sheet py-2 pl-[56px] pr-4 max-[700px]:pl-2.5">
      <StateTag state="care">
        {names.length === 1 ? '1 file did not arrive' : `${names.length} files did not arrive`}
      </StateTag>
      <span className="min-w-0 text-ink-2">
        The window was left before: {said.join(', ')}
        {more > 0 && ` and ${more} more`}. Add them again; those that are here already do no harm.
      </span>
      <button className="chip ml-auto" onClick={() => dismissLost(setId)}>
        Put away
      </button>
    </div>
  );
}

export function ArrivalRows() {
  const arrivals = useGathering((state) => state.arrivals);
  const refusals = useRefusals();
  if (arrivals.length === 0 && refusals.length === 0)
    return (
      <>
        <LostRow />
        <CreditRow />
      </>
    );
  const settled = arrivals.filter(({ state }) => state === 'known' || state === 'failed');
  const over = settled.length + refusals.length;
  const putAllAway = () => {
    for (const { id } of settled) dismissArrival(id);
    if (refusals.length > 0) void dismissRefusals();
  };
  return (
    <>
      <LostRow />
      <CreditRow />
      <ul
        aria-label="Files on their way, and files that were refused"
        className="max-h-[40vh] shrink-0 overflow-auto border-b border-rule-strong"
        tabIndex={0}
      >
        {over > 1 && (
          <li className="flex items-center border-b border-rule bg-paper py-1.5 pl-[56px] pr-4 text-ink-2 max-[700px]:pl-2.5">
            {over} files were not added as new photos
            <button className="chip ml-auto" onClick={putAllAway}>
              Put all away
            </button>
          </li>
        )}
        {arrivals.map((arrival) => (
          <ArrivalRow key={arrival.id} arrival={arrival} />
        ))}
        {refusals.map(({ id, fileName, bytes, sentence }) => (
          <li
            key={id}
            className="grid grid-cols-[46px_270px_minmax(0,1fr)_auto] items-center border-b border-rule bg-sheet py-2 pr-4 max-[700px]:grid-cols-[1fr_auto]"
          >
            <span />
            <span className="min-w-0 px-2.5">
              <b className="block truncate font-semibold">{fileName}</b>
              <span className="text-[12px] text-ink-2">{bytesInWords(bytes)}, not taken in</span>
            </span>
            <span className="px-2.5">
              <StateTag state="stop">{sentence}</StateTag>
            </span>
            <button className="chip" onClick={() => void dismissRefusal(id)}>
              Put away
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
