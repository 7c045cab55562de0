// The drawing of a place: every rule is a window, inked where the place lies in it; at four windows the rules part for the
// picture itself, to scale.
import type { Photo, Slot } from '@dusky-otter/core/contract';
import { heightFor, ratioOf } from '@dusky-otter/core/geometry';
import { cropIn } from '@dusky-otter/core/plan';
import { rowsOf, shapeAt, shownSize, usualHeight } from '@dusky-otter/core/slots';
import { CropPicture } from '../ui/CropPicture.tsx';
import { shapeSaid } from './shapes-said.ts';

export const WINDOWS = [
  { width: 390, name: 'phone' },
  { width: 820, name: 'tablet' },
  { width: 1280, name: 'laptop' },
  { width: 1920, name: 'wide' },
] as const;

const OWN = { x: 0, y: 0, width: 3000, height: 2000 };

/** Size of a place at a window of usual height, for a photo of this crop where it shows whole photos; CSS px. */
export function widthIn(slot: Slot, window: number, photo: Photo | null): { width: number; height: number } {
  const part = shapeAt(slot, window) ?? slot.shapes[0]!;
  const crop = photo ? cropIn(photo, slot.id, part.shape) : OWN;
  return shownSize(slot, part, crop, { width: window, height: usualHeight(window) });
}

/** Where the pictures of one row lie in a window: left edges and width in CSS px. */
export function liesIn(slot: Slot, window: number, width: number): number[] {
  const rows = rowsOf(slot);
  const count = rows?.across.find(({ from }) => window >= from)?.count ?? 1;
  const all = count * width + (count - 1) * (rows?.gap ?? 0);
  return Array.from({ length: count }, (_, n) => (window - all) / 2 + n * (width + (rows?.gap ?? 0)));
}

/** The rows of windows small, for the table. */
export function Mini({ slot, photo }: { slot: Slot; photo: Photo | null }) {
  const [width, pitch] = [88, 3];
  const scale = width / 1920;
  const windows = Array.from({ length: 11 }, (_, n) => 320 + n * 160);
  return (
    <svg width={width} height={windows.length * pitch} shapeRendering="crispEdges" aria-hidden="true">
      {windows.map((window, n) => {
        const place = widthIn(slot, window, photo).width;
        const y = (n + 0.5) * pitch;
        return (
          <g key={window}>
            <path d={`M0 ${y}H${window * scale}`} stroke="var(--rule-strong)" />
            {liesIn(slot, window, place).map((x) => (
              <path key={x} d={`M${x * scale} ${y}h${Math.max(1, place * scale)}`} stroke="var(--kelp)" />
            ))}
          </g>
        );
      })}
    </svg>
  );
}

const SCALE = 0.157;
const LEFT = 84;
const PITCH = 3;
const STEP = 50;
const TALLEST = 130;

interface Line {
  y: number;
  window: number;
}

/** Rules between the pictures, and how high each picture's gap is. */
function layOut(slot: Slot, photo: Photo | null) {
  const lines: Line[] = [];
  const pictures: { y: number; height: number; window: (typeof WINDOWS)[number] }[] = [];
  let y = 6;
  let next = 0;
  for (let window = 320; window <= 1920; window += STEP) {
    while (next < WINDOWS.length && WINDOWS[next]!.width <= window) {
      const shown = WINDOWS[next++]!;
      const height = Math.max(30, Math.min(TALLEST, widthIn(slot, shown.width, photo).height * SCALE));
      pictures.push({ y: y + 3, height, window: shown });
      y += height + 8;
    }
    lines.push({ y, window });
    y += PITCH;
  }
  return { lines, pictures, height: y + 6 };
}

export function Section({ slot, photo }: { slot: Slot; photo: Photo | null }) {
  const { lines, pictures, height } = layOut(slot, photo);
  const cut = slot.shapes.length > 1 ? slot.shapes.map(({ from }) => from).filter((from) => from > 0) : [];
  const said = WINDOWS.map(({ width, name }) => {
    const place = widthIn(slot, width, photo);
    return `${name} ${width} px: ${Math.round(place.width)} × ${place.height}`;
  }).join('; ');
  return (
    <figure className="relative overflow-hidden" style={{ height, width: LEFT + 1920 * SCALE + 4 }}>
      <figcaption className="sr-only">Size of the place in CSS px. {said}</figcaption>
      <svg
        className="absolute inset-0"
        width={LEFT + 1920 * SCALE + 4}
        height={height}
        shapeRendering="crispEdges"
        aria-hidden="true"
      >
        {lines.map(({ y, window }) => {
          const { width } = widthIn(slot, window, photo);
          return (
            <g key={window}>
              <path d={`M${LEFT} ${y}h${window * SCALE}`} stroke="var(--rule-strong)" />
              {liesIn(slot, window, width).map((x) => (
                <path
                  key={x}
                  d={`M${LEFT + x * SCALE} ${y}h${Math.max(1, width * SCALE)}`}
                  stroke={shapeAt(slot, window) === slot.shapes[0] ? 'var(--kelp)' : 'var(--dusk)'}
                  strokeWidth={2}
                />
              ))}
            </g>
          );
        })}
        {cut.map((from) => {
          const at = lines.find(({ window }) => window >= from)?.y ?? 0;
          return (
            <path
              key={from}
              d={`M${LEFT - 10} ${at - 2}H${LEFT + 1920 * SCALE}`}
              stroke="var(--dusk)"
              strokeDasharray="4 3"
            />
          );
        })}
      </svg>
      {pictures.map(({ y, height: gap, window }) => {
        const { width, height: full } = widthIn(slot, window.width, photo);
        const part = shapeAt(slot, window.width) ?? slot.shapes[0]!;
        const crop = photo && cropIn(photo, slot.id, part.shape);
        // A place of limited height shows the middle of its crop.
        const whole = crop ? heightFor(width, ratioOf(part.shape, crop)) : full;
        return (
          <div key={window.width} aria-hidden="true">
            <p
              className="absolute right-auto w-[74px] text-right text-[12px] leading-tight text-ink-2"
              style={{ top: y + gap / 2 - 15, left: 0 }}
            >
              <b className="block text-[13.5px] text-ink">{window.width}</b>
              {Math.round(width)} × {full}
            </p>
            <div
              className="absolute border-x border-ink"
              style={{ top: y, height: gap, left: LEFT, width: window.width * SCALE }}
            />
            {liesIn(slot, window.width, width).map((x) => (
              <div
                key={x}
                className="absolute overflow-hidden bg-neutral"
                style={{ top: y, height: gap, left: LEFT + x * SCALE, width: Math.max(2, width * SCALE) }}
              >
                {photo && crop ? (
                  <div style={{ marginTop: ((full - whole) * SCALE) / 2 }}>
                    <CropPicture
                      photo={photo}
                      crop={crop}
                      width={Math.max(2, width * SCALE)}
                      height={whole * SCALE}
                      size="bench"
                    />
                  </div>
                ) : null}
              </div>
            ))}
          </div>
        );
      })}
      {slot.shapes.length > 1 && (
        <p className="absolute right-0 top-0 text-right text-[12px] text-dusk" aria-hidden="true">
          {slot.shapes.map(({ shape, from }) => (
            <span key={shape} className="block">
              {shapeSaid(shape)} {from > 0 ? `from ${from} px` : 'below'}
            </span>
          ))}
        </p>
      )}
    </figure>
  );
}
