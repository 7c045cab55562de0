// Below the stage: the crop in hand and the focal point as numbers that can be typed.
import type { Rect, ShapeId } from '@dusky-otter/core/contract';
import { cropFor, frameCropProblem, frameSpace, heightFor, ratioOf } from '@dusky-otter/core/geometry';
import { useState } from 'react';
import type { Row } from '../server/hooks.ts';
import { notify } from '../screen/screen.ts';
import type { FramingHands } from './framing.ts';

function Field({
  label,
  unit,
  value,
  most,
  take,
}: {
  label: string;
  unit: string;
  value: number;
  most: number;
  take: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const end = () => {
    const number = Number(typed?.replace(',', '.'));
    if (typed !== null && typed.trim() !== '' && Number.isFinite(number) && number !== value)
      take(Math.min(most, Math.max(0, number)));
    setTyped(null);
  };
  return (
    <label className="flex items-center gap-1">
      {label}
      <input
        className="field w-[62px] px-1.5 py-[3px] text-right font-semibold"
        inputMode="decimal"
        value={typed ?? String(value)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={end}
        onKeyDown={(event) => {
          if (event.key === 'Enter') end();
          if (event.key === 'Escape') {
            event.stopPropagation();
            setTyped(null);
          }
        }}
      />
      {unit}
    </label>
  );
}

export function NumberBar({ row, hands, chosen }: { row: Row; hands: FramingHands; chosen: ShapeId | null }) {
  const space = frameSpace(hands.shown.original, hands.shown.frame);
  const { focal } = hands.shown.frame;
  const crop = chosen && cropFor(hands.shown, chosen);
  const put = (change: Partial<Rect>) => {
    if (chosen === null || crop === null) return;
    const next = { ...crop, ...change };
    if (change.width !== undefined) {
      const ratio = chosen === 'own' ? crop.width / crop.height : ratioOf(chosen, space);
      next.height = heightFor(next.width, ratio);
    }
    const rect = {
      x: Math.round(next.x),
      y: Math.round(next.y),
      width: Math.round(next.width),
      height: Math.round(next.height),
    };
    const problem = frameCropProblem(rect, chosen, { original: row.original, frame: hands.shown.frame });
    if (problem) {
      notify(problem, 'bad');
      return;
    }
    hands.hold({ kind: 'crop', shape: chosen, rect });
    hands.settle();
  };
  const aim = (change: { x?: number; y?: number }) => {
    hands.hold({ kind: 'focal', focal: { ...focal, ...change, confirmed: true } });
    hands.settle();
  };
  return (
    <div className="flex min-h-[48px] flex-wrap items-center gap-x-3 gap-y-1.5 border-t border-rule bg-sheet px-3.5 py-1.5 text-[13px] text-ink-2">
      {crop && (
        <>
          <Field
            label="Crop width"
            unit="px"
            value={crop.width}
            most={space.width}
            take={(width) => put({ width })}
          />
          <span>
            × <b className="text-ink">{crop.height}</b>
          </span>
          <Field label="from left" unit="" value={crop.x} most={space.width} take={(x) => put({ x })} />
          <Field label="from top" unit="" value={crop.y} most={space.height} take={(y) => put({ y })} />
        </>
      )}
      <Field
        label="Focal"
        unit="%"
        value={Math.round(focal.x * 100)}
        most={100}
        take={(x) => aim({ x: x / 100 })}
      />
      <Field
        label="·"
        unit="%"
        value={Math.round(focal.y * 100)}
        most={100}
        take={(y) => aim({ y: y / 100 })}
      />
      <span className="ml-auto">
        {chosen
          ? 'Arrows move the crop by 1 px, with Shift by 10'
          : 'Click to set the focal point; arrows move it by 1 %, with Shift by 5 %'}
      </span>
    </div>
  );
}
