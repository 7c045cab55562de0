// Ways out of a budget that can't be met at the target, in the order in which they hurt least; each tried with its true bytes.
import { bytesInWords, waysOut, type Site, type Slot, type WayOut } from '@dusky-otter/core';
import { useQuery } from '@tanstack/react-query';
import { lookAddress } from '../api/client.ts';
import type { Row } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import { decide } from './decide.ts';

const NAMES: Record<WayOut['way'], string> = {
  'smaller-set': 'A smaller set of files',
  'lower-target': 'A lower target',
  'fewer-pixels': 'Fewer pixels',
  still: 'A still',
};

function Way({ way, row, slot, setId }: { way: WayOut; row: Row; slot: Slot; setId: number }) {
  const { variant, expected, fits, sentence, decision } = way;
  // The picture that a phone would be sent, at about what it would have; the file itself is made once it is taken.
  const near = { slot: slot.id, shape: variant.shape, width: variant.width };
  const seen = useQuery({
    queryKey: ['way', setId, row.id, row.version, near],
    staleTime: 'static',
    retry: false,
    queryFn: async ({ signal }) => {
      const quality = row.variants.find((v) => v.slot === slot.id && v.format === variant.format)?.quality;
      const address = lookAddress(setId, row.id, {
        ...near,
        ...(quality && { format: variant.format, quality }),
      });
      const response = await fetch(address, { signal });
      if (!response.ok) throw new Error('It can’t be shown.');
      return URL.createObjectURL(await response.blob());
    },
    enabled: way.way !== 'still',
  });
  return (
    <li className="grid grid-cols-[58px_minmax(0,1fr)_auto] items-center gap-2.5 border-t border-rule py-2">
      <span className="grid h-[44px] place-items-center overflow-hidden bg-neutral">
        {seen.data && <img src={seen.data} alt="" className="h-full w-full object-cover" />}
      </span>
      <span className="text-[12.5px] leading-snug">
        <b className="font-semibold">{NAMES[way.way]}</b>
        <span className="block text-ink-2">{sentence}</span>
        {expected && (
          <StateTag state={fits ? 'ready' : 'care'}>
            {fits ? 'Within the budget' : `${bytesInWords(expected.bytes - slot.budget)} over still`},{' '}
            {expected.difference === 0
              ? 'without loss'
              : `difference about ${expected.difference.toFixed(1)}`}
          </StateTag>
        )}
      </span>
      <button
        className="btn"
        onClick={() => decide([row], () => [slot.id], NAMES[way.way].toLowerCase(), decision)}
      >
        Take it
      </button>
    </li>
  );
}

export function Ways({ row, slot, site, setId }: { row: Row; slot: Slot; site: Site; setId: number }) {
  const found = waysOut(row, slot, site, (key) => row.files[key]);
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
        {found.ways.map((way) => (
          <Way key={way.way} way={way} row={row} slot={slot} setId={setId} />
        ))}
      </ul>
    </section>
  );
}
