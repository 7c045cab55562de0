// Bytes that a phone may get in a place, and the photos that stand in it against them.
import type { PlaceUse, Slot } from '@dusky-otter/core/contract';
import { derivedBudget } from '@dusky-otter/core/slots';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useNavigate } from 'react-router';
import { useSetId } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import { HEAD, NumberField } from './fields.tsx';

export function Budget({
  slot,
  use,
  change,
}: {
  slot: Slot;
  use: PlaceUse | null;
  change: (slot: Slot) => void;
}) {
  const navigate = useNavigate();
  const setId = useSetId();
  const weights = use?.weights ?? [];
  const most = Math.max(slot.budget, weights[0] ?? 0) * 1.3;
  const over = weights.filter((bytes) => bytes > slot.budget).length;
  const derived = derivedBudget(slot);
  return (
    <section>
      <div className={HEAD}>
        Bytes a phone may get
        <span className="ml-auto font-normal">
          <NumberField
            label="Budget"
            value={slot.budget / 1000}
            unit="kB"
            most={100_000}
            change={(kB) => change({ ...slot, budget: Math.max(1, Math.round(kB * 1000)) })}
          />
        </span>
      </div>
      <svg className="w-full" height="22" viewBox="0 0 306 22" preserveAspectRatio="none" aria-hidden="true">
        <path d="M0 11H306" stroke="var(--rule-strong)" />
        {weights.map((bytes, n) => (
          <path
            key={n}
            d={`M${(bytes / most) * 306} 4v14`}
            stroke={bytes > slot.budget ? 'var(--amber)' : 'var(--kelp)'}
            strokeWidth="4"
          />
        ))}
        <path d={`M${(slot.budget / most) * 306} 0v22`} stroke="var(--ink)" strokeWidth="2" />
      </svg>
      <p className="flex flex-wrap items-baseline gap-x-2">
        {weights.length === 0 ? (
          <span className="text-[12.5px] text-ink-2">No photo is made for it yet.</span>
        ) : over === 0 ? (
          <StateTag state="ready">
            {weights.length === 1 ? 'Its photo keeps to it' : `All ${weights.length} photos keep to it`}
          </StateTag>
        ) : (
          <StateTag state="care">
            {over} of {weights.length} {over === 1 ? 'is' : 'are'} over; the heaviest has{' '}
            {bytesInWords(weights[0]!)}
          </StateTag>
        )}
        {use?.heaviest && use.heaviest.bytes > slot.budget && (
          <button
            className="ml-auto text-[12.5px] text-kelp underline underline-offset-2"
            onClick={() => void navigate(`/sets/${setId}/weigh`)}
          >
            Weigh it
          </button>
        )}
      </p>
      {derived !== slot.budget && (
        <p className="mt-1 text-[12.5px] text-ink-2">
          Its part of a phone’s first screen would be {bytesInWords(derived)}.{' '}
          <button
            className="text-kelp underline underline-offset-2"
            onClick={() => change({ ...slot, budget: derived })}
          >
            Take that
          </button>
        </p>
      )}
    </section>
  );
}
