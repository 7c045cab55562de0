// What holds for the whole set: its name, its default slots, and how its site makes files.
import {
  addressUnder,
  FORMAT_NAMES,
  prefixProblem,
  TARGET_NAMES,
  TARGETS,
  type Policy,
  type Site,
  type SlotId,
  type TargetName,
} from '@dusky-otter/core';
import { Link } from 'react-router';
import { useDraft } from '../screen/draft.ts';
import { useSet, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';

const TARGETS_SAID: Record<TargetName, string> = {
  exacting: 'for pictures that are looked at closely',
  clean: 'passes unnoticed on a page',
  lean: 'for quick pages; a trained eye finds traces',
};

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

/** Where the files lie on the site; one address shows what that makes of them. */
function PrefixField({ site }: { site: Site }) {
  const { prefix = '' } = site.policy;
  const draft = useDraft(prefix, site.version, (next) => {
    if (prefixProblem(next.trim()) === null)
      edit('where the files lie', [
        { kind: 'site', change: { policy: { ...site.policy, prefix: next.trim() } } },
      ]);
  });
  const problem = prefixProblem(draft.text.trim());
  return (
    <label className="block font-semibold">
      Where the files lie on the site
      <input
        className="field mt-1 font-figure font-normal"
        spellCheck={false}
        maxLength={500}
        placeholder="beside the page; or /media/, or https://…"
        aria-invalid={problem !== null || undefined}
        value={draft.text}
        onChange={(event) => draft.change(event.target.value)}
        onBlur={draft.flush}
      />
      <span
        className={`block pt-1 text-[12px] font-normal ${problem ? 'text-rust' : 'text-ink-2'}`}
        role="status"
      >
        {problem ?? (
          <>
            In copied markup:{' '}
            <span className="font-figure">
              {addressUnder(draft.text.trim(), 'photos/marbled-bowl-720w.jpg')}
            </span>
          </>
        )}
      </span>
    </label>
  );
}

interface ChoiceProps {
  group: string;
  name: string;
  hint: string;
  chosen: boolean;
  onChoose: () => void;
}

function Choice({ group, name, hint, chosen, onChoose }: ChoiceProps) {
  return (
    <label className="flex items-baseline gap-2 border-t border-rule py-1.5">
      <input type="radio" name={group} className="accent-kelp" checked={chosen} onChange={onChoose} />
      {name}
      <span className="ml-auto text-right text-[12px] text-ink-2">{hint}</span>
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
  const change = (label: string, part: Partial<Policy>) =>
    edit(label, [{ kind: 'site', change: { policy: { ...site.policy, ...part } } }]);
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Places and formats"
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
          {site.slots.map((slot) => (
            <label key={slot.id} className="flex items-baseline gap-2 border-t border-rule py-1.5">
              <input
                type="checkbox"
                className="accent-kelp"
                checked={set.slots.includes(slot.id)}
                onChange={() => toggle(slot.id)}
              />
              {slot.name}
              <span className="ml-auto text-[12px] text-ink-2">
                {slot.hint}, {slot.budget / 1000} kB on a phone
              </span>
            </label>
          ))}
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">Faithfulness, for all sets of the site</legend>
          {TARGET_NAMES.map((target) => (
            <Choice
              key={target}
              group="target"
              name={target}
              hint={`${TARGETS_SAID[target]}; visible difference up to ${TARGETS[target]}`}
              chosen={site.policy.target === target}
              onChoose={() => change('faithfulness', { target })}
            />
          ))}
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">Modern format, for all sets of the site</legend>
          {(['avif', 'webp'] as const).map((modern) => (
            <Choice
              key={modern}
              group="modern"
              name={FORMAT_NAMES[modern]}
              hint={`${modern === 'avif' ? 'smallest files' : 'made faster, read by older browsers'}; a JPEG or PNG goes with it`}
              chosen={site.policy.modern === modern}
              onChoose={() => change('modern format', { modern })}
            />
          ))}
        </fieldset>
        <PrefixField site={site} />
      </div>
    </Sheet>
  );
}
