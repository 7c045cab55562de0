// Where many photos stand, at once.
import type { SlotId } from '@dusky-otter/core/contract';
import { standsIn } from '@dusky-otter/core/plan';
import { standable } from '@dusky-otter/core/slots';
import { DropdownMenu } from 'radix-ui';
import { notifyFailure } from '../screen/screen.ts';
import { rowAt, useSet, useSetPlaces, useSite } from '../server/hooks.ts';
import { placeEach } from '../editing/placing.ts';
import { photosOf } from '../editing/photos.ts';

export function PlaceMenu({ ids, setId }: { ids: readonly number[]; setId: number }) {
  const set = useSet();
  const site = useSite();
  const places = standable(site?.slots ?? []);
  const setPlaces = useSetPlaces();
  const known = ids.flatMap((id) => rowAt(setId, id) ?? []);
  const has = (id: SlotId) => known.filter((photo) => standsIn(photo, setPlaces).includes(id)).length;
  const save = async (slotsFor: (standing: readonly SlotId[]) => SlotId[] | null) => {
    try {
      const photos = await photosOf(setId, ids);
      if (set && site) placeEach(photos, { set, site }, slotsFor);
    } catch (error) {
      notifyFailure(error);
    }
  };
  // Chosen for some: chosen for all. Chosen for all: taken away from all. The other places stay as they are.
  const toggle = (id: SlotId) => {
    const take = has(id) === ids.length;
    void save((standing) =>
      places.map((slot) => slot.id).filter((other) => (other === id ? !take : standing.includes(other))),
    );
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={ids.length === 0}>
        Set places
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          {places.map((slot) => (
            <DropdownMenu.CheckboxItem
              key={slot.id}
              className="menu-item"
              checked={has(slot.id) === 0 ? false : has(slot.id) === ids.length ? true : 'indeterminate'}
              onSelect={(event) => event.preventDefault()}
              onCheckedChange={() => toggle(slot.id)}
            >
              <span aria-hidden="true" className="w-4">
                {has(slot.id) === 0 ? '' : has(slot.id) === ids.length ? '✓' : '–'}
              </span>
              {slot.name} <span className="ml-auto text-[12px] text-ink-2">{slot.hint}</span>
            </DropdownMenu.CheckboxItem>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Item className="menu-item" onSelect={() => void save(() => null)}>
            <span className="w-4" /> As the set
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
