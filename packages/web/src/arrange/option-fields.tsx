// Fields for the options of an arrangement: numbers, choices, columns, widths.
import type { Columns, WidthRule } from '@dusky-otter/core/contract';
import { cssLength, sizesOf } from '@dusky-otter/core/css';
import { readWidth } from '@dusky-otter/core/slots';
import { useState } from 'react';
import { sentenceOf } from '../api/client.ts';
import { CONTAINERS } from './containers.ts';

export interface FieldProps {
  value: unknown;
  set: (value: unknown) => void;
  label: string;
}

/** A number that is taken when its field is left, or Enter pressed. */
export function CountField({
  value,
  set,
  label,
  unit,
  from,
  to,
}: Omit<FieldProps, 'value'> & { value: number; unit: string; from: number; to: number }) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    const number = Number((typed ?? '').replace(',', '.'));
    if (typed !== null && typed.trim() !== '' && number >= from && number <= to) set(number);
    setTyped(null);
  };
  return (
    <span className="flex items-baseline gap-1.5">
      <input
        className="field w-[74px] text-right"
        inputMode="decimal"
        aria-label={`${label}, ${from} to ${to} ${unit}`}
        value={typed ?? String(value)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {unit}
    </span>
  );
}

export function Select({
  value,
  set,
  label,
  choices,
  nameOf,
}: FieldProps & { choices: readonly string[]; nameOf: (choice: string) => string }) {
  return (
    <select
      className="field"
      aria-label={label}
      value={String(value)}
      onChange={(event) => set(event.target.value)}
    >
      {choices.map((choice) => (
        <option key={choice} value={choice}>
          {nameOf(choice)}
        </option>
      ))}
    </select>
  );
}

/** Columns on the narrowest screens, and from another width on. */
export function ColumnsField({ value, set }: FieldProps) {
  const columns = value as Columns;
  const change = (n: number, part: Partial<Columns[number]>) =>
    set(columns.map((one, at) => (at === n ? { ...one, ...part } : one)));
  const last = columns.at(-1)!;
  return (
    <span className="grid gap-1.5">
      {columns.map(({ from, count }, n) => (
        <span key={n} className="flex flex-wrap items-baseline gap-1.5">
          <CountField
            label={n === 0 ? 'Columns where it is narrow' : `Columns, part ${n + 1}`}
            value={count}
            unit=""
            from={1}
            to={12}
            set={(many) => change(n, { count: Math.round(many as number) })}
          />
          {n > 0 && (
            <>
              from
              <CountField
                label={`From this width on, part ${n + 1}`}
                value={from}
                unit="px"
                from={(columns[n - 1]?.from ?? 0) + 1}
                to={(columns[n + 1]?.from ?? 4001) - 1}
                set={(px) => change(n, { from: px as number })}
              />
              <button
                className="chip"
                aria-label={`Without part ${n + 1}`}
                onClick={() => set(columns.filter((_, at) => at !== n))}
              >
                ×
              </button>
            </>
          )}
        </span>
      ))}
      {columns.length < 4 && last.from < 3000 && (
        <button
          className="chip justify-self-start"
          onClick={() => set([...columns, { from: last.from + 300, count: Math.min(12, last.count + 1) }])}
        >
          More where it is wider
        </button>
      )}
    </span>
  );
}

export function WidthField({ value, set, label }: FieldProps) {
  const width = value as { part: number } | { px: number };
  const isPart = 'part' in width;
  return (
    <span className="flex gap-1.5">
      {isPart ? (
        <CountField
          label={label}
          value={Math.round(width.part * 100)}
          unit="%"
          from={10}
          to={100}
          set={(n) => set({ part: (n as number) / 100 })}
        />
      ) : (
        <CountField label={label} value={width.px} unit="px" from={40} to={4000} set={(px) => set({ px })} />
      )}
      <button className="chip" onClick={() => set(isPart ? { px: 480 } : { part: 0.5 })}>
        {isPart ? 'in px' : 'as a part'}
      </button>
    </span>
  );
}

/** The width of what it stands in: one of the usual ones, or as CSS. */
export function Container({ rule, set }: { rule: WidthRule; set: (rule: WidthRule) => void }) {
  const css = sizesOf(rule);
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const usual = CONTAINERS.find(({ said }) => sizesOf(readWidth(said).rule) === css);
  const take = () => {
    if (typed === null) return;
    try {
      const { rule: read, height } = readWidth(typed);
      if (height) return setProblem('What it stands in has a width alone: leave the height out.');
      set(read);
      setTyped(null);
      setProblem(null);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <span className="grid gap-1.5">
      <select
        className="field"
        aria-label="It stands in"
        value={typed !== null || !usual ? 'typed' : usual.said}
        onChange={({ target: { value } }) =>
          value === 'typed' ? setTyped(css) : (setTyped(null), setProblem(null), set(readWidth(value).rule))
        }
      >
        {CONTAINERS.map(({ name, said }) => (
          <option key={said} value={said}>
            {name}
          </option>
        ))}
        <option value="typed">another width…</option>
      </select>
      {(typed !== null || !usual) && (
        <input
          className="field font-figure text-[12px]"
          aria-label="Width as CSS, or as you say it"
          aria-invalid={problem !== null}
          value={typed ?? (rule.length === 1 ? cssLength(rule[0]!) : css)}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={take}
          onKeyDown={(event) => event.key === 'Enter' && take()}
        />
      )}
      {problem && (
        <span role="alert" className="text-[12px] text-rust">
          {problem}
        </span>
      )}
    </span>
  );
}
