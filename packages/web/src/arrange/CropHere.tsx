// A crop for one place alone: a window that is moved and made larger or smaller over the whole photo.
import type { Rect, ShapeId, SlotId } from '@dusky-otter/core/contract';
import { frameCropProblem, frameSpace, heightFor, ratioOf } from '@dusky-otter/core/geometry';
import { cropIn, placementIn } from '@dusky-otter/core/plan';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { stageFor } from '../ui/stage.ts';
import { useSetPlaces, type Row } from '../server/hooks.ts';
import { TurnedView } from '../ui/CropPicture.tsx';
import { placeHere } from '../editing/placing.ts';

const ROOM = { width: 264, height: 220 };
/** A crop is never narrower, px of the photo. */
const LEAST = 50;

/** One step of a key, as a part of the photo's width. */
const STEP = 0.01;

interface Props {
  row: Row;
  slot: SlotId;
  shape: ShapeId;
}

export function CropHere({ row, slot, shape }: Props) {
  const setPlaces = useSetPlaces();
  const [moved, setMoved] = useState<Rect | null>(null);
  const from = useRef<{ x: number; y: number; crop: Rect } | null>(null);
  const box = frameSpace(row.original, row.frame);
  const stage = stageFor(box, ROOM);
  const scale = stage.width / box.width;
  const { crops } = placementIn(row, slot);
  const crop = moved ?? cropIn(row, slot, shape);
  /** A window of this width about a middle, inside the photo; as it is where that fits nowhere. */
  const windowAt = (x: number, y: number, width: number): Rect | null => {
    const height = heightFor(width, ratioOf(shape, crop));
    const inside = (at: number, length: number, all: number) =>
      Math.round(Math.min(all - length, Math.max(0, at - length / 2)));
    const next = { x: inside(x, width, box.width), y: inside(y, height, box.height), width, height };
    return width >= LEAST && frameCropProblem(next, shape, row) === null ? next : null;
  };
  const save = () => {
    if (moved) placeHere(row, setPlaces, { slot, crops: { ...crops, [shape]: moved } }, 'crop');
    setMoved(null);
  };
  const press = (event: KeyboardEvent) => {
    const step = Math.max(1, Math.round(box.width * STEP * (event.shiftKey ? 5 : 1)));
    const middle = { x: crop.x + crop.width / 2, y: crop.y + crop.height / 2 };
    const next: Record<string, () => Rect | null> = {
      ArrowLeft: () => windowAt(middle.x - step, middle.y, crop.width),
      ArrowRight: () => windowAt(middle.x + step, middle.y, crop.width),
      ArrowUp: () => windowAt(middle.x, middle.y - step, crop.width),
      ArrowDown: () => windowAt(middle.x, middle.y + step, crop.width),
      '+': () => windowAt(middle.x, middle.y, Math.round(crop.width * 0.95)),
      '-': () => windowAt(middle.x, middle.y, Math.min(box.width, Math.round(crop.width / 0.95))),
    };
    const act = next[event.key === '=' ? '+' : event.key];
    if (!act) return;
    event.preventDefault();
    setMoved(act() ?? crop);
  };
  const drag = ({ clientX, clientY }: PointerEvent) => {
    const { current } = from;
    if (!current) return;
    const { x, y, width, height } = current.crop;
    const next = windowAt(
      x + width / 2 + (clientX - current.x) / scale,
      y + height / 2 + (clientY - current.y) / scale,
      width,
    );
    if (next) setMoved(next);
  };
  return (
    <div className="grid gap-1 text-[12px] text-ink-2">
      Crop here, {shape}
      <div className="grid place-items-center bg-neutral p-1">
        <div
          role="application"
          aria-roledescription="window over the photo"
          aria-label={`Crop here, ${shape}: arrow keys move it, plus and minus make it smaller and larger`}
          tabIndex={0}
          className="relative touch-none select-none overflow-hidden"
          style={{ width: stage.width, height: stage.height }}
          onKeyDown={press}
          onKeyUp={save}
          onBlur={save}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            from.current = { x: event.clientX, y: event.clientY, crop };
          }}
          onPointerMove={drag}
          onPointerUp={() => {
            from.current = null;
            save();
          }}
        >
          <TurnedView photo={row} size="row" />
          <span
            aria-hidden="true"
            className="absolute cursor-move outline-2 outline-white shadow-[0_0_0_999px_rgba(0,0,0,.5)]"
            style={{
              left: crop.x * scale,
              top: crop.y * scale,
              width: crop.width * scale,
              height: crop.height * scale,
            }}
          />
        </div>
      </div>
      <span className="flex flex-wrap items-center gap-2">
        {crops[shape] ? 'Yours, here alone.' : 'As everywhere.'}
        {crops[shape] && (
          <button
            className="chip"
            onClick={() => {
              const others = Object.entries(crops).filter(([name]) => name !== shape);
              placeHere(row, setPlaces, { slot, crops: Object.fromEntries(others) }, 'crop');
            }}
          >
            As everywhere
          </button>
        )}
      </span>
    </div>
  );
}
