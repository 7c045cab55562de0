// Places of another site, to be copied into this one.
import type { Site, Slot } from '@dusky-otter/core/contract';
import { typedPlaces, widthText } from '@dusky-otter/core/slots';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client.ts';
import { notify } from '../screen/screen.ts';
import { edit } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { commandsFor } from './commands.ts';
import { Tick } from '../ui/Tick.tsx';

interface Props {
  site: Site;
  open: boolean;
  onClose: () => void;
}

export function CopyPlacesSheet({ site, open, onClose }: Props) {
  const {
    data: sites = [],
    error,
    isPending,
  } = useQuery({
    queryKey: ['sites-with-places'],
    queryFn: api.sites,
    enabled: open,
    staleTime: 0,
  });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const others = sites
    .filter(({ id }) => id !== site.id)
    .map(({ id, name, slots }) => ({ id, name, slots: typedPlaces(slots) }));
  const keyOf = (siteId: number, slot: Slot) => `${siteId} ${slot.id}`;
  const picked = others.flatMap(({ id, slots }) => slots.filter((slot) => chosen.has(keyOf(id, slot))));
  const toggle = (key: string) =>
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  const copy = () => {
    edit(`${picked.length} ${picked.length === 1 ? 'place' : 'places'} copied`, commandsFor(site, picked));
    notify(`${picked.map(({ name }) => name).join(', ')} copied. Undo takes it back.`);
    setChosen(new Set());
    onClose();
  };
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Copy places from another site"
      about="They become this site’s own: a later change there changes nothing here."
      wide
    >
      {error && <p role="alert">{error.message}</p>}
      {!isPending && others.length === 0 && <p className="text-ink-2">There is no other site yet.</p>}
      {others.map(({ id, name, slots }) => (
        <fieldset key={id} className="mb-4">
          <legend className="mb-1 font-semibold">{name}</legend>
          {slots.map((slot) => (
            <Tick
              key={slot.id}
              className="border-t border-rule py-1.5"
              checked={chosen.has(keyOf(id, slot))}
              set={() => toggle(keyOf(id, slot))}
            >
              {slot.name}
              <span className="ml-auto truncate text-right text-[12px] text-ink-2">{widthText(slot)}</span>
            </Tick>
          ))}
        </fieldset>
      ))}
      <button className="btn btn-main" disabled={picked.length === 0} onClick={copy}>
        Copy {picked.length || ''} {picked.length === 1 ? 'place' : 'places'}
      </button>
    </Sheet>
  );
}
