// The Arrange bench: pictures in their order, the arrangement as it will be on four screens, its kind and options. Another
// kind or option is seen before anything of it is kept, with what it costs.
import { ARRANGEMENT_KINDS, arrangementIn, slotsOfArrangement } from '@dusky-otter/core/arrange';
import { PLACE_LIMITS } from '@dusky-otter/core/places';
import type { Arranged, Arrangement } from '@dusky-otter/core/contract';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, proofAddress, sentenceOf } from '../api/client.ts';
import { Forecast } from '../policy/Forecast.tsx';
import { useCounts, useEdition, useMembers, useRows, useSet, useSetId, useSite } from '../server/hooks.ts';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { NotFound } from '../ui/NotFound.tsx';
import { StateTag } from '../ui/marks.tsx';
import { Between } from './Between.tsx';
import { Galleries } from './Galleries.tsx';
import { HeroWords } from './HeroWords.tsx';
import { Switch } from './Switch.tsx';
import { useTrial } from './tries.ts';
import { pageNow } from '../editing/page.ts';
import { Here } from './Here.tsx';
import { Legibility } from './Legibility.tsx';
import { dropArrangement, saveArrangement } from './edits.ts';
import { KINDS } from './kinds.tsx';
import { Options } from './Options.tsx';
import { Pictures } from './Pictures.tsx';
import { ProofPane } from '../proof/ProofPane.tsx';
import { Head } from '../ui/Head.tsx';
import { TextLine } from '../ui/TextLine.tsx';

/** Pictures that the bench shows at first, and that are added with each “more”; the proof shows as many. */
const MOST = 200;

/** What the options that are tried would cost, beside those that are kept. */
function Cost({ arrangement }: { arrangement: Arrangement }) {
  const setId = useSetId();
  const { cell } = slotsOfArrangement(arrangement);
  // Files that are there by then are weighed, too.
  const edition = useEdition();
  const { data, error } = useQuery({
    queryKey: ['arrangement-forecast', setId, JSON.stringify(cell), edition],
    queryFn: async ({ signal }) => {
      // What is still being chosen is not weighed at each step.
      await new Promise((done) => setTimeout(done, 400));
      return api.arrangementForecast(setId, cell, signal);
    },
    placeholderData: (before) => before,
  });
  if (error) return <p role="alert">{sentenceOf(error)}</p>;
  if (!data) return <p className="text-ink-2">Weighing it…</p>;
  return data.files.now + data.files.then === 0 ? (
    <p className="text-[12.5px] text-ink-2">No photo stands in it: nothing is made anew.</p>
  ) : (
    <>
      <Forecast forecast={data} what="It sends" />
      {data.phone.now === 0 && (
        <p className="text-[12px] text-ink-2">Bytes are weighed once its files are made.</p>
      )}
    </>
  );
}

/** Options that are tried, sent to the server under a name: they may be larger than an address can be. */
function useProof(tried: Arranged | null): { name: string | undefined; problem: string | null } {
  const setId = useSetId();
  const { data, error } = useQuery({
    queryKey: ['trial', setId, JSON.stringify(tried)],
    enabled: tried !== null,
    queryFn: ({ signal }) => api.tryOptions(setId, tried!, signal),
    // The server keeps them for a while, not for ever.
    staleTime: 60_000,
    gcTime: 60_000,
    placeholderData: (before) => before,
  });
  return { name: tried ? data?.tried : undefined, problem: error ? sentenceOf(error) : null };
}

/** Options that were tried, with the texts and galleries that were written meanwhile. */
function withTexts(tried: Arranged, kept: Arranged): Arranged {
  const [now, before] = [tried.options, kept.options];
  if (now.kind === 'feed' && before.kind === 'feed')
    return { ...tried, options: { ...now, between: before.between } };
  if (now.kind === 'index' && before.kind === 'index')
    return { ...tried, options: { ...now, galleries: before.galleries } };
  return tried;
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
  const navigate = useNavigate();
  const members = useMembers(arrangement.shortName, arrangement.order);
  const [most, setMost] = useState(MOST);
  const rows = useRows(members.ids.slice(0, most));
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [asked] = useSearchParams();
  const [inHand, setInHand] = useState<number | null>(Number(asked.get('picture')) || null);
  const held = rows.find(({ id }) => id === inHand);
  const { options, container, order } = arrangement;
  const kept: Arranged = { options, container, ...(order && { order }) };
  const trial = useTrial(`${site.id} ${arrangement.shortName}`, kept);
  // Its order is what is kept: it may have been changed meanwhile.
  const tried: Arranged | null = trial.tried && { ...kept, ...trial.tried };
  const shown = tried ?? kept;
  const table = `/sets/${setId}/arrange`;
  useBenchKeys({
    // One closes one thing.
    Escape: () => {
      if (held) setInHand(null);
      else if (tried) trial.leave();
      else void navigate(table);
    },
  });
  const edition = useEdition();
  const proof = useProof(tried);
  const address = proofAddress(setId, arrangement.shortName, edition, proof.name);
  const page = pageNow(useSet()!, site, useCounts());
  const panel = useRef<HTMLDivElement>(null);
  const heldId = held?.id ?? null;
  // The panel of a picture opens in view, wherever one had scrolled to.
  useEffect(() => {
    if (heldId !== null) panel.current?.firstElementChild?.scrollIntoView({ block: 'nearest' });
  }, [heldId]);
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title={arrangement.title}>
        <Switch site={site} page={page} open={arrangement} />
        <span className="ml-auto" />
        <Link className="btn" to={`/sets/${setId}/page`}>
          The page
        </Link>
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
      </Head>
      <div className="grid min-h-0 flex-1 grid-cols-[250px_minmax(0,1fr)_296px] max-[1000px]:block max-[1000px]:overflow-auto">
        <div className="flex min-h-0 flex-col border-r border-rule-strong">
          <Pictures
            arrangement={arrangement}
            ids={members.ids}
            rows={rows}
            reading={members.reading}
            picked={picked}
            setPicked={setPicked}
            inHand={held?.id ?? null}
            take={setInHand}
          />
          {members.ids.length > MOST && (
            <p className="border-t border-rule px-3 py-2 text-[12px] text-ink-2">
              {most < members.ids.length
                ? `The first ${most} of ${members.ids.length} pictures are listed; `
                : `All ${members.ids.length} pictures are listed; `}
              the proof shows the first {MOST}.{' '}
              {most < members.ids.length && (
                <button className="chip" onClick={() => setMost(most + MOST)}>
                  List {Math.min(MOST, members.ids.length - most)} more
                </button>
              )}
            </p>
          )}
        </div>
        <ProofPane address={address} title={arrangement.title} />
        <div className="flex min-h-0 flex-col border-l border-rule-strong">
          <div ref={panel} className="grid min-h-0 flex-1 content-start gap-4 overflow-auto p-3.5">
            {held && <Here arrangement={arrangement} row={held} close={() => setInHand(null)} />}
            <Title
              arrangement={arrangement}
              save={(title) => saveArrangement(site, { ...arrangement, title }, 'title')}
            />
            <TextLine
              label="Text under its title"
              most={PLACE_LIMITS.note}
              saved={arrangement.words?.note ?? ''}
              version={site.version}
              language={site.languages[0] ?? 'en'}
              save={(note, began) =>
                saveArrangement(
                  site,
                  { ...arrangement, words: { ...arrangement.words, note } },
                  'text under the title',
                  began,
                )
              }
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
                    onClick={() => trial.change({ ...shown, options: trial.optionsOf(kind, shown.options) })}
                  >
                    <svg width="48" height="28" aria-hidden="true" className="mx-auto block">
                      {KINDS[kind].drawing}
                    </svg>
                    {KINDS[kind].name}
                  </button>
                ))}
              </div>
            </section>
            <Options arranged={shown} change={trial.change} />
            {shown.options.kind === 'rotating' && shown.options.texts === 'over' && (
              <Legibility
                arranged={{ ...shown, options: shown.options }}
                address={address}
                rows={rows}
                change={trial.change}
              />
            )}
            {!tried && options.kind === 'feed' && (
              <Between arrangement={{ ...arrangement, options }} rows={rows} />
            )}
            {!tried && options.kind === 'index' && (
              <Galleries arrangement={{ ...arrangement, options }} rows={rows} />
            )}
            {!tried && options.kind === 'rotating' && <HeroWords arrangement={arrangement} rows={rows} />}
          </div>
          {tried && (
            <section
              className="grid max-h-[46vh] shrink-0 content-start gap-2 overflow-auto border-t-2 border-amber bg-raised p-3"
              aria-label="Tried, not kept"
            >
              <div className="flex flex-wrap items-center gap-2">
                <span className="basis-full">
                  <StateTag state="care">Tried, not kept yet</StateTag>
                </span>
                <button
                  className="btn btn-main"
                  onClick={() => {
                    saveArrangement(site, { ...arrangement, ...withTexts(tried, kept) }, 'options');
                    trial.forget();
                  }}
                >
                  Keep it so
                </button>
                <button className="btn" onClick={trial.leave}>
                  As it was
                </button>
              </div>
              {proof.problem && <p role="alert">{proof.problem}</p>}
              <Cost arrangement={{ ...arrangement, ...tried }} />
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
