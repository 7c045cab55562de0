// A menu of places: those on the page first, then those that come onto it by being chosen.
import { DropdownMenu } from 'radix-ui';
import type { SetPage, Site, Slot, SlotId } from '@dusky-otter/core/contract';
import { placesOn } from '@dusky-otter/core/plan';
import { standable } from '@dusky-otter/core/slots';

interface Props {
  site: Site;
  page: SetPage;
  /** Only places that are not on the page are offered. */
  absent?: boolean;
  choose: (slot: SlotId) => void;
  className: string;
  children: string;
}

export function PlaceChoice({ site, page, absent = false, choose, className, children }: Props) {
  const shown = new Set(placesOn(page));
  const places = standable(site.slots);
  const here = absent ? [] : places.filter(({ id }) => shown.has(id));
  const others = places.filter(({ id }) => !shown.has(id));
  const item = ({ id, name, hint }: Slot) => (
    <DropdownMenu.Item key={id} className="menu-item" onSelect={() => choose(id)}>
      {name}{' '}
      <span className="ml-auto text-[12px] text-ink-2">
        {shown.has(id) || absent ? hint : 'comes onto the page'}
      </span>
    </DropdownMenu.Item>
  );
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={className}>{children}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-h-[60vh] overflow-auto" align="start">
          {here.map(item)}
          {here.length > 0 && others.length > 0 && <DropdownMenu.Separator className="my-1 h-px bg-rule" />}
          {others.map(item)}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
