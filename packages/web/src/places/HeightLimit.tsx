// How high a picture of a place may stand: in px, or as a part of the window's height; cut to it, or seen whole.
import type { Tallest } from '@dusky-otter/core/contract';
import { TALLEST_MOST } from '@dusky-otter/core/slots';
import { Either, NumberField } from './fields.tsx';

/** A first limit: most of what a window shows at once. */
const FIRST: Tallest = { height: 70, unit: 'vh', cut: true };
/** What a limit in another unit begins at. */
const BEGIN = { vh: 70, px: 600 } as const;

interface Props {
  tallest: Tallest | undefined;
  change: (tallest: Tallest | undefined) => void;
}

export function HeightLimit({ tallest, change }: Props) {
  return (
    <div className="flex min-h-[32px] flex-wrap items-center gap-2 border-t border-rule py-0.5">
      <span className="w-[76px] text-ink-2">Height</span>
      {tallest ? (
        <>
          <NumberField
            key={tallest.unit}
            label="Largest height"
            value={tallest.height}
            unit=""
            most={TALLEST_MOST[tallest.unit]}
            change={(height) => change({ ...tallest, height })}
          />
          <Either
            label="Largest height in"
            on={tallest.unit === 'vh'}
            first="% of the window"
            second="px"
            choose={(vh) => {
              const unit = vh ? 'vh' : 'px';
              if (unit !== tallest.unit) change({ ...tallest, unit, height: BEGIN[unit] });
            }}
          />
          <Either
            label="A picture that is higher"
            on={tallest.cut}
            first="cut to it"
            second="narrower, seen whole"
            choose={(cut) => change({ ...tallest, cut })}
          />
          <button className="chip" onClick={() => change(undefined)}>
            No limit
          </button>
          {tallest.unit === 'vh' && !tallest.cut && (
            <p className="w-full text-[12px] text-ink-2">
              Files are made for windows that are high enough; browsers are told the limit.
            </p>
          )}
        </>
      ) : (
        <button className="chip" onClick={() => change(FIRST)}>
          Limit it
        </button>
      )}
    </div>
  );
}
