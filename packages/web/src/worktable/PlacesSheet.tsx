// What holds for the whole set: its name and its default places, and where the rules for its files are.
import type { SlotId } from '@dusky-otter/core/contract';
import { standable } from '@dusky-otter/core/slots';
import { Link } from 'react-router';
import { MODERN_SAID } from '../policy/said.ts';
import { useDraft } from '../screen/draft.ts';
import { useSet, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { Tick } from '../ui/Tick.tsx';

function NameField({ name, version }: { name: string; version: number }) {
  const draft = useDraft(name, version, (next) => {
    if (next.trim()) edit('name of the set', [{ kind: 'set', change: { name: next.trim() } }]);
  });
  return (
    <label className="block font-semibold">
      Name of the set
      <input
        className="field mt-1 text-[15px] font-normal"
        maxLength={200}
        value={draft.text}
        onChange={(event) => draft.change(event.target.value)}
        onBlur={draft.flush}
      />
    </label>
  );
}

export function PlacesSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const set = useSet();
  const site = useSite();
  if (!set || !site) return null;
  const toggle = (id: SlotId) => {
    const slots = site.slots
      .map((slot) => slot.id)
      .filter((other) => (other === id ? !set.slots.includes(id) : set.slots.includes(other)));
    edit('places of the set', [{ kind: 'set', change: { slots, arranged: true } }]);
  };
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Places"
      about="These hold for every photo of the set that has none of its own."
    >
      <div className="grid gap-5">
        <NameField name={set.name} version={set.version} />
        <fieldset>
          <legend className="mb-1 flex w-full font-semibold">
            Places
            <Link
              to={`/sets/${set.id}/places`}
              className="ml-auto font-normal text-kelp underline underline-offset-2"
              onClick={onClose}
            >
              Make and change places
            </Link>
          </legend>
          {standable(site.slots).map((slot) => (
            <Tick
              key={slot.id}
              className="border-t border-rule py-1.5"
              checked={set.slots.includes(slot.id)}
              set={() => toggle(slot.id)}
            >
              {slot.name}
              <span className="ml-auto text-[12px] text-ink-2">
                {slot.hint}, {slot.budget / 1000} kB on a phone
              </span>
            </Tick>
          ))}
        </fieldset>
        <p className="border-t border-rule pt-2">
          Files are {MODERN_SAID[site.policy.modern]} beside JPEG or PNG, {site.policy.target}, for all sets
          of the site.{' '}
          <Link
            to={`/sets/${set.id}/rules`}
            className="text-kelp underline underline-offset-2"
            onClick={onClose}
          >
            Change the rules for files
          </Link>
        </p>
      </div>
    </Sheet>
  );
}
