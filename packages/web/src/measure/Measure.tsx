// A page of the site is opened in the sealed frame, swept over windows, and its pictures become proposed places.
import {
  FIRST_WINDOWS,
  MOST_WINDOWS,
  proposalsFor,
  sweep,
  SWEPT,
  type MeasuredPage,
  type Proposal,
} from '@dusky-otter/core/pages';
import { slotIdFor } from '@dusky-otter/core/places';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { sentenceOf } from '../api/client.ts';
import { commandsFor } from '../places/commands.ts';
import { finished } from '../places/drafts.ts';
import { notify } from '../screen/screen.ts';
import { useSetId, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { StateTag } from '../ui/marks.tsx';
import { saveText } from '../ui/files.ts';
import { assemble, type AssembledPage } from './assemble.ts';
import { ChooseSite } from './ChooseSite.tsx';
import { csvOf } from './figures.ts';
import { picturesSeen, SealedFrame, UNSCROLLED } from './frame.ts';
import { Preview, SweepLine } from './Preview.tsx';
import { ProposalRow, type Choice } from './ProposalRow.tsx';
import { pagesOfSite, siteFrom, type SiteFiles } from './site-files.ts';
import { Head } from '../ui/Head.tsx';

/** What has been measured, and what is to become of it. */
interface Measured {
  page: MeasuredPage;
  assembled: AssembledPage;
  proposals: Proposal[];
  breaks: number[];
}

const HEIGHT = 900;
const SHOWN = [1280, 390] as const;

export function Measure() {
  const setId = useSetId();
  const site = useSite();
  const navigate = useNavigate();
  const [files, setFiles] = useState<SiteFiles | null>(null);
  const [page, setPage] = useState<string | null>(null);
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [progress, setProgress] = useState<{ done: number; window: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [choices, setChoices] = useState<Record<string, Choice>>({});
  const element = useRef<HTMLIFrameElement>(null);
  const giveUp = useRef<AbortController | null>(null);
  useEffect(() => () => giveUp.current?.abort(), []);
  if (!site) return <main className="bg-sheet p-8 text-ink-2">Opening the places…</main>;

  const measure = async (from: SiteFiles, path: string) => {
    giveUp.current?.abort();
    const { signal } = (giveUp.current = new AbortController());
    setPage(path);
    setMeasured(null);
    setProblem(null);
    setChoices({});
    setProgress({ done: 0, window: SWEPT.from });
    const frame = new SealedFrame(element.current!);
    try {
      const assembled = await assemble(from, path, signal);
      await frame.open(assembled, signal);
      const seen: Awaited<ReturnType<SealedFrame['look']>>[] = [];
      const windows = await sweep(async (window) => {
        const answer = await frame.look(window, signal);
        seen.push(answer);
        setProgress({ done: seen.length, window });
        return answer.pictures.flatMap((picture) => (picture ? [picture.width, picture.height] : [0, 0]));
      }, assembled.breakpoints);
      const result: MeasuredPage = {
        page: path.split('/').at(-1)!,
        windows,
        pictures: picturesSeen(assembled, seen),
      };
      const proposals = proposalsFor(result, site.slots, new Date().toISOString());
      const breaks = [
        ...new Set(proposals.flatMap(({ slot }) => slot.rule.map(({ from: at }) => Math.round(at)))),
      ]
        .filter((at) => at > SWEPT.from && at < SWEPT.to)
        .sort((a, b) => a - b);
      setMeasured({ page: result, assembled, proposals, breaks });
    } catch (error) {
      if (!signal.aborted) setProblem(sentenceOf(error));
    } finally {
      frame.close();
      if (!signal.aborted) setProgress(null);
    }
  };
  const take = async (chosen: readonly File[]) => {
    setProblem(null);
    try {
      const found = await siteFrom(chosen);
      setFiles(found);
      await measure(found, pagesOfSite(found)[0]!);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const stop = () => {
    giveUp.current?.abort();
    setProgress(null);
  };

  const proposals = measured?.proposals ?? [];
  // Without its stylesheets a page is laid out otherwise: nothing of it is taken unasked.
  const unstyled = measured?.assembled.unstyled ?? [];
  const choiceOf = ({ slot, same, drawings }: Proposal): Choice =>
    choices[slot.id] ?? { take: same === null && !drawings && unstyled.length === 0, name: slot.name };
  const taken = proposals.filter((proposal) => choiceOf(proposal).take);
  const blank = taken.some((proposal) => choiceOf(proposal).name.trim() === '');
  const apply = () => {
    const slots = taken.map((proposal) => {
      // Its short name stands in files and markup: it follows the name that it is taken under.
      const { name } = choiceOf(proposal);
      return finished({ ...proposal.slot, id: slotIdFor(name, []), name });
    });
    edit(
      `${slots.length} ${slots.length === 1 ? 'place' : 'places'} measured on ${measured!.page.page}`,
      commandsFor(site, slots),
    );
    notify(
      `${slots.map(({ name }) => name).join(', ')}: taken from ${measured!.page.page}. Undo takes them away again.`,
    );
    void navigate(`/sets/${setId}/places`);
  };
  const labels =
    measured?.page.pictures.map((_, n) => {
      const at = proposals.findIndex(({ pictures }) => pictures.includes(n));
      return at < 0 ? null : String(at + 1);
    }) ?? [];
  const pages = files ? pagesOfSite(files) : [];
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title="Measure a page">
        {pages.length > 0 && (
          <label className="flex min-w-0 items-center gap-2">
            <span className="sr-only">Page of the site</span>
            <select
              className="field w-auto max-w-[300px] py-1"
              value={page ?? ''}
              onChange={(event) => void measure(files!, event.target.value)}
            >
              {pages.map((path) => (
                <option key={path}>{path}</option>
              ))}
            </select>
          </label>
        )}
        <span className="ml-auto" />
        {measured && (
          <button
            className="btn"
            onClick={() => saveText(`${measured.page.page}.csv`, 'text/csv', csvOf(measured.page))}
          >
            Save the figures
          </button>
        )}
        {files && (
          <button
            className="btn"
            onClick={() => {
              stop();
              setFiles(null);
              setMeasured(null);
              setPage(null);
              setProblem(null);
            }}
          >
            Another site
          </button>
        )}
        <Link className="btn" to={`/sets/${setId}/places`}>
          Back to the places
        </Link>
      </Head>
      {problem && (
        <p role="alert" className="m-4 mb-0 border border-rust bg-rust-soft px-3 py-2 text-rust">
          <b>■</b> {problem}
        </p>
      )}
      {!files && <ChooseSite take={(chosen) => void take(chosen)} busy={progress !== null} />}
      <div
        className={`min-h-0 flex-1 ${measured ? 'grid min-[1000px]:grid-cols-[468px_minmax(0,1fr)]' : ''} overflow-auto`}
        role="region"
        tabIndex={0}
        aria-label="What was measured"
      >
        {/* It must be on screen: browsers let frames that nobody sees wait. */}
        <div className={progress ? 'bg-stage p-4' : 'hidden'}>
          <p className="mb-2 flex flex-wrap items-center gap-3 font-[560] text-white" role="status">
            {progress &&
              `Looking at ${page} in a window of ${progress.window} px. Seen in ${progress.done} so far; ${FIRST_WINDOWS.length} to ${MOST_WINDOWS} are needed.`}
            <button className="btn" onClick={stop}>
              Stop
            </button>
          </p>
          <progress
            className="mb-3 w-full accent-kelp"
            aria-label="Windows looked at"
            max={100}
            value={progress ? (1 - Math.exp(-progress.done / 60)) * 100 : 0}
          />
          <div className="overflow-hidden bg-white" style={{ width: 2560 * 0.16, height: HEIGHT * 0.5 }}>
            <iframe
              ref={element}
              title="The page that is being measured"
              sandbox="allow-scripts"
              {...UNSCROLLED}
              tabIndex={-1}
              style={{
                width: SWEPT.from,
                height: HEIGHT,
                transform: 'scale(.16)',
                transformOrigin: '0 0',
                border: 0,
              }}
            />
          </div>
        </div>
        {measured && (
          <>
            <div className="min-w-0 overflow-hidden border-r border-rule-strong bg-[#8c8c8c]">
              <div className="border-b border-rule bg-sheet px-4 py-2">
                <p className="flex items-baseline gap-2 font-[650]">
                  Looked at in {measured.page.windows.length} windows
                  <small className="ml-auto text-[12.5px] font-normal text-ink-2">
                    sealed off: no scripts, no network
                  </small>
                </p>
                <SweepLine windows={measured.page.windows} breaks={measured.breaks} />
              </div>
              <div
                className="flex items-start gap-5 overflow-auto p-4"
                role="region"
                tabIndex={0}
                aria-label="The page with its pictures numbered"
              >
                {SHOWN.map((width) => (
                  <Preview
                    key={width}
                    assembled={measured.assembled}
                    width={width}
                    scale={0.242}
                    labels={labels}
                  />
                ))}
              </div>
            </div>
            <div className="flex min-h-0 min-w-0 flex-col">
              <ul className="min-h-0 flex-1">
                {unstyled.length > 0 && (
                  <li className="border-b border-rule px-4 py-2">
                    <StateTag state="stop">
                      {`Measured without ${unstyled.length === 1 ? 'its stylesheet' : `${unstyled.length} of its stylesheets`}: the widths are not to be trusted`}
                    </StateTag>
                    <p className="mt-1 text-ink-2">
                      Not among the files:{' '}
                      <span className="break-all font-figure">{unstyled.slice(0, 4).join(', ')}</span>
                      {unstyled.length > 4 && ` and ${unstyled.length - 4} more`}. Save the page with its
                      styles, or add them to the folder where the page names them, and measure again.
                    </p>
                  </li>
                )}
                {measured.assembled.notices.map((notice) => (
                  <li key={notice} className="border-b border-rule px-4 py-2">
                    <StateTag state="todo">{notice}</StateTag>
                  </li>
                ))}
                {proposals.length === 0 && (
                  <li className="p-6 text-ink-2">
                    {measured.page.pictures.length === 0
                      ? 'There is no picture on this page.'
                      : 'No picture of this page is shown in any window.'}{' '}
                    {measured.assembled.notices.length > 0 ? 'What stands above may say why. ' : ''}
                    Choose another page of the site.
                  </li>
                )}
                {proposals.map((proposal, n) => (
                  <ProposalRow
                    key={proposal.slot.id}
                    number={n + 1}
                    proposal={proposal}
                    doubtful={unstyled.length > 0}
                    choice={choiceOf(proposal)}
                    change={(choice) => setChoices((before) => ({ ...before, [proposal.slot.id]: choice }))}
                  />
                ))}
              </ul>
              {proposals.length > 0 && (
                <div className="sticky bottom-0 flex flex-wrap items-center gap-2.5 border-t border-rule-strong bg-raised px-4 py-2">
                  <span>
                    <b>Take {taken.length}</b>, leave {proposals.length - taken.length}.
                  </span>
                  <button
                    className="btn btn-main ml-auto"
                    disabled={taken.length === 0 || blank}
                    onClick={apply}
                  >
                    Take {taken.length === 1 ? 'this place' : 'these places'}
                  </button>
                </div>
              )}
            </div>
          </>
        )}
      </div>
    </main>
  );
}
