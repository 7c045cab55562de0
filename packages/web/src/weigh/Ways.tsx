// Ways out of a budget that can't be met at the target, in the order in which they hurt least; each tried with its true bytes.
import { useWorkInHand } from '../ui/reveal.ts';
import type { Site, Slot } from '@dusky-otter/core/contract';
import { waysOut, type WayOut } from '@dusky-otter/core/plan';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useQuery } from '@tanstack/react-query';
import { memo } from 'react';
import { api } from '../api/client.ts';
import type { Row } from '../server/hooks.ts';
import { allSaved } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';
import { decide } from './decide.ts';

const NAMES: Record<WayOut['way'], string> = {
  'smaller-set': 'A smaller set of files',
  'lower-target': 'A lower target',
  'fewer-pixels': 'Fewer pixels',
  'fewer-frames': 'Fewer frames',
  still: 'A still',
};

interface WayProps {
  way: WayOut;
  row: Row;
  slot: Slot;
  setId: number;
  first: boolean;
}

function Way({ way, row, slot, setId, first }: WayProps) {
  const { variant, expected, what, sentence, decision } = way;
  // Made as it would be stored: what is shown and said of it is what it will be.
  const { data: seen, isError } = useQuery({
    queryKey: ['way', setId, row.id, variant.key],
    staleTime: 'static',
    retry: false,
    queryFn: async ({ signal }) => {
      await allSaved();
      return api.tried(setId, row.id, { ...variant, slot: slot.id, decision }, signal);
    },
  });
  const now = seen ?? expected;
  return (
    <li className="grid grid-cols-[58px_minmax(0,1fr)_auto] items-center gap-2.5 border-t border-rule py-2">
      <span className="grid h-[44px] place-items-center overflow-hidden bg-neutral">
        {seen && <img src={seen.url} alt="" className="h-full w-full object-cover" />}
      </span>
      <span className="text-[12.5px] leading-snug">
        <b className="font-semibold">{NAMES[way.way]}</b>
        <span className="block text-ink-2">{seen ? what : sentence}</span>
        {now && (
          <StateTag state={now.bytes <= slot.budget ? 'ready' : 'care'}>
            {seen ? '' : 'about '}
            {bytesInWords(now.bytes)},{' '}
            {now.bytes <= slot.budget
              ? 'within the budget'
              : `${bytesInWords(now.bytes - slot.budget)} over still`}
            {', '}
            {now.difference === null
              ? 'frames are not compared'
              : now.difference === 0
                ? 'without loss'
                : `difference ${now.difference.toFixed(2)}`}
          </StateTag>
        )}
        {isError && <span className="block text-ink-2">It can’t be tried at the moment.</span>}
      </span>
      <button
        className="btn"
        data-work={first || undefined}
        onClick={() => decide([row], () => [slot.id], NAMES[way.way].toLowerCase(), decision)}
      >
        Take it
      </button>
    </li>
  );
}

/** Planned anew only for another photo, place or site: a plan is a hash for every file. */
export const Ways = memo(function Ways({
  row,
  slot,
  site,
  setId,
}: {
  row: Row;
  slot: Slot;
  site: Site;
  setId: number;
}) {
  const found = waysOut(row, slot, site, (key) => row.files[key]);
  useWorkInHand();
  if (!found) return null;
  return (
    <section className="border-b border-rule px-4 py-3" aria-label="Ways out">
      <h2 className="font-title text-[14px] font-[600]">
        {bytesInWords(found.bytes - found.budget)} over its budget
      </h2>
      <p className="text-[12.5px] text-ink-2">
        A phone is sent {bytesInWords(found.bytes)} here, of {bytesInWords(found.budget)}. What can be done,
        the mildest first:
      </p>
      <ul className="mt-1.5">
        {found.ways.map((way, n) => (
          <Way key={way.way} way={way} row={row} slot={slot} setId={setId} first={n === 0} />
        ))}
      </ul>
    </section>
  );
});
