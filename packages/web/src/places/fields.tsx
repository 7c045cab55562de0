// Small fields of a place: one of two answers, and a number with its unit.
import { useState } from 'react';

/** A heading of a part, and a part below another. */
export const HEAD = 'mb-1 flex items-baseline gap-2 font-[650]';
export const PART = 'mt-2.5 border-t border-rule pt-2.5';

/** Two answers, one of which holds. */
export function Either({
  label,
  on,
  first,
  second,
  choose,
}: {
  label: string;
  on: boolean;
  first: string;
  second: string;
  choose: (on: boolean) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap">
      {[first, second].map((name, n) => (
        <button
          key={name}
          className="chip rounded-none"
          aria-pressed={on === (n === 0)}
          onClick={() => choose(n === 0)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}

export function NumberField({
  label,
  value,
  unit,
  change,
  least = 1,
  most = 20_000,
}: {
  label: string;
  value: number;
  unit: string;
  change: (value: number) => void;
  least?: number;
  most?: number;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = (text: string) => {
    const number = Number(text.replace(',', '.'));
    return text.trim() !== '' && Number.isFinite(number) && number >= least && number <= most ? number : null;
  };
  const wrong = typed !== null && read(typed) === null;
  return (
    <label className="inline-flex items-center gap-1.5">
      <span className="sr-only">{label}</span>
      <input
        inputMode="decimal"
        className="field w-[72px] px-2 py-[3px] text-right"
        aria-invalid={wrong || undefined}
        title={wrong ? `${label}: a number from ${least} to ${most}` : undefined}
        value={typed ?? String(value)}
        onChange={(event) => {
          setTyped(event.target.value);
          const number = read(event.target.value);
          if (number !== null) change(number);
        }}
        onBlur={() => setTyped(null)}
      />
      <span className={wrong ? 'text-rust' : 'text-ink-2'}>{unit}</span>
    </label>
  );
}
