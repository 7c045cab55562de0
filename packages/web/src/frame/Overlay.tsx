// What is drawn over the photo: every shape at once, the chosen one bright with its handles, and the focal point.
import {
  cropFor,
  frameSpace,
  moveRect,
  ratioOf,
  resizeRect,
  type Corner,
  type ShapeId,
} from '@dusky-otter/core';
import type { KeyboardEvent } from 'react';
import type { Row } from '../server/hooks.ts';
import type { FramingHands } from './framing.ts';
import type { ShapeUse } from './shapes.ts';
import { boxOf, follow, type Stage } from './stage.ts';

interface Props {
  row: Row;
  stage: Stage;
  uses: readonly ShapeUse[];
  chosen: ShapeId | null;
  choose: (shape: ShapeId | null) => void;
  hands: FramingHands;
}

const CORNERS: readonly Corner[] = ['nw', 'ne', 'sw', 'se'];
const AMBER = '#F0A24A';
const clampPart = (value: number): number => Math.min(1, Math.max(0, value));

/** Arrow keys as px of the original: 1, with Shift 10. Null for other keys. */
export function stepOf(event: KeyboardEvent): { dx: number; dy: number } | null {
  const by = event.shiftKey ? 10 : 1;
  switch (event.key) {
    case 'ArrowLeft':
      return { dx: -by, dy: 0 };
    case 'ArrowRight':
      return { dx: by, dy: 0 };
    case 'ArrowUp':
      return { dx: 0, dy: -by };
    case 'ArrowDown':
      return { dx: 0, dy: by };
    default:
      return null;
  }
}

function FocalDot({ row, stage, hands }: Pick<Props, 'row' | 'stage' | 'hands'>) {
  const { width, height } = frameSpace(row.original, row.frame);
  const { x, y } = hands.shown.frame.focal;
  const moved = (fx: number, fy: number, dx: number, dy: number) => ({
    focal: { x: clampPart(fx + dx / width), y: clampPart(fy + dy / height), confirmed: true },
  });
  return (
    <button
      aria-label={`Focal point, ${Math.round(x * 100)} % from the left, ${Math.round(y * 100)} % from the top. Arrow keys move it.`}
      className="absolute -m-[13px] grid size-[26px] cursor-move touch-none place-items-center rounded-full border-2 border-white shadow-[0_0_0_1.5px_#221F2B,inset_0_0_0_1.5px_#221F2B]"
      style={{ left: x * stage.width, top: y * stage.height }}
      onPointerDown={(event) => {
        event.currentTarget.focus();
        follow(event, stage.scale, (dx, dy) => hands.hold(moved(x, y, dx, dy)), hands.settle);
      }}
      onKeyDown={(event) => {
        const step = stepOf(event);
        if (!step) return;
        event.preventDefault();
        hands.nudge(moved(x, y, step.dx, step.dy));
      }}
    >
      <span className="size-[5px] rounded-full bg-white shadow-[0_0_0_1.5px_#221F2B]" />
    </button>
  );
}

function ChosenCrop({
  row,
  stage,
  use,
  hands,
}: {
  row: Row;
  stage: Stage;
  use: ShapeUse;
  hands: FramingHands;
}) {
  const { shape } = use;
  const picture = frameSpace(row.original, row.frame);
  const rect = cropFor(hands.shown, shape);
  const ratio = shape === 'own' ? null : ratioOf(shape, picture);
  // Width leads; height follows from the ratio, or grows by the same part where the shape is free.
  const grow = (by: number) => {
    const height = ratio === null ? rect.height + (by * rect.height) / rect.width : 0;
    return resizeRect(rect, 'se', { x: rect.x + rect.width + by, y: rect.y + height }, picture, ratio);
  };
  const press = (event: KeyboardEvent) => {
    const step = stepOf(event);
    const size =
      event.key === '+' || event.key === '=' ? 10 : event.key === '-' || event.key === '−' ? -10 : 0;
    if (!step && size === 0) return;
    event.preventDefault();
    hands.nudge({ crop: { shape, rect: step ? moveRect(rect, step.dx, step.dy, picture) : grow(size) } });
  };
  return (
    <>
      <div className="pointer-events-none absolute inset-0 overflow-hidden">
        <div
          className="absolute"
          style={{ ...boxOf(rect, stage), boxShadow: '0 0 0 9999px rgba(40,40,40,.5)' }}
        />
      </div>
      <button
        data-crop={shape}
        aria-label={`Crop ${use.label}, ${rect.width} × ${rect.height} px, ${rect.x} from the left, ${rect.y} from the top. Arrow keys move it, plus and minus change its size.`}
        className="absolute cursor-move touch-none border-2"
        style={{ ...boxOf(rect, stage), borderColor: AMBER }}
        onKeyDown={press}
        onPointerDown={(event) => {
          event.currentTarget.focus();
          follow(
            event,
            stage.scale,
            (dx, dy) => hands.hold({ crop: { shape, rect: moveRect(rect, dx, dy, picture) } }),
            hands.settle,
          );
        }}
      >
        <span
          className="absolute -left-[2px] top-0 px-1.5 text-[12px] font-[650] leading-5 text-[#221F2B]"
          style={{ background: AMBER }}
        >
          {use.label}
        </span>
      </button>
      {CORNERS.map((corner) => {
        const at = {
          x: corner.endsWith('w') ? rect.x : rect.x + rect.width,
          y: corner.startsWith('n') ? rect.y : rect.y + rect.height,
        };
        return (
          <span
            key={corner}
            data-handle={corner}
            aria-hidden="true"
            className={`absolute -m-[7px] size-[14px] touch-none border-2 border-[#221F2B] bg-white ${corner === 'nw' || corner === 'se' ? 'cursor-nwse-resize' : 'cursor-nesw-resize'}`}
            style={{ left: at.x * stage.scale, top: at.y * stage.scale }}
            onPointerDown={(event) =>
              follow(
                event,
                stage.scale,
                (dx, dy) =>
                  hands.hold({
                    crop: {
                      shape,
                      rect: resizeRect(rect, corner, { x: at.x + dx, y: at.y + dy }, picture, ratio),
                    },
                  }),
                hands.settle,
              )
            }
          />
        );
      })}
    </>
  );
}

export function Overlay({ row, stage, uses, chosen, choose, hands }: Props) {
  const others = uses.filter((use) => use.shape !== chosen);
  const active = uses.find((use) => use.shape === chosen);
  return (
    <>
      {active && <ChosenCrop key={active.shape} row={row} stage={stage} use={active} hands={hands} />}
      {others.map((use, index) => (
        <div
          key={use.shape}
          className="pointer-events-none absolute border-[1.5px] border-white/80 shadow-[0_0_0_1px_rgba(0,0,0,.45)]"
          style={boxOf(cropFor(hands.shown, use.shape), stage)}
        >
          <button
            tabIndex={-1}
            style={{ top: index * 22 }}
            className="pointer-events-auto absolute right-0 whitespace-nowrap bg-[rgba(34,31,43,.88)] px-1.5 text-[12px] leading-5 text-white"
            onClick={() => choose(use.shape)}
          >
            {use.label}
          </button>
        </div>
      ))}
      <FocalDot row={row} stage={stage} hands={hands} />
    </>
  );
}
