// The picture as it is sent, at the size it is shown or closer; the original in its place while a key is held, what differs
// as a map over it, and the spots that differ most.
import type { Size } from '@dusky-otter/core/contract';
import type { DifferenceMap, Spot } from '@dusky-otter/core/difference';
import { clamp } from '@dusky-otter/core/geometry';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { follow } from '../ui/stage.ts';
import { isTaken } from '../ui/bench-keys.ts';

/** In px of the file. */
export interface Point {
  x: number;
  y: number;
}

/** CSS px a file px; "true": as large as visitors see it. */
export type Zoom = 'true' | 1 | 2 | 4 | 8;
const ZOOMS: readonly Zoom[] = ['true', 1, 2, 4, 8];
const STEP = 40;

const zoomName = (zoom: Zoom): string => (zoom === 'true' ? 'True size' : `${zoom * 100} %`);

/** What differs, from nothing (clear) to what is seen most (rust). */
function MapLayer({ map, style }: { map: DifferenceMap; style: React.CSSProperties }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const picture = context.createImageData(map.width, map.height);
    let most = 1e-9;
    for (const energy of map.energies) if (energy > most) most = energy;
    map.energies.forEach((energy, i) => {
      const seen = Math.sqrt(energy / most);
      picture.data.set([214, 64, 32, Math.round(235 * seen * seen)], 4 * i);
    });
    context.putImageData(picture, 0, 0);
  }, [map]);
  return (
    <canvas
      ref={canvas}
      width={map.width}
      height={map.height}
      role="img"
      aria-label="Where it differs, as a map: the redder, the more is seen"
      className="pointer-events-none absolute"
      style={style}
    />
  );
}

interface Props {
  /** In px of the file. */
  size: Size;
  /** File px per CSS px at which it is looked at. */
  density: number;
  sent: string | null;
  original: string | null;
  map: DifferenceMap | null;
  spots: readonly Spot[];
  /** What of the picture lies in the stage's middle, in px of the file. */
  centre: Point;
  setCentre: (centre: Point) => void;
  said: string;
  /** What is said while there is nothing to show. */
  waiting: string;
}

export function Stage({
  size,
  density,
  sent,
  original,
  map,
  spots,
  centre,
  setCentre,
  said,
  waiting,
}: Props) {
  const [zoom, setZoom] = useState<Zoom>('true');
  const [held, setHeld] = useState(false);
  const [mapped, setMapped] = useState(false);
  const scale = zoom === 'true' ? 1 / density : zoom / (window.devicePixelRatio || 1);
  const shown = { width: size.width * scale, height: size.height * scale };
  // How far the picture's middle lies from the stage's, in CSS px.
  const at = { x: (size.width / 2 - centre.x) * scale, y: (size.height / 2 - centre.y) * scale };
  const move = (from: Point, dx: number, dy: number) =>
    setCentre({
      x: clamp(from.x - dx / scale, 0, size.width),
      y: clamp(from.y - dy / scale, 0, size.height),
    });
  useEffect(() => {
    const down = (event: globalThis.KeyboardEvent) => {
      if (isTaken(event)) return;
      if (event.key === 'o') setHeld(true);
      else if (event.key === 'm' && !event.repeat) setMapped((on) => !on);
    };
    const up = (event: globalThis.KeyboardEvent) => event.key === 'o' && setHeld(false);
    const leave = () => setHeld(false);
    document.addEventListener('keydown', down);
    document.addEventListener('keyup', up);
    window.addEventListener('blur', leave);
    return () => {
      document.removeEventListener('keydown', down);
      document.removeEventListener('keyup', up);
      window.removeEventListener('blur', leave);
    };
  }, []);
  const press = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [STEP, 0], ArrowRight: [-STEP, 0], ArrowUp: [0, STEP], ArrowDown: [0, -STEP] }[
      event.key
    ];
    const near = ZOOMS.indexOf(zoom);
    if (by) move(centre, by[0]!, by[1]!);
    else if (event.key === '+') setZoom(ZOOMS[Math.min(ZOOMS.length - 1, near + 1)]!);
    else if (event.key === '-') setZoom(ZOOMS[Math.max(0, near - 1)]!);
    else return;
    event.preventDefault();
  };
  const grab = (event: PointerEvent) => {
    const from = centre;
    follow(
      event,
      1,
      (dx, dy) => move(from, dx, dy),
      () => undefined,
    );
  };
  const address = held ? (original ?? sent) : sent;
  const place = {
    width: shown.width,
    height: shown.height,
    left: `calc(50% + ${at.x - shown.width / 2}px)`,
    top: `calc(50% + ${at.y - shown.height / 2}px)`,
  };
  const tool =
    'rounded-paper bg-[rgba(250,249,246,.95)] px-2 py-1 text-[12.5px] leading-none text-[#221f2b] aria-pressed:bg-[#221f2b] aria-pressed:text-white';
  return (
    <div className="relative min-h-[240px] flex-1 overflow-hidden bg-stage">
      <div
        role="application"
        aria-label={`${said}. Arrows move it, plus and minus change how close it is`}
        tabIndex={0}
        className="absolute inset-0 cursor-grab touch-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-focus"
        onKeyDown={press}
        onPointerDown={grab}
      >
        {address ? (
          <img
            src={address}
            alt=""
            draggable={false}
            data-shows={held ? 'original' : 'sent'}
            className="absolute max-w-none"
            style={{ ...place, imageRendering: typeof zoom === 'number' && zoom > 1 ? 'pixelated' : 'auto' }}
          />
        ) : (
          <p className="grid h-full place-items-center px-6 text-center text-white">{waiting}</p>
        )}
        {map && mapped && !held && (
          <MapLayer
            map={map}
            style={{
              ...place,
              // Windows are two steps wide: their middles lie a step in.
              width: map.width * map.step * scale,
              height: map.height * map.step * scale,
              left: `calc(50% + ${at.x - shown.width / 2 + (map.step * scale) / 2}px)`,
              top: `calc(50% + ${at.y - shown.height / 2 + (map.step * scale) / 2}px)`,
            }}
          />
        )}
        {spots.map((spot, n) => (
          <span
            key={`${spot.x} ${spot.y}`}
            aria-hidden="true"
            className="pointer-events-none absolute border-[1.5px] border-white shadow-[0_0_0_1px_rgba(0,0,0,.55),inset_0_0_0_1px_rgba(0,0,0,.35)]"
            style={{
              width: spot.side * scale,
              height: spot.side * scale,
              left: `calc(50% + ${at.x - shown.width / 2 + spot.x * scale}px)`,
              top: `calc(50% + ${at.y - shown.height / 2 + spot.y * scale}px)`,
            }}
          >
            <b className="absolute -left-[1.5px] -top-[19px] bg-[#221f2b] px-1.5 text-[12px] leading-[18px] text-white">
              {n + 1}
            </b>
          </span>
        ))}
      </div>
      <div className="pointer-events-none absolute inset-x-3 top-3 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto">
        <button
          className={tool}
          aria-pressed={held}
          disabled={!original}
          onPointerDown={() => setHeld(true)}
          onPointerUp={() => setHeld(false)}
          onPointerLeave={() => setHeld(false)}
          onKeyDown={(event) => (event.key === ' ' || event.key === 'Enter') && setHeld(true)}
          onKeyUp={() => setHeld(false)}
          onBlur={() => setHeld(false)}
        >
          Original while held <kbd className="ml-1 font-figure text-[11px]">O</kbd>
        </button>
        <button className={tool} aria-pressed={mapped} disabled={!map} onClick={() => setMapped(!mapped)}>
          Difference map <kbd className="ml-1 font-figure text-[11px]">M</kbd>
        </button>
        <span className="ml-auto" />
        <div role="group" aria-label="How close" className="flex gap-px">
          {ZOOMS.map((one) => (
            <button key={one} className={tool} aria-pressed={zoom === one} onClick={() => setZoom(one)}>
              {zoomName(one)}
            </button>
          ))}
        </div>
      </div>
    </div>
  );
}
