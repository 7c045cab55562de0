// Above the stage: straightening by number, by a line that is drawn, and by proposal; quarter turns, mirror, guides.
import { clamp, MOST_STRAIGHTENING, type TiltProposal } from '@dusky-otter/core/geometry';
import { useQuery } from '@tanstack/react-query';
import { viewAddress } from '../api/client.ts';
import type { Row } from '../server/hooks.ts';
import { turns, type FramingHands } from './framing.ts';
import type { Guides, Headline } from './Guides.tsx';
import type { TiltAnswer } from './tilt.worker.ts';

/** What the picture's own edges say; null where they say nothing, undefined while they are looked at. */
function useTilt(hash: string): TiltProposal | null | undefined {
  const { data } = useQuery({
    queryKey: ['tilt', hash],
    staleTime: 'static',
    retry: false,
    queryFn: ({ signal }) =>
      new Promise<TiltProposal | null>((done, failed) => {
        const worker = new Worker(new URL('./tilt.worker.ts', import.meta.url), { type: 'module' });
        const end = () => worker.terminate();
        signal.addEventListener('abort', end);
        worker.onmessage = ({ data: answer }: MessageEvent<TiltAnswer>) => {
          end();
          if ('problem' in answer) failed(new Error(answer.problem));
          else done(answer.proposal);
        };
        worker.onerror = ({ message }) => {
          end();
          failed(new Error(message));
        };
        worker.postMessage(viewAddress(hash, 'bench'));
      }),
  });
  return data;
}

/** Less than this is no difference that a proposal is worth. Degrees. */
const WORTH = 0.25;

interface Props {
  row: Row;
  hands: FramingHands;
  drawing: boolean;
  setDrawing: (drawing: boolean) => void;
  guides: Guides;
  setGuides: (guides: Guides) => void;
}

const HEADLINES: Record<Headline, string> = {
  none: 'No headline',
  left: 'Headline left',
  right: 'Headline right',
  below: 'Headline below',
};

export function TurnBar({ row, hands, drawing, setDrawing, guides, setGuides }: Props) {
  const { angle, mirrored } = hands.shown.frame;
  const found = useTilt(row.original.hash);
  // Found on the picture as it came: behind a mirror it leans the other way.
  const proposed = found ? (mirrored ? -found.angle : found.angle) : null;
  const set = (next: number) => {
    if (Number.isFinite(next))
      hands.nudge({
        kind: 'angle',
        angle: clamp(next, -MOST_STRAIGHTENING, MOST_STRAIGHTENING),
      });
  };
  /** What is in hand is saved first: the turn is made on what is seen. */
  const turn = (how: (seen: Row) => void) => {
    const seen = hands.shown;
    hands.settle();
    how(seen);
  };
  return (
    <div
      data-tilt={found === undefined ? 'looking' : found ? 'found' : 'none'}
      className="flex min-h-[44px] flex-wrap items-center gap-x-2 gap-y-1.5 border-b border-rule bg-sheet px-3.5 py-1.5"
    >
      <label className="flex items-center gap-1.5">
        Straighten
        <input
          type="range"
          className="w-[130px] accent-kelp"
          min={-MOST_STRAIGHTENING}
          max={MOST_STRAIGHTENING}
          step={0.1}
          value={angle}
          aria-label="Straighten, degrees"
          onChange={(event) => set(Number(event.target.value))}
        />
      </label>
      <label className="flex items-center gap-1">
        <span className="sr-only">Angle in degrees</span>
        <input
          type="number"
          className="field w-[70px] px-1.5 py-[3px] text-right"
          min={-MOST_STRAIGHTENING}
          max={MOST_STRAIGHTENING}
          step={0.1}
          value={Number(angle.toFixed(1))}
          onChange={(event) => set(event.target.valueAsNumber)}
        />
        °
      </label>
      <button className="chip" aria-pressed={drawing} onClick={() => setDrawing(!drawing)}>
        Draw along a line
      </button>
      {proposed !== null && Math.abs(proposed - angle) >= WORTH && (
        <span className="flex items-center gap-1.5 text-[12.5px] text-ink-2">
          Its edges say {proposed > 0 ? '+' : ''}
          {proposed.toFixed(1)}°
          <button
            className="chip"
            onClick={() => {
              hands.hold({ kind: 'angle', angle: proposed });
              hands.settle();
            }}
          >
            Take it
          </button>
        </span>
      )}
      <button className="chip" onClick={() => turn(turns.quarter)}>
        Quarter turn
      </button>
      <button className="chip" aria-pressed={mirrored} onClick={() => turn(turns.mirror)}>
        Mirror
      </button>
      <button
        className="chip"
        aria-pressed={guides.thirds}
        onClick={() => setGuides({ ...guides, thirds: !guides.thirds })}
      >
        Thirds
      </button>
      <select
        className="field w-auto px-1.5 py-[3px] text-[12.5px]"
        aria-label="Room for a headline"
        value={guides.headline}
        onChange={(event) => setGuides({ ...guides, headline: event.target.value as Headline })}
      >
        {Object.entries(HEADLINES).map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </div>
  );
}
