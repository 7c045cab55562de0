// The options of an arrangement's kind, drawn from what the core says of each.
import { buttonContrast, OPTIONS_OF, type Option } from '@dusky-otter/core/arrange';
import type { Arranged, ArrangementOptions, ShapeId } from '@dusky-otter/core/contract';
import { useId, type ReactNode } from 'react';
import { Tick } from '../ui/Tick.tsx';
import {
  ColumnsField,
  Container,
  CountField,
  Select,
  WidthField,
  type FieldProps,
} from './option-fields.tsx';
import { choiceName, NAMES } from './option-words.ts';

const SHAPES: readonly ShapeId[] = ['own', '3:2', '4:3', '1:1', '4:5', '2:3', '16:9', '3:1'];

/** Chosen where narrow windows show no other shape. */
const SAME = 'same';

/** Options that are set elsewhere on the bench: beside the pictures that they hang on. */
type Elsewhere = 'between' | 'galleries';

/** What is so where it is ticked. */
const YES: Readonly<Record<string, string>> = {
  files: 'links lead to them',
  download: 'the viewer offers the file',
  ownPages: 'each picture has a page, too',
};

/** The options that are set here; those of words over a picture only where there are some. */
const optionsOf = (options: ArrangementOptions): [string, Exclude<Option, Elsewhere>][] =>
  Object.entries(OPTIONS_OF[options.kind]).flatMap(
    ([name, option]): [string, Exclude<Option, Elsewhere>][] => {
      if (option === 'between' || option === 'galleries') return [];
      const over = options.kind === 'rotating' && options.texts === 'over';
      // Where no link leads to a file the viewer offers none.
      if (name === 'download' && 'files' in options && !options.files) return [];
      return (name === 'ink' || name === 'scrim') && !over ? [] : [[name, option]];
    },
  );

function field(name: string, option: Exclude<Option, Elsewhere>, props: FieldProps): ReactNode {
  const { value, set, label } = props;
  if (option === 'columns') return <ColumnsField {...props} />;
  if (option === 'width') return <WidthField {...props} />;
  if (option === 'yes')
    return (
      <Tick checked={value === true} set={set}>
        {YES[name]}
      </Tick>
    );
  if (option === 'perPage')
    return (
      <span className="grid gap-1.5">
        <Tick checked={value === null} set={(all) => set(all ? null : 9)}>
          all of them
        </Tick>
        {typeof value === 'number' && (
          <CountField label={label} value={value} unit="pictures" from={2} to={200} set={set} />
        )}
      </span>
    );
  if (option === 'shape' || option === 'otherShape') {
    const known =
      value === null || SHAPES.includes(value as ShapeId) ? SHAPES : [...SHAPES, value as ShapeId];
    return (
      <Select
        {...props}
        value={value ?? SAME}
        set={(shape) => set(shape === SAME ? null : shape)}
        choices={option === 'shape' ? known : [SAME, ...known]}
        nameOf={(shape) => (shape === SAME ? 'the same' : shape === 'own' ? 'its own' : shape)}
      />
    );
  }
  if (option === 'seconds')
    return (
      <span className="grid gap-1.5">
        <Tick checked={value !== null} set={(on) => set(on ? 6 : null)}>
          goes on by itself
        </Tick>
        {typeof value === 'number' && (
          <CountField label={label} value={value} unit="s" from={3} to={60} set={set} />
        )}
      </span>
    );
  if (name === 'scrim')
    return (
      <CountField
        label={label}
        value={Math.round((value as number) * 100)}
        set={(share) => set((share as number) / 100)}
        unit="% covered"
        from={0}
        to={90}
      />
    );
  if ('unit' in option)
    return (
      <CountField
        label={label}
        value={value as number}
        set={set}
        unit={option.unit}
        from={option.from}
        to={option.to}
      />
    );
  const select = <Select {...props} choices={option} nameOf={(choice) => choiceName(name, choice)} />;
  if (name !== 'signs') return select;
  return (
    <span className="grid gap-1">
      {select}
      <small className="text-[12px] text-ink-2">
        contrast {buttonContrast(value as 'light' | 'dark').toFixed(1)} at least, over any picture; 3 is
        needed
      </small>
    </span>
  );
}

interface Props {
  arranged: Arranged;
  change: (arranged: Arranged) => void;
}

export function Options({ arranged, change }: Props) {
  const { options, container } = arranged;
  const id = useId();
  const said = options as unknown as Record<string, unknown>;
  const set = (name: string, value: unknown) =>
    change({ ...arranged, options: { ...options, [name]: value } });
  return (
    <dl className="grid grid-cols-[88px_minmax(0,1fr)] items-baseline gap-x-2.5 gap-y-2 text-[13px]">
      {optionsOf(options).map(([name, option]) => (
        <div key={`${id}${name}`} className="contents">
          <dt className="text-ink-2">{NAMES[name]}</dt>
          <dd>
            {field(name, option, {
              value: said[name],
              set: (value) => set(name, value),
              label: NAMES[name]!,
            })}
          </dd>
        </div>
      ))}
      <dt className="text-ink-2">Stands in</dt>
      <dd>
        <Container rule={container} set={(rule) => change({ ...arranged, container: rule })} />
      </dd>
    </dl>
  );
}
