// The Arrange bench: pictures in their order, the arrangement as it will be on four screens, its kind and options. Another
// kind or option is seen before anything of it is kept, with what it costs.
import {
  ARRANGEMENT_KINDS,
  arrangementIn,
  arrangementsIn,
  optionsFor,
  slotsOf,
  slotsOfArrangement,
  type Arranged,
  type Arrangement,
} from '@dusky-otter/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, proofAddress, sentenceOf } from '../api/client.ts';
import { useEdition, useList, useRows, useSetId, useSetSlots, useSite } from '../server/hooks.ts';
import { useBenchKeys } from '../shell/bench-keys.ts';
import { NotFound } from '../shell/NotFound.tsx';
import { StateTag } from '../ui/marks.tsx';
import { dropArrangement, saveArrangement } from './edits.ts';
import { KINDS } from './kinds.tsx';
import { Options } from './Options.tsx';
import { Pictures } from './Pictures.tsx';
import { Proof } from './Proof.tsx';

const SCREENS = [
  { name: 'Phone', width: 390, height: 1000 },
  { name: 'Tablet', width: 820, height: 1100 },
  { name: 'Laptop', width: 1280, height: 1100 },
  { name: 'Wide', width: 1920, height: 1300 },
] as const;

/** Photos of the set that the bench looks at. */
const MOST = 200;
/** What stands beside the proof, CSS px. */
const BESIDE = 156 + 250 + 296 + 48;

/** What the options that are tried would cost, beside those that are kept. */
function Cost({ arrangement }: { arrangement: Arrangement }) {
  const setId = useSetId();
  const { cell } = slotsOfArrangement(arrangement);
  const { data, error } = useQuery({
    queryKey: ['place-cost', setId, JSON.stringify(cell)],
    queryFn: () => api.placeCost(setId, cell.id, cell),
    placeholderData: (before) => before,
  });
  if (error) return <p role="alert">{sentenceOf(error)}</p>;
  if (!data) return <p className="text-ink-2">Counting the files…</p>;
  return (
    <p className="text-[12.5px] text-ink-2">
      {data.photos === 0
        ? 'No photo stands in it: nothing is made anew.'
        : `Its ${data.files} files on the page: ${data.toMake} to be made, ${data.toGo} go.`}
    </p>
  );
}

function Title({ arrangement, save }: { arrangement: Arrangement; save: (title: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    if (typed !== null && typed.trim() !== '' && typed.trim() !== arrangement.title) save(typed.trim());
    setTyped(null);
  };
  return (
    <label className="grid gap-1 text-[12px] text-ink-2">
      Title, as people read it
      <input
        className="field text-[15px] text-ink"
        maxLength={100}
        value={typed ?? arrangement.title}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      <span>
        Its name in markup stays <code className="font-figure">{arrangement.shortName}</code>
      </span>
    </label>
  );
}

function Bench({ arrangement }: { arrangement: Arrangement }) {
  const setId = useSetId();
  const site = useSite()!;
  const setSlots = useSetSlots();
  const navigate = useNavigate();
  const list = useList('all', 0, MOST - 1);
  const all = useRows(list.ids.slice(0, MOST));
  const rows = all.filter((row) => slotsOf(row, setSlots).includes(arrangement.shortName));
  const kept: Arranged = { options: arrangement.options, container: arrangement.container };
  const [tried, setTried] = useState<Arranged | null>(null);
  const [screen, setScreen] = useState<(typeof SCREENS)[number]>(SCREENS[2]);
  const shown = tried ?? kept;
  const narrow = window.innerWidth <= 1000;
  const scale = Math.min(1, Math.max(280, window.innerWidth - (narrow ? 40 : BESIDE)) / screen.width);
  const table = `/sets/${setId}/arrange`;
  useBenchKeys({ Escape: () => (tried ? setTried(null) : void navigate(table)) });
  const address = proofAddress(setId, arrangement.shortName, useEdition(), tried);
  const others = arrangementsIn(site.slots);
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <div className="flex min-h-[52px] shrink-0 flex-wrap items-center gap-2.5 border-b border-rule px-4 py-2">
        <h1 className="mr-1.5 text-[20px] font-[620] leading-none tracking-[-.015em]">{arrangement.title}</h1>
        <nav aria-label="Arrangements" className="flex flex-wrap gap-1.5">
          {others.length > 1 &&
            others.map(({ shortName, title }) => (
              <Link
                key={shortName}
                className="chip"
                aria-current={shortName === arrangement.shortName ? 'page' : undefined}
                to={`${table}/${shortName}`}
              >
                {title}
              </Link>
            ))}
        </nav>
        <span className="ml-auto" />
        <button
          className="btn"
          onClick={() => {
            dropArrangement(site, arrangement);
            void navigate(table);
          }}
        >
          Take it away
        </button>
        <Link className="btn btn-main" to={table}>
          Back to the table
        </Link>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[250px_minmax(0,1fr)_296px] max-[1000px]:block max-[1000px]:overflow-auto">
        <div className="flex min-h-0 flex-col border-r border-rule-strong">
          <Pictures rows={rows} all={all} slot={arrangement.shortName} />
          {list.total > MOST && (
            <p className="border-t border-rule px-3 py-2 text-[12px] text-ink-2">
              The first {MOST} of {list.total} photos are shown.
            </p>
          )}
        </div>
        <section className="flex min-h-0 min-w-0 flex-col bg-neutral" aria-label="Proof">
          <div
            role="group"
            aria-label="Screen"
            className="flex flex-wrap gap-1.5 border-b border-rule bg-sheet px-3 py-2"
          >
            {SCREENS.map((one) => (
              <button
                key={one.name}
                className="chip"
                aria-pressed={one === screen}
                onClick={() => setScreen(one)}
              >
                {one.name}, {one.width} px
              </button>
            ))}
          </div>
          <div
            className="min-h-0 flex-1 overflow-auto p-3"
            role="region"
            tabIndex={0}
            aria-label="Proof, scrolls"
          >
            <Proof
              key={screen.name}
              address={address}
              width={screen.width}
              height={screen.height}
              scale={scale}
              title={`${arrangement.title} at ${screen.width} px`}
            />
          </div>
        </section>
        <div className="grid min-h-0 content-start gap-4 overflow-auto border-l border-rule-strong p-3.5">
          <Title
            arrangement={arrangement}
            save={(title) => saveArrangement(site, { ...arrangement, title }, 'title')}
          />
          <section aria-labelledby="kind-of-it">
            <h2 id="kind-of-it" className="mb-2 font-title text-[14px] font-[600]">
              Kind
            </h2>
            <div role="group" aria-labelledby="kind-of-it" className="grid grid-cols-3 gap-1.5">
              {ARRANGEMENT_KINDS.map((kind) => (
                <button
                  key={kind}
                  aria-pressed={kind === shown.options.kind}
                  title={KINDS[kind].hint}
                  className={`rounded-paper border px-1 py-1.5 text-center text-[12px] ${kind === shown.options.kind ? 'border-kelp bg-kelp-soft font-semibold' : 'border-rule-strong bg-raised text-ink-2 hover:border-edge'}`}
                  onClick={() => setTried({ ...shown, options: optionsFor(kind, shown.options) })}
                >
                  <svg width="48" height="28" aria-hidden="true" className="mx-auto block">
                    {KINDS[kind].drawing}
                  </svg>
                  {KINDS[kind].name}
                </button>
              ))}
            </div>
          </section>
          <Options arranged={shown} change={setTried} />
          {tried && (
            <section className="grid gap-2 border-t border-rule-strong pt-3" aria-label="Tried, not kept">
              <StateTag state="care">Tried, not kept yet</StateTag>
              <Cost arrangement={{ ...arrangement, ...tried }} />
              <div className="flex gap-2">
                <button
                  className="btn btn-main"
                  onClick={() => {
                    saveArrangement(site, { ...arrangement, ...tried }, 'options');
                    setTried(null);
                  }}
                >
                  Keep it so
                </button>
                <button className="btn" onClick={() => setTried(null)}>
                  As it was
                </button>
              </div>
            </section>
          )}
        </div>
      </div>
    </main>
  );
}

export function Arrange() {
  const site = useSite();
  const { slot } = useParams();
  if (!site) return <main className="bg-sheet" />;
  const found = site.slots.find(({ id }) => id === slot);
  const arrangement = found && arrangementIn(found);
  return arrangement ? (
    <Bench key={arrangement.shortName} arrangement={arrangement} />
  ) : (
    <main className="bg-sheet p-8">
      <NotFound />
    </main>
  );
}
