// A byte limit for the page: what a kind of screen loads, shared out so that least is seen, shown before it is decided.
import { useWorkInHand } from '../ui/reveal.ts';
import { shownName } from '@dusky-otter/core/naming';
import {
  decisionFor,
  ONE_QUALITY,
  picturesSent,
  planWithin,
  withOneQuality,
  type SentPicture,
} from '@dusky-otter/core/readiness';
import { bytesInWords, FORMAT_NAMES, TARGETS } from '@dusky-otter/core/weight';
import { useState } from 'react';
import { Link } from 'react-router';
import { viewAddress } from '../api/client.ts';
import { notify } from '../screen/screen.ts';
import { useList, useRows, useSetId, useSetPlaces, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { LimitChart, type Move } from './LimitChart.tsx';
import { usePagePoints } from './page-points.ts';
import { WEIGHED_SCREENS, secondsOn } from './screens.ts';
import { Head } from '../ui/Head.tsx';

/** More than this is no page that somebody looks at, and would be looked at for minutes. */
const MOST = 80;

const FIXED_SAID: Record<Exclude<SentPicture['fixed'], null>, string> = {
  pinned: 'a point chosen by hand',
  'without loss': 'goes out without loss',
  moves: 'moves',
};

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

function Figure({ bytes, difference, target }: { bytes: number; difference: number; target: number }) {
  return (
    <>
      <td className="text-right">{bytesInWords(bytes)}</td>
      <td className={`text-right ${difference > target ? 'text-rust' : ''}`}>
        {difference > target && <span className="sr-only">above the target, </span>}
        {difference.toFixed(2)}
      </td>
    </>
  );
}

export function PageLimit() {
  useWorkInHand();
  const setId = useSetId();
  const site = useSite();
  const setPlaces = useSetPlaces();
  const list = useList('all', 0, MOST - 1);
  const rows = useRows(list.ids.slice(0, MOST));
  const [screenAt, setScreenAt] = useState(0);
  const [typed, setTyped] = useState<string | null>(null);
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set());
  const screen = WEIGHED_SCREENS[screenAt]!;
  const pictures = site ? picturesSent(rows, setPlaces, site, screen) : [];
  const { points, left, problem } = usePagePoints(setId, pictures);
  if (!site || list.reading) return <main className="bg-sheet p-8 text-ink-2">Opening the page…</main>;
  const target = TARGETS[site.policy.target];
  const now = sum(pictures.map(({ bytes }) => bytes));
  // A first proposal that does something: a fifth less than it is now.
  const limit =
    typed === null ? Math.round((now * 0.8) / 10_000) * 10_000 : Number(typed.replace(',', '.')) * 1000;
  const isLimit = Number.isFinite(limit) && limit > 0;
  const { plan, least } = planWithin(pictures, points, kept, isLimit ? limit : now);
  const alike = withOneQuality(pictures, points, target);
  const moves = pictures.map((picture): Move => ({ picture, then: plan.chosen.get(picture.id)! }));
  const changes = moves.flatMap(({ picture, then }) => {
    const decision = decisionFor(picture, then);
    return decision ? [{ picture, decision }] : [];
  });
  const missing = rows.length > 0 && pictures.length === 0;
  const worse = moves.filter(
    ({ picture, then }) => then.difference > Math.max(target, picture.difference),
  ).length;
  const apply = () => {
    edit(
      `page within ${bytesInWords(limit)} for ${screen.name}`,
      changes.map(({ picture, decision }) => ({
        kind: 'quality' as const,
        photo: picture.row.id,
        slot: picture.slot.id,
        decision,
      })),
    );
    notify(
      `${changes.length} ${changes.length === 1 ? 'picture is' : 'pictures are'} made anew for ${bytesInWords(plan.bytes)}. Undo takes it back.`,
    );
    setTyped(null);
  };
  const toggle = (id: string) =>
    setKept((before) => {
      const after = new Set(before);
      if (!after.delete(id)) after.add(id);
      return after;
    });
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet max-[900px]:overflow-auto">
      <Head title="A limit for the page">
        <span className="text-ink-2">shared out so that least is seen</span>
        <Link className="btn ml-auto" to={`/sets/${setId}/weigh`}>
          Back to the table
        </Link>
      </Head>
      {list.total > MOST ? (
        <p className="max-w-[64ch] p-8 text-ink-2">
          This set has {list.total} photos. A limit is for one page that somebody looks at: put its photos,{' '}
          {MOST} at most, into a set of their own.
        </p>
      ) : (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_372px] max-[900px]:block max-[900px]:flex-none">
          <div className="min-h-0 overflow-auto" role="region" tabIndex={0} aria-label="Pictures of the page">
            {pictures.length === 0 ? (
              <p className="p-8 text-ink-2">
                {missing
                  ? 'The files of this page are still being made.'
                  : 'No photo of this set stands in a place yet.'}
              </p>
            ) : (
              <table className="w-full border-collapse text-[13px]">
                <thead className="sticky top-0 z-10 bg-paper text-[11.5px] font-[560] text-ink-2">
                  <tr className="h-[28px] border-b border-rule-strong [&>th]:px-2.5 [&>th]:font-[560]">
                    <th className="text-left" colSpan={2}>
                      Picture
                    </th>
                    <th className="text-right">now</th>
                    <th className="text-right">difference</th>
                    <th className="text-right">within</th>
                    <th className="text-right">difference</th>
                    <th className="text-left">Keep as it is</th>
                  </tr>
                </thead>
                <tbody>
                  {moves.map(({ picture, then }) => {
                    const { id, row, slot, variant, fixed } = picture;
                    const name = shownName(row.words, row.fileName);
                    return (
                      <tr key={id} className="border-b border-rule [&>td]:px-2.5 [&>td]:py-1.5">
                        <td className="w-[52px]">
                          <img
                            className="h-[34px] w-[46px] rounded-[3px] object-cover"
                            src={viewAddress(row.original.hash, 'row')}
                            alt=""
                          />
                        </td>
                        <td>
                          <Link
                            className="font-[600] hover:text-kelp"
                            to={`/sets/${setId}/weigh/${row.id}?place=${slot.id}`}
                          >
                            {name}
                          </Link>
                          <span className="block text-[12px] text-ink-2">
                            {slot.name}, {variant.width} px, {FORMAT_NAMES[variant.format]}
                          </span>
                        </td>
                        <Figure bytes={picture.bytes} difference={picture.difference} target={target} />
                        {then.bytes === picture.bytes ? (
                          <td className="text-right text-ink-2" colSpan={2}>
                            as it is
                          </td>
                        ) : (
                          <Figure bytes={then.bytes} difference={then.difference} target={target} />
                        )}
                        <td>
                          {fixed ? (
                            <span className="text-[12px] text-ink-2">{FIXED_SAID[fixed]}</span>
                          ) : (
                            <input
                              type="checkbox"
                              className="accent-kelp"
                              aria-label={`Keep ${name} in ${slot.name} as it is`}
                              checked={kept.has(id)}
                              onChange={() => toggle(id)}
                            />
                          )}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            )}
          </div>
          <div
            className="min-h-0 overflow-auto border-l border-rule-strong px-4 py-3 max-[900px]:border-l-0"
            role="region"
            tabIndex={0}
            aria-label="The limit"
          >
            <label className="block font-semibold">
              For
              <select
                className="field mt-1 font-normal"
                value={screenAt}
                onChange={(event) => {
                  setScreenAt(Number(event.target.value));
                  setTyped(null);
                }}
              >
                {WEIGHED_SCREENS.map(({ name, viewport }, n) => (
                  <option key={name} value={n}>
                    {name}, {viewport} px
                  </option>
                ))}
              </select>
            </label>
            <label className="mt-3 block font-semibold">
              All pictures together, in kB
              <input
                data-work
                className="field mt-1 font-normal"
                inputMode="decimal"
                aria-invalid={!isLimit || undefined}
                value={typed ?? String(Math.round(limit / 1000))}
                onChange={(event) => setTyped(event.target.value)}
              />
            </label>
            <input
              type="range"
              className="mt-2 w-full accent-kelp"
              aria-label="Limit in kB"
              min={Math.max(1, Math.floor(least / 1000))}
              max={Math.ceil((now * 1.3) / 1000)}
              value={isLimit ? Math.round(limit / 1000) : 0}
              onChange={(event) => setTyped(event.target.value)}
            />
            <table className="mt-2 w-full border-collapse text-[12.5px]">
              <thead>
                <tr className="text-right text-[12px] text-ink-2 [&>th]:font-[500]">
                  <th className="text-left">{screen.name}</th>
                  <th>loads</th>
                  <th>slow line</th>
                  <th>fast line</th>
                </tr>
              </thead>
              <tbody>
                {[
                  ['now', now] as const,
                  ['within the limit', plan.bytes] as const,
                  ...(left === 0 ? [['one quality for all', alike.bytes] as const] : []),
                ].map(([name, bytes]) => (
                  <tr key={name} className="border-t border-rule text-right">
                    <td className="py-0.5 text-left text-ink-2">{name}</td>
                    <td className="font-[600]">{bytesInWords(bytes)}</td>
                    <td>{secondsOn('slow', bytes)}</td>
                    <td>{secondsOn('fast', bytes)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {left === 0 && pictures.length > 0 && (
              <p className="mt-1 text-[12px] text-ink-2">
                With one quality for all (AVIF {ONE_QUALITY.avif}, WebP {ONE_QUALITY.webp}, JPEG{' '}
                {ONE_QUALITY.jpeg}) {alike.above} of {pictures.length} would be above the target, and others
                heavier than they need be.
              </p>
            )}
            <p className="mt-2 text-[12.5px] text-ink-2" role="status">
              {!isLimit
                ? pictures.length === 0
                  ? 'Nothing is sent yet.'
                  : 'Type a number of kilobytes above 0.'
                : left > 0
                  ? `Looking at what ${left} more ${left === 1 ? 'picture' : 'pictures'} could be had for…`
                  : plan.over > 0
                    ? `That can’t be met: the least is ${bytesInWords(least)}, ${bytesInWords(plan.over)} above the limit. Give up some pixels or pictures, or let go of what is kept.`
                    : `${changes.length} of ${pictures.length} pictures change; ${worse === 0 ? 'none goes above the target' : `${worse} go above the target of ${target.toFixed(1)}`}.`}
            </p>
            {problem && (
              <p className="mt-1 text-[12.5px] text-rust" role="alert">
                {problem} That picture stays as it is.
              </p>
            )}
            <button
              className="btn btn-main mt-2 w-full justify-center"
              disabled={!isLimit || left > 0 || changes.length === 0}
              onClick={apply}
            >
              Make {changes.length} {changes.length === 1 ? 'picture' : 'pictures'} anew
            </button>
            {pictures.length > 0 && (
              <>
                <h2 className="mt-4 font-title text-[14px] font-[600]">Where each picture stands</h2>
                <LimitChart moves={moves} target={target} />
                <p className="text-[12px] text-ink-2">
                  Green: within the limit; grey: now; – – the target. Larger pictures count for more: they are
                  seen more.
                </p>
              </>
            )}
          </div>
        </div>
      )}
    </main>
  );
}
