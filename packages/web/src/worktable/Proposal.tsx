// A set whose photos stand nowhere yet: where all of them could stand, to be taken or left.
import { proposedPlace } from '@dusky-otter/core/page';
import type { Slot } from '@dusky-otter/core/contract';
import { standable } from '@dusky-otter/core/slots';
import { useState } from 'react';
import { Link } from 'react-router';
import { openPlace } from '../editing/placing.ts';
import { useCounts, useSet, useSetId, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';

/** The place that is proposed for all photos; null where somebody has said where they stand, or that they stand nowhere. */
export function useProposal(): Slot | null {
  const set = useSet();
  const site = useSite();
  const counts = useCounts();
  if (!set || !site || !counts || counts.filters.all === 0) return null;
  const isSaid =
    set.arranged || set.page !== null || set.slots.length > 0 || Object.keys(counts.places).length > 0;
  return isSaid ? null : proposedPlace(site.slots, counts.filters.all);
}

export function Proposal({ of: proposed, elsewhere = false }: { of: Slot; elsewhere?: boolean }) {
  const setId = useSetId();
  const set = useSet()!;
  const site = useSite()!;
  const photos = useCounts()?.filters.all ?? 0;
  const [chosen, setChosen] = useState(proposed.id);
  const slot = site.slots.find(({ id }) => id === chosen) ?? proposed;
  return (
    <section
      aria-label="A proposal for the page"
      className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-rule-strong bg-kelp-soft px-4 py-2.5"
    >
      <p className="min-w-[260px] flex-1">
        <b className="font-semibold">The page is empty yet.</b> Proposed:{' '}
        {photos === 1 ? 'the photo' : `all ${photos} photos`}, and those to come, in one place. Files are made
        for it once you take it.
      </p>
      <label className="flex items-center gap-2">
        Place
        <select className="field w-auto" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          {standable(site.slots).map(({ id, name, hint }) => (
            <option key={id} value={id}>
              {name}
              {hint && `, ${hint}`}
            </option>
          ))}
        </select>
      </label>
      <button className="btn btn-main" onClick={() => openPlace({ set, site }, slot.id)}>
        Take it
      </button>
      {elsewhere && (
        <Link className="btn" to={`/sets/${setId}/arrange`}>
          Place them one by one
        </Link>
      )}
      <button
        className="btn"
        onClick={() => edit('proposal left', [{ kind: 'set', change: { arranged: true } }])}
      >
        Leave it
      </button>
    </section>
  );
}
