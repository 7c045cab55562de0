// Places that come from elsewhere, as the commands that make them: copied, read from a file, measured.
import { slotIdFor, type Command, type Site, type Slot } from '@dusky-otter/core';

/** Places as commands for a site, under short names that are free there. */
export function commandsFor(site: Site, slots: readonly Slot[]): Command[] {
  const taken = site.slots.map(({ id }) => id);
  return slots.map((slot) => {
    const id = slotIdFor(slot.id, taken);
    taken.push(id);
    return { kind: 'slot', slot: id, value: { ...slot, id } };
  });
}
