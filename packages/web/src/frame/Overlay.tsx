// What is drawn over the photo: every shape at once, the chosen one bright with its handles, and the focal point.
import type { ShapeId } from '@dusky-otter/core/contract';
import {
  angleFromLine,
  cropFor,
  frameSpace,
  moveRect,
  pointFromSpace,
  pointInSpace,
  ratioOf,
  resizeRect,
  type Corner,
} from '@dusky-otter/core/geometry';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Row } from '../server/hooks.ts';
import type { Framing, FramingHands } from './framing.ts';
import { GuideLines, type Guides } from './Guides.tsx';
import type { ShapeUse } from './shapes.ts';
import { boxOf, follow, type Stage } from '../ui/stage.ts';

interface Props {
  row: Row;
  stage: Stage;
  uses: readonly ShapeUse[];
  chosen: ShapeId | null;
  choose: (shape: ShapeId | null) => void;
  hands: FramingHands;
  guides: Guides;
  /** A line is being drawn along something level or upright. */
  drawing: boolean;
  drawn: () => void;
}

const CORNERS: readonly Corner[] = ['nw', 'ne', 'sw', 'se'];
const AMBER = '#F0A24A';
const clampPart = (value: number): number => Math.min(1, Math.max(0, value));
/** Arrows move the focal point by this part of the picture, with Shift by five of them. */
const FOCAL_STEP = 0.01;
/** A press that moves no further is a click; screen px. */
const CLICK = 4;

/** Arrow keys as steps: 1, with Shift more. Null for other keys. */
export function stepOf(event: KeyboardEvent, more = 10): { dx: number; dy: number } | null {
  const by = event.shiftKey ? more : 1;
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

/** The focal point at a place of the stage, as one that was meant. */
const focalAt = (row: Row, stage: Stage, left: number, top: number): Framing => ({
  kind: 'focal',
  focal: { ...pointFromSpace(row, { x: left / stage.scale, y: top / stage.scale }), confirmed: true },
});

function FocalDot({ row, stage, hands }: Pick<Props, 'row' | 'stage' | 'hands'>) {
  const { x, y } = hands.shown.frame.focal;
  const at = pointInSpace(hands.shown, { x, y });
  return (
    <button
      data-work
      aria-label={`Focal point, ${Math.round(x * 100)} % from the left, ${Math.round(y * 100)} % from the top. Arrow keys move it.`}
      className="absolute -m-[13px] grid size-[26px] cursor-move touch-none place-items-center rounded-full border-2 border-white shadow-[0_0_0_1.5px_#221F2B,inset_0_0_0_1.5px_#221F2B]"
      style={{ left: at.x * stage.scale, top: at.y * stage.scale }}
      onPointerDown={(event) => {
        event.currentTarget.focus();
        follow(
          event,
          1,
          (dx, dy) => hands.hold(focalAt(row, stage, at.x * stage.scale + dx, at.y * stage.scale + dy)),
          hands.settle,
        );
      }}
      onKeyDown={(event) => {
        const step = stepOf(event, 5);
        if (!step) return;
        event.preventDefault();
        const focal = {
          x: clampPart(x + step.dx * FOCAL_STEP),
          y: clampPart(y + step.dy * FOCAL_STEP),
          confirmed: true,
        };
        hands.nudge({ kind: 'focal', focal });
      }}
    >
      <span className="size-[5px] rounded-full bg-white shadow-[0_0_0_1.5px_#221F2B]" />
    </button>
  );
}

/** The stage itself: a press sets the focal point, and it follows until it is let go. */
function Ground({ row, stage, hands }: Pick<Props, 'row' | 'stage' | 'hands'>) {
  return (
    <div
      data-ground
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerDown={(event) => {
        const [left, top] = placeOf(event);
        hands.hold(focalAt(row, stage, left, top));
        follow(event, 1, (dx, dy) => hands.hold(focalAt(row, stage, left + dx, top + dy)), hands.settle);
      }}
    />
  );
}

/** Where a press lies on the stage, in screen px. */
function placeOf(event: PointerEvent): [number, number] {
  const box = event.currentTarget.closest('[data-stage]')!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}

/** Over everything while a line is drawn along a horizon or an upright. */
function LineDrawing({ stage, hands, drawn }: Pick<Props, 'stage' | 'hands' | 'drawn'>) {
  const [line, setLine] = useState<[number, number, number, number] | null>(null);
  return (
    <svg
      data-line
      className="absolute inset-0 size-full cursor-crosshair touch-none"
      role="img"
      aria-label="Draw a line along something level or upright"
      onPointerDown={(event) => {
        const [x, y] = placeOf(event);
        let end: [number, number] = [x, y];
        follow(
          event,
          1,
          (dx, dy) => {
            end = [x + dx, y + dy];
            setLine([x, y, ...end]);
          },
          () => {
            setLine(null);
            // A press alone is no line.
            if (Math.hypot(end[0] - x, end[1] - y) < stage.width / 20) return;
            const { angle } = hands.shown.frame;
            hands.hold({ kind: 'angle', angle: angleFromLine(angle, { x, y }, { x: end[0], y: end[1] }) });
            hands.settle();
            drawn();
          },
        );
      }}
    >
      {line && (
        <>
          <line x1={line[0]} y1={line[1]} x2={line[2]} y2={line[3]} stroke="#221F2B" strokeWidth="4" />
          <line x1={line[0]} y1={line[1]} x2={line[2]} y2={line[3]} stroke={AMBER} strokeWidth="2" />
        </>
      )}
    </svg>
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
  const picture = frameSpace(row.original, hands.shown.frame);
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
    hands.nudge({
      kind: 'crop',
      shape,
      rect: step ? moveRect(rect, step.dx, step.dy, picture) : grow(size),
    });
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
          const [left, top] = placeOf(event);
          let moved = false;
          follow(
            event,
            stage.scale,
            (dx, dy) => {
              moved ||= Math.hypot(dx, dy) * stage.scale >= CLICK;
              if (moved) hands.hold({ kind: 'crop', shape, rect: moveRect(rect, dx, dy, picture) });
            },
            () => {
              if (!moved) hands.hold(focalAt(row, stage, left, top));
              hands.settle();
            },
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
                    kind: 'crop',
                    shape,
                    rect: resizeRect(rect, corner, { x: at.x + dx, y: at.y + dy }, picture, ratio),
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

export function Overlay({ row, stage, uses, chosen, choose, hands, guides, drawing, drawn }: Props) {
  const others = uses.filter((use) => use.shape !== chosen);
  const active = uses.find((use) => use.shape === chosen);
  return (
    <>
      <Ground row={hands.shown} stage={stage} hands={hands} />
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
      {active && (
        <GuideLines
          row={hands.shown}
          crop={cropFor(hands.shown, active.shape)}
          stage={stage}
          guides={guides}
        />
      )}
      <FocalDot row={hands.shown} stage={stage} hands={hands} />
      {drawing && <LineDrawing stage={stage} hands={hands} drawn={drawn} />}
    </>
  );
}
