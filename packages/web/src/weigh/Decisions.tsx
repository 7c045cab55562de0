// What is decided on the files of one photo: how much may be seen, format, loss, still, ground; here or everywhere.
import type { Site, Slot, SlotId } from '@dusky-otter/core/contract';
import { treatmentIn } from '@dusky-otter/core/plan';
import { decisionInWords, FORMAT_NAMES, TARGET_NAMES, TARGETS, treatmentOf } from '@dusky-otter/core/weight';
import { MODERN_SAID } from '../policy/said.ts';
import type { Row } from '../server/hooks.ts';
import { decide, giveBack, type Change } from './decide.ts';
import { Tick } from '../ui/Tick.tsx';

const UPPER = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function Choices<T extends string>({
  label,
  options,
  chosen,
  choose,
}: {
  label: string;
  options: readonly { id: T; name: string; hint?: string }[];
  chosen: T;
  choose: (id: T) => void;
}) {
  return (
    <div
      role="group"
      aria-label={label}
      className="mt-1.5 grid grid-cols-[72px_minmax(0,1fr)] items-center gap-2"
    >
      <span className="text-[12.5px] text-ink-2">{label}</span>
      <span className="flex flex-wrap gap-1">
        {options.map(({ id, name, hint }) => (
          <button
            key={id}
            className="chip"
            aria-pressed={chosen === id}
            title={hint}
            onClick={() => choose(id)}
          >
            {name}
          </button>
        ))}
      </span>
    </div>
  );
}

interface Props {
  row: Row;
  slot: Slot;
  site: Site;
  /** All places that it stands in. */
  slots: readonly SlotId[];
  everywhere: boolean;
  setEverywhere: (everywhere: boolean) => void;
}

export function Decisions({ row, slot, site, slots, everywhere, setEverywhere }: Props) {
  const decision = row.quality[slot.id] ?? {};
  const { target, pinned, format, lossless, still, frame, every, background } = decision;
  const places = () => (everywhere ? slots : [slot.id]);
  const save = (what: string, change: Change) => decide([row], places, what, change);
  const { original } = row;
  const treatment = treatmentIn(original, decision);
  const decided = decisionInWords(row.quality[slot.id]);
  const isDrawing = treatment.kind === 'drawing';
  const couldBeDrawing = treatmentOf(original).kind === 'drawing';
  return (
    <section className="border-b border-rule px-4 py-3">
      <div className="flex items-baseline gap-2">
        <h2 className="font-title text-[14px] font-[600]">How much may be seen</h2>
        <Tick className="ml-auto text-[12.5px] text-ink-2" checked={everywhere} set={setEverywhere}>
          everywhere it stands
        </Tick>
      </div>
      {!isDrawing && (
        <Choices
          label="Target"
          chosen={pinned !== undefined ? '' : (target ?? 'site')}
          options={[
            { id: 'site', name: `Site: ${site.policy.target}` },
            ...TARGET_NAMES.map((name) => ({
              id: name,
              name: UPPER(name),
              hint: `visible difference up to ${TARGETS[name]}`,
            })),
          ]}
          choose={(id) =>
            save('target', {
              pinned: undefined,
              target: TARGET_NAMES.find((name) => name === id),
            })
          }
        />
      )}
      <Choices
        label="Format"
        chosen={format ?? 'site'}
        options={[
          { id: 'site', name: couldBeDrawing ? 'As a drawing' : `Site: ${MODERN_SAID[site.policy.modern]}` },
          ...(['avif', 'webp'] as const).map((id) => ({
            id,
            name: FORMAT_NAMES[id],
            ...(couldBeDrawing && { hint: 'as bitmaps, for systems that take no SVG' }),
          })),
        ]}
        choose={(id) => save('format', { format: id === 'site' ? undefined : id })}
      />
      {!isDrawing && (original.frames === 1 || still) && (
        <Choices
          label="Loss"
          chosen={lossless === undefined ? 'kind' : lossless ? 'without' : 'with'}
          options={[
            { id: 'kind', name: 'As its kind', hint: treatment.reason },
            { id: 'without', name: 'Without loss' },
            { id: 'with', name: 'With loss' },
          ]}
          choose={(id) => save('loss', { lossless: id === 'kind' ? undefined : id === 'without' })}
        />
      )}
      {original.frames > 1 && (
        <>
          <Choices
            label="Movement"
            chosen={still ? 'still' : every ? 'fewer' : 'moves'}
            options={[
              { id: 'moves', name: `All ${original.frames} frames` },
              {
                id: 'fewer',
                name: every && every > 2 ? `One frame in ${every}` : 'Every other frame',
              },
              { id: 'still', name: 'One frame, still' },
            ]}
            choose={(id) =>
              save('movement', {
                still: id === 'still' ? true : undefined,
                frame: undefined,
                every: id === 'fewer' ? (every ?? 2) : undefined,
              })
            }
          />
          {still && (
            <label className="mt-1.5 grid grid-cols-[72px_minmax(0,1fr)_auto] items-center gap-2 text-[12.5px] text-ink-2">
              Frame
              <input
                type="range"
                className="accent-kelp"
                min={1}
                max={original.frames}
                value={(frame ?? 0) + 1}
                onChange={(event) => save('frame', { frame: Number(event.target.value) - 1 })}
              />
              <output>
                {(frame ?? 0) + 1} of {original.frames}
              </output>
            </label>
          )}
        </>
      )}
      {original.transparent && (
        <div className="mt-1.5 grid grid-cols-[72px_minmax(0,1fr)] items-center gap-2 text-[12.5px]">
          <span className="text-ink-2">Ground</span>
          <span className="flex items-center gap-1">
            <button
              className="chip"
              aria-pressed={background === undefined}
              onClick={() => save('ground', { background: undefined })}
            >
              See-through
            </button>
            <input
              type="color"
              aria-label="Colour that it is laid on"
              className="h-[26px] w-[34px] rounded-paper border border-rule-strong bg-raised"
              value={background ?? '#ffffff'}
              onChange={(event) => save('ground', { background: event.target.value })}
            />
            {background && <span className="text-ink-2">on {background}, as a JPEG too</span>}
          </span>
        </div>
      )}
      <p className="mt-2 flex items-center gap-2 text-[12.5px] text-ink-2">
        {decided ? `Yours here: ${decided}.` : treatment.reason}
        {decided && (
          <button className="chip ml-auto" title="Key G" onClick={() => giveBack([row], places)}>
            Give back
          </button>
        )}
      </p>
    </section>
  );
}
