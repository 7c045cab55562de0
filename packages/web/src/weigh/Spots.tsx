// The spots that differ most, enlarged as pairs: nobody has to hunt for damage.
import type { Size } from '@dusky-otter/core/contract';
import type { Spot } from '@dusky-otter/core/difference';

/** CSS px of one half of a pair. */
const HALF = { width: 70, height: 88 };

function Half({ url, spot, size, scale }: { url: string; spot: Spot; size: Size; scale: number }) {
  const middle = { x: spot.x + spot.side / 2, y: spot.y + spot.side / 2 };
  return (
    <span className="relative block overflow-hidden bg-neutral" style={{ height: HALF.height }}>
      <img
        src={url}
        alt=""
        className="absolute max-w-none"
        style={{
          width: size.width * scale,
          height: size.height * scale,
          left: `calc(50% - ${middle.x * scale}px)`,
          top: HALF.height / 2 - middle.y * scale,
          imageRendering: 'pixelated',
        }}
      />
    </span>
  );
}

/** @param density file px per CSS px at which it is looked at: spots are three times as large as visitors see them */
export function Spots({
  spots,
  size,
  density,
  sent,
  original,
  show,
}: {
  spots: readonly Spot[];
  size: Size;
  density: number;
  sent: string;
  original: string;
  /** Brings a spot into the middle of the stage. */
  show: (spot: Spot) => void;
}) {
  const scale = 3 / density;
  return (
    <div className="grid shrink-0 grid-cols-[112px_repeat(4,minmax(0,1fr))] border-t border-rule-strong bg-sheet max-[900px]:grid-cols-2">
      <div className="border-r border-rule px-3 py-2.5">
        <h2 className="font-title text-[14px] font-[600] leading-tight">Where it shows most</h2>
        <p className="mt-1 text-[12px] leading-snug text-ink-2">
          {spots.length === 0
            ? 'Nothing is seen of it anywhere.'
            : 'The spots that differ most, three times as large'}
        </p>
      </div>
      {spots.map((spot, n) => (
        <figure
          key={`${spot.x} ${spot.y}`}
          className="min-w-0 border-r border-rule px-3 py-2.5 last:border-r-0"
        >
          <button
            className="grid w-full grid-cols-2 gap-[2px] hover:outline hover:outline-2 hover:outline-focus"
            aria-label={`Show spot ${n + 1}`}
            onClick={() => show(spot)}
          >
            <Half url={original} spot={spot} size={size} scale={scale} />
            <Half url={sent} spot={spot} size={size} scale={scale} />
          </button>
          <figcaption className="flex justify-between gap-1 truncate pt-1 text-[12px] text-ink-2">
            <span>
              <b className="text-ink">{n + 1}</b> original
            </span>
            <span>sent, {spot.difference.toFixed(2)}</span>
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
