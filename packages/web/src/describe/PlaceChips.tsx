// Where words hold: everywhere the photo stands, or in one place alone.
import { placementIn, type Slot, type SlotId } from '@dusky-otter/core';
import type { Row } from '../server/hooks.ts';
import { saveSpotWords } from '../worktable/edits.ts';

interface Props {
  row: Row;
  /** Places that the photo stands in. */
  places: readonly Slot[];
  chosen: SlotId | null;
  choose: (slot: SlotId | null) => void;
}

export function PlaceChips({ row, places, chosen, choose }: Props) {
  if (places.length < 2 && chosen === null) return null;
  const own = (slot: SlotId) => Object.keys(placementIn(row, slot).words).length > 0;
  const slots = places.map(({ id }) => id);
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
              onClick={() => saveSpotWords(row, slots, chosen, null, ' given back')}
            >
              Take the photo’s words again
            </button>
          )}
        </span>
      )}
    </div>
  );
}
