// Where a photo goes: a switch for every slot; until one is touched the photo follows its set.
import type { SlotId } from '@dusky-otter/core/contract';
import { slotsOf } from '@dusky-otter/core/plan';
import { standable } from '@dusky-otter/core/slots';
import { useSetSlots, useSite, type Row } from '../server/hooks.ts';
import { saveSlots } from '../editing/edits.ts';

export function PlacesCell({ row }: { row: Row }) {
  const places = standable(useSite()?.slots ?? []);
  const slots = slotsOf(row, useSetSlots());
  const toggle = (id: SlotId) => {
    const next = places
      .map((slot) => slot.id)
      .filter((other) => (other === id ? !slots.includes(id) : slots.includes(other)));
    saveSlots([row], () => next);
  };
  return (
    <div className="flex flex-col gap-2">
      <div role="group" aria-label={`Places of ${row.fileName}`} className="flex flex-wrap gap-1.5">
        {places.map((slot) => (
          <button
            key={slot.id}
            className="chip"
            aria-pressed={slots.includes(slot.id)}
            title={slot.hint}
            onClick={() => toggle(slot.id)}
          >
            {slot.name}
          </button>
        ))}
      </div>
      <div className="flex items-center gap-2 text-[12px] text-ink-2">
        {row.placements === null ? (
          'As the set'
        ) : (
          <>
            Its own places
            <button
              className="rounded-paper border border-rule-strong bg-raised px-1.5 hover:border-edge"
              onClick={() => saveSlots([row], () => null)}
            >
              Follow the set
            </button>
          </>
        )}
      </div>
    </div>
  );
}
