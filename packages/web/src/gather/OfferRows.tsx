// Files with names of photos that are here: nothing is added or replaced until somebody says so.
import { useState } from 'react';
import { useOffers, useSetId } from '../server/hooks.ts';
import { addAllBeside, putOffersAway } from '../server/state.ts';
import { OfferCard } from './OfferCard.tsx';
import { putInPlace } from './replacing.ts';

/** @param folded one line that opens: elsewhere than at Gather the photos are what one came for */
export function OfferRows({ folded }: { folded: boolean }) {
  const setId = useSetId();
  const offers = useOffers();
  const [opened, setOpened] = useState(false);
  if (offers.length === 0) return null;
  const isShut = folded && !opened;
  return (
    <section
      aria-label="Files that may take a photo’s place"
      className="max-h-[46vh] shrink-0 overflow-auto border-b border-rule-strong bg-sheet [@media(max-height:560px)]:max-h-[30vh]"
      tabIndex={0}
    >
      <div className="flex flex-wrap items-center gap-1.5 border-b border-rule bg-paper px-4 py-1.5">
        <span className="mr-auto text-ink-2">
          {offers.length === 1
            ? 'A file may take a photo’s place. Nothing is changed until you say so.'
            : `${offers.length} files may take photos’ places. Nothing is changed until you say so.`}
        </span>
        {folded && (
          <button className="chip" aria-expanded={opened} onClick={() => setOpened(!opened)}>
            {opened ? 'Fold' : 'Decide'}
          </button>
        )}
        {offers.length > 1 && !isShut && (
          <>
            <button className="chip" onClick={() => void putInPlace(setId, offers)}>
              Put all in their places
            </button>
            <button className="chip" onClick={() => void addAllBeside(offers.map(({ id }) => id))}>
              Add all beside
            </button>
            <button className="chip" onClick={() => void putOffersAway()}>
              Leave all out
            </button>
          </>
        )}
      </div>
      {!isShut && (
        <ul>
          {offers.map((offer) => (
            <li key={offer.id} className="border-b border-rule px-4 py-3 last:border-b-0">
              <OfferCard offer={offer} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
