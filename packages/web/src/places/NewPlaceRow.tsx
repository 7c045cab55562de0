// A place in the making: a name and a width. What can't be read yet is kept and said, with a mend.
import type { Site, Slot } from '@dusky-otter/core/contract';
import { slotIdFor } from '@dusky-otter/core/places';
import { derivedBudget } from '@dusky-otter/core/slots';
import { useId } from 'react';
import { edit } from '../server/state.ts';
import { finished, keepNew, widthRead, withWidth, type NewPlace } from './drafts.ts';
import { WidthError, WidthNotes } from './WidthFields.tsx';

const BLANK: Omit<Slot, 'id' | 'name' | 'rule'> = {
  hint: '',
  shapes: [{ shape: '3:2', from: 0, to: null }],
  budget: 1,
  loading: 'lazy',
  fit: null,
};

interface Props {
  site: Site;
  place: NewPlace;
  /** The place that was made is opened. */
  made: (id: string) => void;
}

export function NewPlaceRow({ site, place, made }: Props) {
  const id = useId();
  const { name, width } = place;
  const { read, error, mend } = widthRead(width);
  const begun = width.trim() !== '';
  const same = site.slots.some((slot) => slot.name.trim().toLowerCase() === name.trim().toLowerCase());
  const ready = read !== null && name.trim() !== '' && !same;
  const make = () => {
    if (!ready) return;
    const slotId = slotIdFor(
      name,
      site.slots.map((slot) => slot.id),
    );
    const slot = withWidth({ ...BLANK, id: slotId, name, rule: read.rule }, width, read);
    const value = finished({ ...slot, budget: derivedBudget(slot) });
    edit(`place ${value.name}`, [{ kind: 'slot', slot: slotId, value }]);
    keepNew(site.id, null);
    made(slotId);
  };
  return (
    <form
      className="grid gap-x-4 gap-y-2 border-b border-rule-strong bg-raised px-4 py-2.5 min-[701px]:grid-cols-[234px_minmax(0,1fr)_auto]"
      aria-label="A new place"
      onSubmit={(event) => {
        event.preventDefault();
        make();
      }}
    >
      <div>
        <input
          className="field py-1"
          aria-label="Name of the new place"
          placeholder="Name, such as Shop shelf"
          maxLength={100}
          autoFocus
          value={name}
          onChange={(event) => keepNew(site.id, { ...place, name: event.target.value })}
        />
        <p className="pt-1 text-[12px] text-ink-2">
          {same && name.trim() !== ''
            ? 'There is a place of this name.'
            : 'New: it is made when name and width are right.'}
        </p>
      </div>
      <div className="min-w-0">
        <input
          className="field py-1 font-figure text-[12.5px]"
          aria-label="Width of the new place, in words or as CSS"
          placeholder="4 across with 16 px between in 1200 px, or CSS"
          spellCheck={false}
          maxLength={500}
          value={width}
          aria-invalid={(begun && error !== null) || undefined}
          aria-describedby={begun && error ? `${id}-error` : undefined}
          onChange={(event) => keepNew(site.id, { ...place, width: event.target.value })}
        />
        {begun && error ? (
          <WidthError id={`${id}-error`} error={error} />
        ) : (
          <>
            <p className="pt-1 font-figure text-[12px] text-ink-2">{read ? read.css : ' '}</p>
            <WidthNotes notes={read?.notes ?? []} />
          </>
        )}
      </div>
      <div className="flex flex-wrap items-start gap-2">
        {begun && mend !== null && (
          <button type="button" className="btn" onClick={() => keepNew(site.id, { ...place, width: mend })}>
            Mend it
          </button>
        )}
        <button className="btn btn-main" disabled={!ready}>
          Make it
        </button>
        <button type="button" className="btn" onClick={() => keepNew(site.id, null)}>
          Drop it
        </button>
      </div>
    </form>
  );
}
