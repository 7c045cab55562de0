// Where words hold: everywhere the photo stands, or in one place alone.
import type { Language, Slot, SlotId } from '@dusky-otter/core/contract';
import { placementIn } from '@dusky-otter/core/plan';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api } from '../api/client.ts';
import { useSetPlaces, type Row } from '../server/hooks.ts';
import { saveSpotIn, saveSpotWords } from '../editing/edits.ts';

interface Props {
  row: Row;
  /** Places that the photo stands in. */
  places: readonly Slot[];
  chosen: SlotId | null;
  choose: (slot: SlotId | null) => void;
  /** Of the words; null for the site's first. */
  language: Language | null;
}

/** Words hold wherever a photo stands: who changes them here is told where else. */
export function SharedWith({ row, setId }: { row: Row; setId: number }) {
  const { data: sets = [] } = useQuery({
    queryKey: ['sets with', setId, row.id],
    queryFn: () => api.setsWith(setId, row.id),
    staleTime: 60_000,
  });
  if (sets.length === 0) return null;
  return (
    <p className="text-[12.5px] text-ink-2">
      Also in{' '}
      {sets.map(({ id, name }, n) => (
        <span key={id}>
          {n > 0 && ', '}
          <Link to={`/sets/${id}/describe/${row.id}`} className="underline underline-offset-2">
            {name}
          </Link>
        </span>
      ))}
      : its words are the same there. For other words here, choose a place and write them there.
    </p>
  );
}

export function PlaceChips({ row, places, chosen, choose, language }: Props) {
  const own = (slot: SlotId) => {
    const { words, others } = placementIn(row, slot);
    return Object.keys(language === null ? words : (others?.[language] ?? {})).length > 0;
  };
  const setPlaces = useSetPlaces();
  if (places.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-1.5 border-b border-rule pb-3">
      <span role="group" aria-label="Where these words hold" className="flex flex-wrap gap-1.5">
        <button className="chip" aria-pressed={chosen === null} onClick={() => choose(null)}>
          Everywhere
        </button>
        {places.map(({ id, name }) => (
          <button key={id} className="chip" aria-pressed={chosen === id} onClick={() => choose(id)}>
            {name}
            {own(id) && ': its own'}
          </button>
        ))}
      </span>
      {chosen !== null && (
        <span className="basis-full text-[12.5px] text-ink-2">
          {own(chosen)
            ? 'What you wrote here holds in this place alone. '
            : 'What you change here holds in this place alone; the photo keeps its words elsewhere. '}
          {own(chosen) && (
            <button
              className="chip h-[24px]"
              onClick={() =>
                language === null
                  ? saveSpotWords(row, setPlaces, chosen, null, ' given back')
                  : saveSpotIn(row, setPlaces, chosen, language, null, ' given back')
              }
            >
              Take the photo’s words again
            </button>
          )}
        </span>
      )}
    </div>
  );
}
