// The frame bench: one photo large, all its shapes over it, the focal point in hand.
import type { ShapeId } from '@dusky-otter/core/contract';
import { frameSpace } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { slotsOf } from '@dusky-otter/core/plan';
import { doubtOf } from '@dusky-otter/core/saliency';
import { slotsIn } from '@dusky-otter/core/slots';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api } from '../api/client.ts';
import { useReplacing } from '../gather/arrivals.ts';
import { OfferCard } from '../gather/OfferCard.tsx';
import { ReplaceButton } from '../gather/ReplaceButton.tsx';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { OneBench } from '../editing/OneBench.tsx';
import { keepCopiedFrame, notify } from '../screen/screen.ts';
import { useAround, useOffers, useSetPlaces, useSite, type Row } from '../server/hooks.ts';
import { allSaved } from '../server/state.ts';
import { TurnedView } from '../ui/CropPicture.tsx';
import { ArrivalRows } from '../gather/ArrivalRows.tsx';
import { confirmFocal } from '../editing/edits.ts';
import { CropList } from './CropList.tsx';
import { useFraming } from './framing.ts';
import type { Guides } from './Guides.tsx';
import { NumberBar } from './NumberBar.tsx';
import { Overlay } from './Overlay.tsx';
import { shapeUses } from './shapes.ts';
import { stageFor, useSize } from '../ui/stage.ts';
import { TurnBar } from './TurnBar.tsx';
import { Head } from '../ui/Head.tsx';
import { useWorkInHand } from '../ui/reveal.ts';

/** A guess that cuts off less is as good as any. */
const WORTH_SAYING = 0.05;

function Bench({ row, setId }: { row: Row; setId: number }) {
  const setPlaces = useSetPlaces();
  const site = useSite();
  const navigate = useNavigate();
  const [asked] = useSearchParams();
  const uses = site ? shapeUses(slotsIn(site, slotsOf(row, setPlaces))) : [];
  const [picked, setPicked] = useState<ShapeId | null>(
    (asked.get('shape') as ShapeId | null) ?? uses[0]?.shape ?? null,
  );
  const chosen = uses.some((use) => use.shape === picked) ? picked : null;
  const hands = useFraming(row);
  const [canvas, room] = useSize<HTMLDivElement>();
  const stage = stageFor(frameSpace(row.original, hands.shown.frame), room);
  const [drawing, setDrawing] = useState(false);
  const [guides, setGuides] = useState<Guides>({ thirds: false, headline: 'none' });
  const around = useAround(row.id);
  const replacing = useReplacing(row.id);
  const offers = useOffers().filter(({ photo }) => photo === row.id);
  const go = (id: number | null | undefined) => id != null && void navigate(`/sets/${setId}/frame/${id}`);
  const nextDoubtful = async () => {
    // What was confirmed a moment ago is in doubt no more.
    await allSaved();
    const next = await api.nextDoubtful(setId, row.id);
    if (next && next.id !== row.id) go(next.id);
    else notify('No other crop is in doubt.');
  };
  const copy = () => {
    const name = shownName(row.words, row.fileName);
    keepCopiedFrame({ original: row.original, frame: hands.shown.frame, name });
    notify(`The frame of ${name} is copied. Select photos on the table, and lay it on them with “Frame”.`);
  };
  const confirm = () => confirmFocal([row]);
  useBenchKeys({
    j: () => go(around?.next),
    k: () => go(around?.previous),
    c: confirm,
    Escape: () => (drawing ? setDrawing(false) : void navigate(`/sets/${setId}/frame`)),
  });
  useWorkInHand();
  const { focal } = hands.shown.frame;
  const doubt = doubtOf(
    hands.shown,
    uses.map(({ shape }) => shape),
  );
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet max-[900px]:overflow-auto">
      <Head title={shownName(row.words, row.fileName)} oneLine="to 900">
        <div role="group" aria-label="Shape in hand" className="flex gap-1.5 overflow-x-auto py-1">
          <button className="chip" aria-pressed={chosen === null} onClick={() => setPicked(null)}>
            All shapes
          </button>
          {uses.map((use) => (
            <button
              key={use.shape}
              className="chip"
              aria-pressed={chosen === use.shape}
              onClick={() => setPicked(use.shape)}
            >
              {use.label}
            </button>
          ))}
        </div>
        <span className="ml-auto" />
        <ReplaceButton photo={row} className="btn" />
        <button className="btn" onClick={copy}>
          Copy frame
        </button>
        <button className="btn" onClick={() => void nextDoubtful()}>
          Next doubtful crop
        </button>
        <Link to={`/sets/${setId}/frame`} className="btn btn-main">
          Back to the table
        </Link>
      </Head>
      {replacing && <ArrivalRows />}
      {offers.map((offer) => (
        <section
          key={offer.id}
          aria-label="A file that may take this photo’s place"
          className="shrink-0 border-b border-rule-strong bg-sheet px-4 py-3"
        >
          <OfferCard offer={offer} />
        </section>
      ))}
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_356px] max-[900px]:block max-[900px]:flex-none">
        <div className="grid min-h-0 grid-rows-[44px_auto_minmax(0,1fr)_auto] bg-stage max-[900px]:block">
          <div className="flex min-h-[44px] items-center gap-2 border-b border-rule bg-sheet px-3.5 max-[900px]:flex-wrap max-[900px]:py-1.5">
            <span className="text-ink-2">
              {around ? `Photo ${around.index + 1} of ${around.total}` : 'Photo'}
            </span>
            <button className="chip" disabled={!around?.previous} onClick={() => go(around?.previous)}>
              Previous
            </button>
            <button className="chip" disabled={!around?.next} onClick={() => go(around?.next)}>
              Next
            </button>
            <span className="ml-auto text-ink-2">
              {focal.confirmed ? '● Focal point confirmed' : '○ Focal point is a guess'}
              {doubt && doubt.part >= WORTH_SAYING && (
                <span title="Computed from the box that holds the inner 80 % of what is unlike the picture’s border and full of detail, and the crops that follow the focal point.">
                  {`: ${doubt.shape} cuts off ${Math.round(doubt.part * 100)} % of what draws the eye`}
                </span>
              )}
            </span>
            {!focal.confirmed && (
              <button className="btn" onClick={confirm}>
                Confirm
              </button>
            )}
          </div>
          <TurnBar
            row={row}
            hands={hands}
            drawing={drawing}
            setDrawing={setDrawing}
            guides={guides}
            setGuides={setGuides}
          />
          <div ref={canvas} className="relative m-[22px] min-h-0 max-[900px]:m-2.5 max-[900px]:h-[52vh]">
            {stage.scale > 0 && (
              <div
                className="absolute"
                data-stage
                style={{
                  width: stage.width,
                  height: stage.height,
                  left: (room.width - stage.width) / 2,
                  top: (room.height - stage.height) / 2,
                }}
              >
                <div
                  role="img"
                  aria-label={row.words.alt || shownName(row.words, row.fileName)}
                  className="absolute inset-0 overflow-hidden bg-neutral"
                >
                  <TurnedView photo={hands.shown} size="bench" />
                </div>
                <Overlay
                  row={row}
                  stage={stage}
                  uses={uses}
                  chosen={chosen}
                  choose={setPicked}
                  hands={hands}
                  guides={guides}
                  drawing={drawing}
                  drawn={() => setDrawing(false)}
                />
              </div>
            )}
          </div>
          <NumberBar row={row} hands={hands} chosen={chosen} />
        </div>
        <CropList uses={uses} row={hands.shown} chosen={chosen} choose={setPicked} />
      </div>
    </main>
  );
}

export const FrameBench = () => (
  <OneBench stop="frame">{(row, setId) => <Bench key={row.id} row={row} setId={setId} />}</OneBench>
);
