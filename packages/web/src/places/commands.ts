// Places that come from elsewhere, as the commands that make them: copied, read from a file, measured.
import type { Site, Slot } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { slotIdFor } from '@dusky-otter/core/places';

/** Places as commands for a site, under short names that are free there. */
export function commandsFor(site: Site, slots: readonly Slot[]): Command[] {
  const taken = site.slots.map(({ id }) => id);
  return slots.map((slot) => {
    const id = slotIdFor(slot.id, taken);
    taken.push(id);
    return { kind: 'slot', slot: id, value: { ...slot, id } };
  });
}
