// The shapes of a place by the window they begin at.
import type { ShapeId, Slot } from '@dusky-otter/core/contract';
import { withShapes } from './drafts.ts';
import { NumberField } from './fields.tsx';
import { shapeSaid } from './shapes-said.ts';

const COMMON: readonly ShapeId[] = ['3:2', '1:1', '4:5', '16:9', '3:1', '2:1', '4:3', '2:3'];
const RATIO = /^[1-9]\d{0,3}:[1-9]\d{0,3}$/;

export function Shapes({ slot, change }: { slot: Slot; change: (slot: Slot) => void }) {
  const parts = slot.shapes.map(({ shape, from }) => ({ shape, from }));
  const put = (at: number, part: Partial<(typeof parts)[number]>) =>
    change(
      withShapes(
        slot,
        parts.map((one, n) => (n === at ? { ...one, ...part } : one)),
      ),
    );
  const free = COMMON.filter((shape) => !parts.some((part) => part.shape === shape));
  const add = () => {
    const largest = Math.max(...parts.map(({ from }) => from));
    change(withShapes(slot, [...parts, { shape: free[0]!, from: largest === 0 ? 700 : largest + 300 }]));
  };
  return (
    <ul>
      {parts.map(({ shape, from }, n) => (
        <li
          key={n}
          className="flex min-h-[32px] flex-wrap items-center gap-2 border-t border-rule first:border-t-0"
        >
          <span className="w-[76px] text-ink-2">
            {parts.length === 1 ? 'everywhere' : from > 0 ? (n === 0 ? 'from' : 'then from') : 'below that'}
          </span>
          {from > 0 && (
            <NumberField
              label="From this window width"
              value={from}
              unit="px"
              change={(next) => put(n, { from: next })}
            />
          )}
          <select
            className="field ml-auto w-[84px] px-1.5 py-[3px]"
            aria-label={from > 0 ? `Shape from ${from} px` : 'Shape below that'}
            value={COMMON.includes(shape) ? shape : 'typed'}
            onChange={(event) =>
              put(n, { shape: event.target.value === 'typed' ? '5:7' : (event.target.value as ShapeId) })
            }
          >
            {COMMON.filter((one) => one === shape || free.includes(one)).map((one) => (
              <option key={one}>{one}</option>
            ))}
            <option value="typed">another ratio</option>
          </select>
          {!COMMON.includes(shape) && (
            <input
              className="field w-[72px] px-2 py-[3px]"
              aria-label="Ratio, such as 5:7"
              defaultValue={shape}
              maxLength={9}
              onBlur={(event) => {
                const typed = event.target.value.replace(/\s|px/g, '').replace(/[/x×]/, ':');
                if (RATIO.test(typed) && !parts.some((part, at) => at !== n && part.shape === typed))
                  put(n, { shape: typed as ShapeId });
                else event.target.value = shape;
              }}
            />
          )}
          {parts.length > 1 && (
            <button
              className="chip"
              aria-label={`Drop ${shapeSaid(shape)}`}
              onClick={() => change(withShapes(slot, closed(parts.filter((_, at) => at !== n))))}
            >
              Drop
            </button>
          )}
        </li>
      ))}
      <li>
        <button
          className="text-[12.5px] text-kelp underline underline-offset-2"
          onClick={add}
          disabled={parts.length >= 6}
        >
          Add a range
        </button>
      </li>
    </ul>
  );
}

/** The smallest range begins at 0, whichever was taken away. */
function closed(parts: { shape: ShapeId; from: number }[]): { shape: ShapeId; from: number }[] {
  const least = Math.min(...parts.map(({ from }) => from));
  return parts.map((part) => (part.from === least ? { ...part, from: 0 } : part));
}
