// One place open: its drawing, how wide it is, its shapes, its budget, the files it makes. A change is drawn at once and
// applied when the editor says so, for it may cost files.
import type { Photo, PlaceUse, Site, Slot } from '@dusky-otter/core/contract';
import { sizesOf, widthAt } from '@dusky-otter/core/css';
import { tallestSaid } from '@dusky-otter/core/slots';
import { useNavigate } from 'react-router';
import { notify } from '../screen/screen.ts';
import { useSetId } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';
import { Apply } from './Apply.tsx';
import { Budget } from './Budget.tsx';
import {
  draftOf,
  dropDraft,
  keepDraft,
  useDrafts,
  widthRead,
  withTallest,
  withWhole,
  withWidth,
} from './drafts.ts';
import { Either, HEAD, NumberField, PART } from './fields.tsx';
import { countOf, filesOf, surplusIn } from './files.ts';
import { FilesChart } from './FilesChart.tsx';
import { HeightLimit } from './HeightLimit.tsx';
import { Section } from './Section.tsx';
import { Shapes } from './Shapes.tsx';
import { SizesText } from './SizesText.tsx';
import { WidthFields } from './WidthFields.tsx';

interface Props {
  site: Site;
  slot: Slot;
  text: string;
  use: PlaceUse | null;
  photo: Photo | null;
  editDevices: () => void;
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
              Understood: {Math.round(widthAt(read.rule, 320))} px at 320
              {', '}
              {sizesOf(read.rule)}
              {slot.tallest && `, ${tallestSaid(slot.tallest)}`}
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
          <HeightLimit
            tallest={slot.tallest}
            change={(tallest) => {
              const next = withTallest({ slot, width: text }, tallest);
              keep(next.slot, next.width);
            }}
          />
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
