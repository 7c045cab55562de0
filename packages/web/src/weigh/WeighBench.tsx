// The weigh bench: one photo as it is sent, what is seen of it, what it could be had for, and what is decided.
import type { Site } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { isDrawingIn, slotsOf, treatmentIn } from '@dusky-otter/core/plan';
import { variantSentTo } from '@dusky-otter/core/readiness';
import { PHONE, slotsIn } from '@dusky-otter/core/slots';
import {
  bytesInWords,
  decisionInWords,
  FORMAT_NAMES,
  isLossy,
  TARGETS,
  type LossyFormat,
} from '@dusky-otter/core/weight';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, variantAddress } from '../api/client.ts';
import { notify } from '../screen/screen.ts';
import { useAround, useSetPlaces, useSite, type Row } from '../server/hooks.ts';
import { allSaved } from '../server/state.ts';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { OneBench } from '../editing/OneBench.tsx';
import { Later } from '../ui/Later.tsx';
import { Curves } from './Curves.tsx';
import { decide, giveBack } from './decide.ts';
import { Decisions } from './Decisions.tsx';
import { keyOf, densityOf, useBench, type Point, type Subject } from './looking.ts';
import { PageTotals } from './PageTotals.tsx';
import { Spots } from './Spots.tsx';
import { Stage } from './Stage.tsx';
import { Strip } from './Strip.tsx';
import { Ways } from './Ways.tsx';
import { Head } from '../ui/Head.tsx';

const FORMATS: readonly LossyFormat[] = ['avif', 'webp', 'jpeg'];

function Bench({ row, setId, site }: { row: Row; setId: number; site: Site }) {
  const navigate = useNavigate();
  const setPlaces = useSetPlaces();
  const [asked, setAsked] = useSearchParams();
  const [everywhere, setEverywhere] = useState(false);
  const [inHand, setInHand] = useState<{ of: string; point: Point } | null>(null);
  const slots = slotsIn(site, slotsOf(row, setPlaces));
  const slot = slots.find(({ id }) => id === asked.get('place')) ?? slots[0] ?? null;
  const part = slot?.shapes.find(({ shape }) => shape === asked.get('shape')) ?? slot?.shapes[0] ?? null;
  const around = useAround(row.id);
  const go = (id: number | null | undefined) => id != null && void navigate(`/sets/${setId}/weigh/${id}`);
  const own = slot && part ? row.variants.filter((v) => v.slot === slot.id && v.shape === part.shape) : [];
  const widths = [...new Set(own.map((v) => v.width))];
  const phone = slot && variantSentTo(row, slot, PHONE);
  const wanted = Number(asked.get('width'));
  const width = widths.includes(wanted)
    ? wanted
    : phone?.shape === part?.shape && phone
      ? phone.width
      : (widths.at(-1) ?? 0);
  const sent = own.find((v) => v.width === width) ?? null;
  const treatment = slot ? treatmentIn(row.original, row.quality[slot.id] ?? {}) : null;
  // What moves, is drawn, or has no loss has no curve.
  const weighable = sent !== null && isLossy(sent.format) && treatment?.kind !== 'animation';
  const density = weighable && slot && part ? densityOf(row, slot, part, site, width) : 1;
  const subject: Subject | null =
    slot && part && weighable ? { setId, row, slot, part, width, density } : null;
  const formats = FORMATS.filter((format) => format !== 'jpeg' || !row.original.transparent);
  const bench = useBench(subject, formats);
  const at = `${slot?.id} ${part?.shape} ${width}`;
  const sentPoint: Point | null =
    sent && isLossy(sent.format) && sent.quality !== null
      ? { format: sent.format, quality: sent.quality }
      : null;
  const point = inHand?.of === at ? inHand.point : sentPoint;
  const pointKey = point && keyOf(point);
  const { want } = bench;
  const [looked, setLooked] = useState<{ of: string; x: number; y: number } | null>(null);
  const ready = bench.tried.size > 0 || bench.reference !== null;
  useEffect(() => {
    if (point) want(point);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- asked anew for another point or another subject
  }, [pointKey, at, ready]);
  const tried = pointKey ? (bench.tried.get(pointKey) ?? null) : null;
  const decision = slot ? row.quality[slot.id] : undefined;
  const target =
    typeof decision?.pinned === 'object'
      ? decision.pinned.difference
      : TARGETS[decision?.target ?? site.policy.target];
  const choose = (change: Record<string, string>) =>
    setAsked(
      { place: slot?.id ?? '', shape: part?.shape ?? '', width: String(width), ...change },
      { replace: true },
    );
  const places = () => (everywhere || !slot ? slots.map(({ id }) => id) : [slot.id]);
  const pin = () => {
    if (!tried?.measured) return;
    const { format, quality, measured } = tried;
    decide([row], places, 'point', {
      target: undefined,
      ...(treatment?.lossless && { lossless: false }),
      pinned: { format, quality, difference: Math.round(measured.difference * 1000) / 1000 },
      ...(format !== 'jpeg' && { format: format === site.policy.modern ? undefined : format }),
    });
    setInHand(null);
  };
  const nextOver = async () => {
    await allSaved();
    const next = await api.next(setId, 'budget', 'weigh', row.id);
    if (next && next.id !== row.id) go(next.id);
    else notify('No other photo is over its budget.');
  };
  useBenchKeys({
    j: () => go(around?.next),
    k: () => go(around?.previous),
    g: () => giveBack([row], places),
    Escape: () => void navigate(`/sets/${setId}/weigh`),
  });
  const size = sent ? { width: sent.width, height: sent.height } : { width: 1, height: 1 };
  const shownFile = tried?.url ?? (sent?.bytes != null ? variantAddress(sent) : null);
  const isSent = pointKey !== null && sentPoint !== null && pointKey === keyOf(sentPoint);
  const saidInHand = tried
    ? `In hand: ${bytesInWords(tried.bytes)} ${FORMAT_NAMES[tried.format]} at quality ${tried.quality}${tried.measured ? `, difference ${tried.measured.difference.toFixed(2)}` : ', being measured'}${isSent ? '; this is what is sent' : ''}.`
    : treatment?.lossless && sent?.bytes != null
      ? `Sent without loss: ${bytesInWords(sent.bytes)}. With loss it could be had for less.`
      : sent?.bytes === null
        ? 'What is sent is still being made.'
        : 'Looking at what is sent…';
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet max-[900px]:overflow-auto">
      <Head title={shownName(row.words, row.fileName)} oneLine="to 900">
        <div role="group" aria-label="Place in hand" className="flex gap-1.5 overflow-x-auto py-1">
          {slots.flatMap((one) =>
            one.shapes.map(({ shape }) => (
              <button
                key={`${one.id} ${shape}`}
                className="chip"
                aria-pressed={one.id === slot?.id && shape === part?.shape}
                onClick={() => setAsked({ place: one.id, shape }, { replace: true })}
              >
                {one.name}
                {shape === 'own' ? '' : ` ${shape}`}
                {row.quality[one.id] && <span title={decisionInWords(row.quality[one.id])}>·</span>}
              </button>
            )),
          )}
        </div>
        <span className="ml-auto" />
        <button className="btn" disabled={!around?.previous} onClick={() => go(around?.previous)}>
          Previous
        </button>
        <button className="btn" disabled={!around?.next} onClick={() => go(around?.next)}>
          Next
        </button>
        <button className="btn" onClick={() => void nextOver()}>
          Next over budget
        </button>
        <Link to={`/sets/${setId}/weigh`} className="btn btn-main">
          Back to the table
        </Link>
      </Head>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_372px] max-[900px]:block max-[900px]:flex-none">
        <div className="flex min-h-0 min-w-0 flex-col max-[900px]:min-h-[70vh]">
          <Stage
            key={at}
            size={size}
            centre={looked?.of === at ? looked : { x: size.width / 2, y: size.height / 2 }}
            setCentre={(centre) => setLooked({ of: at, ...centre })}
            density={density}
            sent={shownFile}
            original={bench.reference}
            map={tried?.measured?.map ?? null}
            spots={tried?.measured?.spots ?? []}
            waiting={
              !sent
                ? 'Nothing of it goes out here.'
                : sent.failure !== null
                  ? sent.failure
                  : sent.bytes === null
                    ? `This file is still being made.${weighable ? ' Other points can be looked at already.' : ''}`
                    : 'Looking at it…'
            }
            said={`${shownName(row.words, row.fileName)} as it is sent, ${width} px wide`}
          />
          {tried?.measured && bench.reference && (
            <Spots
              spots={tried.measured.spots}
              size={size}
              density={density}
              sent={tried.url}
              original={bench.reference}
              show={({ x, y, side }) => setLooked({ of: at, x: x + side / 2, y: y + side / 2 })}
            />
          )}
          {slot && part && (
            <Later>
              <Strip
                row={row}
                slot={slot}
                shape={part.shape}
                site={site}
                width={width}
                choose={(next) => choose({ width: String(next) })}
              />
            </Later>
          )}
        </div>
        <div
          className="min-h-0 overflow-auto border-l border-rule-strong max-[900px]:border-l-0"
          tabIndex={0}
          role="region"
          aria-label="What is decided"
        >
          {slot && (
            <Later>
              <Decisions
                row={row}
                slot={slot}
                site={site}
                slots={slots.map(({ id }) => id)}
                everywhere={everywhere}
                setEverywhere={setEverywhere}
              />
              <Ways row={row} slot={slot} site={site} setId={setId} />
            </Later>
          )}
          {subject ? (
            <section className="border-b border-rule px-4 py-3" aria-label="Bytes against what is seen">
              <h2 className="font-title text-[14px] font-[600]">Bytes against what is seen</h2>
              {bench.problem ? (
                <p role="alert" className="mt-1 text-rust">
                  {bench.problem}{' '}
                  <button className="chip" onClick={bench.again}>
                    Try again
                  </button>
                </p>
              ) : (
                <>
                  <p className="mb-1 text-[12.5px] text-ink-2" aria-live="polite">
                    {saidInHand}
                  </p>
                  <Later>
                    <Curves
                      tried={[...bench.tried.values()]}
                      target={target}
                      budget={
                        phone && phone.shape === part?.shape && phone.width === width ? slot.budget : null
                      }
                      inHand={pointKey}
                      sent={sentPoint && keyOf(sentPoint)}
                      take={(next) => setInHand({ of: at, point: next })}
                    />
                  </Later>
                  <button
                    className="btn mt-2 w-full justify-center"
                    disabled={isSent || !tried?.measured}
                    onClick={pin}
                  >
                    {isSent ? 'This point is sent' : 'Send this point'}
                  </button>
                </>
              )}
            </section>
          ) : (
            <p className="border-b border-rule px-4 py-3 text-[12.5px] text-ink-2">
              {!slot
                ? 'It goes nowhere yet: choose a place for it.'
                : isDrawingIn(row, slot.id)
                  ? 'A drawing: sharp at every size, and the same for every screen. There is nothing to weigh.'
                  : treatment?.kind === 'animation'
                    ? 'It moves: its frames are not compared. As a still it can be weighed.'
                    : 'It goes out without loss: every pixel is as in the original.'}
            </p>
          )}
          <Later>
            <PageTotals setId={setId} />
          </Later>
        </div>
      </div>
    </main>
  );
}

export function WeighBench() {
  const site = useSite();
  return (
    <OneBench stop="weigh">
      {(row, setId) => site && <Bench key={row.id} row={row} setId={setId} site={site} />}
    </OneBench>
  );
}
