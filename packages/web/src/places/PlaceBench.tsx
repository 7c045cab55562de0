// One place open: its drawing, how wide it is, its shapes, its budget, the files it makes. A change is drawn at once and
// applied when the editor says so, for it may cost files.
import {
  bytesInWords,
  derivedBudget,
  sizesOf,
  spanOf,
  type Photo,
  type PlaceUse,
  type ShapeId,
  type Site,
  type Slot,
} from '@dusky-otter/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { useSetId } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';
import {
  draftOf,
  dropDraft,
  finished,
  keepDraft,
  useDrafts,
  widthRead,
  withShapes,
  withWhole,
  withWidth,
} from './drafts.ts';
import { countOf, filesOf, surplusIn } from './files.ts';
import { FilesChart } from './FilesChart.tsx';
import { Section } from './Section.tsx';
import { shapeSaid } from './shapes-said.ts';
import { WidthFields } from './WidthFields.tsx';

interface Props {
  site: Site;
  slot: Slot;
  text: string;
  use: PlaceUse | null;
  photo: Photo | null;
  editDevices: () => void;
}

const COMMON: readonly ShapeId[] = ['3:2', '1:1', '4:5', '16:9', '3:1', '2:1', '4:3', '2:3'];
const HEAD = 'mb-1 flex items-baseline gap-2 font-[650]';
const PART = 'mt-2.5 border-t border-rule pt-2.5';
const RATIO = /^[1-9]\d{0,3}:[1-9]\d{0,3}$/;

/** Two answers, one of which holds. */
function Either({
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

function NumberField({
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

function Shapes({ slot, change }: { slot: Slot; change: (slot: Slot) => void }) {
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

function Budget({ slot, use, change }: { slot: Slot; use: PlaceUse | null; change: (slot: Slot) => void }) {
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
          <StateTag state="ready">All {weights.length} photos keep to it</StateTag>
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

function SizesText({ slot }: { slot: Slot }) {
  const texts = slot.shapes.map((part) => ({ part, text: sizesOf(slot.rule, spanOf(part)) }));
  const copy = () =>
    navigator.clipboard
      .writeText(texts.map(({ text }) => text).join('\n'))
      .then(() => notify('The sizes text is copied.'), notifyFailure);
  return (
    <section className={PART}>
      <div className={HEAD}>
        <span>
          The <span className="font-figure">sizes</span> text that comes out
        </span>
        <button
          className="ml-auto text-[12.5px] font-normal text-kelp underline underline-offset-2"
          onClick={() => void copy()}
        >
          Copy
        </button>
      </div>
      <pre className="whitespace-pre-wrap border border-rule bg-raised px-1.5 py-1 font-figure text-[12px]">
        {texts.map(({ part, text }) => (
          <span key={part.shape} className="block">
            {texts.length > 1 && (
              <span className="block font-body text-ink-2">
                {part.from > 0 ? `from ${part.from} px` : 'below'}, {shapeSaid(part.shape)}
              </span>
            )}
            {text}
          </span>
        ))}
      </pre>
    </section>
  );
}

/** What a change costs, and the buttons that make it or drop it. */
function Apply({ site, slot, readable }: { site: Site; slot: Slot; readable: boolean }) {
  const setId = useSetId();
  const value = finished(slot);
  const named = value.name !== '';
  const {
    data: cost,
    isFetching,
    error,
  } = useQuery({
    queryKey: ['place-cost', setId, value, site.version],
    queryFn: () => api.placeCost(setId, slot.id, value),
    enabled: readable && named,
    placeholderData: (before) => before,
  });
  const apply = () => {
    edit(`place ${value.name}`, [{ kind: 'slot', slot: slot.id, value }]);
    dropDraft(site.id, slot.id);
  };
  const said = !named
    ? 'A place needs a name.'
    : !readable
      ? 'Its width can’t be read yet.'
      : error
        ? error.message
        : cost
          ? cost.photos === 0
            ? 'No photo stands in it: nothing is made anew.'
            : `${cost.files} files for ${cost.photos} ${cost.photos === 1 ? 'photo' : 'photos'}: ${cost.toMake} to be made, ${cost.toGo} go.`
          : 'Counting the files…';
  return (
    <div className="col-span-full flex flex-wrap items-center gap-2 border-t border-rule-strong bg-raised px-4 py-2">
      <StateTag state={readable && named && !error ? 'care' : 'stop'}>Not applied yet</StateTag>
      <span role="status" className="text-ink-2">
        {said}
      </span>
      <span className="ml-auto" />
      <button className="btn" onClick={() => dropDraft(site.id, slot.id)}>
        Drop the change
      </button>
      <button
        className="btn btn-main"
        disabled={!readable || !named || isFetching || error !== null}
        onClick={apply}
      >
        Apply
      </button>
    </div>
  );
}

export function PlaceBench({ site, slot, text, use, photo, editDevices }: Props) {
  const { read } = widthRead(text);
  const draft = useDrafts((drafts) => draftOf(drafts, site.id, slot.id));
  const navigate = useNavigate();
  const setId = useSetId();
  const keep = (next: Slot, width = text) => keepDraft(site.id, { slot: next, width });
  const whole = slot.shapes[0]?.shape === 'own';
  const files = filesOf(slot, site.devices);
  const remove = () => {
    edit(`place ${slot.name} taken away`, [{ kind: 'slot', slot: slot.id, value: null }]);
    dropDraft(site.id, slot.id);
    notify(`${slot.name} is taken away. Undo brings it back, with its ${use?.photos ?? 0} photos.`);
  };
  return (
    <div
      className="grid border-b border-rule-strong bg-sheet shadow-[inset_3px_0_var(--focus)] min-[1100px]:grid-cols-[408px_minmax(0,1fr)_minmax(0,1fr)] min-[701px]:max-[1099px]:grid-cols-2"
      role="region"
      aria-label={`Place ${slot.name}`}
    >
      <div className="overflow-x-auto p-3 pl-4" role="region" tabIndex={0} aria-label="Drawing of the place">
        <Section slot={slot} photo={photo} />
      </div>
      <div className="min-w-0 border-rule p-3 px-4 min-[701px]:border-l">
        <WidthFields
          key={slot.id}
          text={text}
          change={(next) => {
            const { read: now } = widthRead(next);
            keep(now ? withWidth(slot, next, now) : slot, next);
          }}
        />
        {read && (
          <p className="mt-1.5">
            <StateTag state="ready">
              Understood:{' '}
              {Math.round(read.rule[0] ? Math.max(0, read.rule[0].vw * 320 + read.rule[0].px) : 0)} px at 320
              {', '}
              {sizesOf(read.rule)}
            </StateTag>
          </p>
        )}
        <section className={PART}>
          <div className={HEAD}>
            Measure it
            <button
              className="ml-auto text-[12.5px] font-normal text-kelp underline underline-offset-2"
              onClick={() => void navigate(`/sets/${setId}/measure`)}
            >
              {slot.measured ? 'Measure again' : 'On a page of the site'}
            </button>
          </div>
          <p className="text-[12.5px] text-ink-2">
            {slot.measured
              ? `${slot.measured.page}, in ${slot.measured.windows} windows on ${new Date(slot.measured.on).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}: agrees within ${slot.measured.worst < 0.1 ? 0.1 : slot.measured.worst.toFixed(1)} px`
              : 'Not measured yet'}
          </p>
        </section>
        <section className={PART}>
          <p className={HEAD}>Shape by window</p>
          <div className="flex min-h-[32px] items-center gap-2">
            <span className="w-[76px] text-ink-2">Photo</span>
            <Either
              label="Photo"
              on={!whole}
              first="cover, cut to it"
              second="contain, kept whole"
              choose={(cut) => keep(withWhole(slot, !cut))}
            />
          </div>
          {whole ? (
            <div className="flex min-h-[32px] flex-wrap items-center gap-2 border-t border-rule">
              <span className="w-[76px] text-ink-2">no larger than</span>
              {slot.fit ? (
                <>
                  <NumberField
                    label="Largest width"
                    value={slot.fit.width}
                    unit="×"
                    change={(width) => keep({ ...slot, fit: { ...slot.fit!, width } })}
                  />
                  <NumberField
                    label="Largest height"
                    value={slot.fit.height}
                    unit="px"
                    change={(height) => keep({ ...slot, fit: { ...slot.fit!, height } })}
                  />
                  <button className="chip" onClick={() => keep({ ...slot, fit: null })}>
                    No box
                  </button>
                </>
              ) : (
                <button
                  className="chip"
                  onClick={() => keep({ ...slot, fit: { width: 1600, height: 1200 } })}
                >
                  Give it a box
                </button>
              )}
            </div>
          ) : (
            <Shapes slot={slot} change={keep} />
          )}
          <div className="flex min-h-[32px] items-center gap-2 border-t border-rule">
            <span className="w-[76px] text-ink-2">Stands</span>
            <Either
              label="Stands"
              on={slot.loading === 'first'}
              first="on the first screen"
              second="further down"
              choose={(first) => keep({ ...slot, loading: first ? 'first' : 'lazy' })}
            />
          </div>
        </section>
      </div>
      <div className="min-w-0 border-rule p-3 px-4 min-[1100px]:border-l">
        <Budget slot={slot} use={use} change={keep} />
        <section className={PART}>
          <div className={HEAD}>
            Files it makes
            <span className="ml-auto text-[12.5px]">
              {countOf(files)} widths, {Math.round(surplusIn(files) * 100)} % surplus
            </span>
          </div>
          <FilesChart files={files} editDevices={editDevices} />
        </section>
        <SizesText slot={slot} />
        <section className={`${PART} flex flex-wrap items-center gap-2`}>
          <label className="min-w-0 flex-1">
            <span className="sr-only">Name of the place</span>
            <input
              className="field py-1"
              maxLength={100}
              value={slot.name}
              onChange={(event) => keep({ ...slot, name: event.target.value })}
            />
          </label>
          <button className="chip" onClick={remove}>
            Take the place away
          </button>
        </section>
      </div>
      {draft && <Apply site={site} slot={slot} readable={read !== null} />}
    </div>
  );
}
