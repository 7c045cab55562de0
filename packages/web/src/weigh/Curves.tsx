// Bytes against what is seen, for every format: as a chart and as the same figures in a table. A click or an arrow key takes
// another point into the hand.
import { bytesInWords, FORMAT_NAMES, type LossyFormat } from '@dusky-otter/core/weight';
import type { ChartConfiguration } from 'chart.js';
import { useEffect, useRef } from 'react';
import { axisTones, NO_LEGEND, STILL, tickTones, token } from '../ui/chart.ts';
import { ChartFrame } from '../ui/ChartFrame.tsx';
import { Chart } from '../ui/scatter.ts';
import { keyOf, type Point, type Tried } from './looking.ts';

const TONES: Record<LossyFormat, string> = { avif: '--kelp', webp: '--dusk', jpeg: '--amber' };

const EMPTY = { ...STILL, plugins: NO_LEGEND };

interface Props {
  tried: readonly Tried[];
  /** Largest difference that is allowed. */
  target: number;
  /** In bytes, where this size is what a phone is sent. */
  budget: number | null;
  /** The point in hand, and the one that is sent. */
  inHand: string | null;
  sent: string | null;
  take: (point: Point) => void;
}

/** The measured points of a format, smallest first. */
const along = (tried: readonly Tried[], format: LossyFormat): Tried[] =>
  tried.filter((one) => one.format === format && one.measured).sort((a, b) => a.bytes - b.bytes);

function CurveChart({ tried, target, budget, inHand, take }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<Chart<'scatter'> | null>(null);
  const taken = useRef(take);
  useEffect(() => {
    taken.current = take;
  });
  const data = JSON.stringify(
    (Object.keys(TONES) as LossyFormat[]).map((format) => ({
      format,
      points: along(tried, format).map((one) => ({
        x: one.bytes / 1000,
        y: one.measured!.difference,
        quality: one.quality,
        key: keyOf(one),
      })),
    })),
  );
  const clear = () => {
    drawn.current?.destroy();
    drawn.current = null;
  };
  useEffect(() => clear, []);
  useEffect(() => {
    if (!canvas.current) return;
    const curves = JSON.parse(data) as {
      format: LossyFormat;
      points: { x: number; y: number; quality: number; key: string }[];
    }[];
    const all = curves.flatMap(({ points }) => points);
    if (all.length === 0) return clear();
    const [least, most] = [
      Math.min(...all.map(({ x }) => x)) * 0.85,
      Math.max(...all.map(({ x }) => x)) * 1.15,
    ];
    const line = (label: string, tone: string, from: [number, number], to: [number, number]) => ({
      label,
      data: [from, to].map(([x, y]) => ({ x, y })),
      borderColor: token(tone),
      borderWidth: 1.2,
      borderDash: [4, 3],
      pointRadius: 0,
      pointHitRadius: 0,
      showLine: true,
    });
    const top = Math.ceil(Math.max(target * 1.6, ...all.map(({ y }) => y)));
    const content: ChartConfiguration<'scatter'> = {
      type: 'scatter',
      data: {
        datasets: [
          ...curves.map(({ format, points }) => ({
            label: FORMAT_NAMES[format],
            data: points,
            showLine: true,
            borderWidth: 2,
            borderColor: token(TONES[format]),
            backgroundColor: token(TONES[format]),
            pointRadius: points.map(({ key }) => (key === inHand ? 6 : 2.5)),
            pointBorderColor: token('--sheet'),
            pointBorderWidth: points.map(({ key }) => (key === inHand ? 2 : 0)),
            pointHitRadius: 10,
          })),
          line('target', '--ink', [least, target], [most, target]),
          ...(budget === null ? [] : [line('budget', '--rust', [budget / 1000, 0], [budget / 1000, top])]),
        ],
      },
      options: {
        ...STILL,
        onClick: (_, found) => {
          const first = found.find(({ datasetIndex }) => datasetIndex < curves.length);
          const curve = first && curves[first.datasetIndex];
          const point = curve?.points[first!.index];
          if (curve && point) taken.current({ format: curve.format, quality: point.quality });
        },
        plugins: {
          ...NO_LEGEND,
          tooltip: {
            callbacks: {
              label: ({ dataset, raw }) => {
                const { x, y, quality } = raw as { x: number; y: number; quality?: number };
                return quality === undefined
                  ? `${dataset.label}`
                  : `${dataset.label} at quality ${quality}: ${bytesInWords(x * 1000)}, difference ${y.toFixed(2)}`;
              },
            },
          },
        },
        scales: {
          x: {
            type: 'logarithmic',
            min: least,
            max: most,
            ...axisTones(),
            ticks: {
              ...tickTones(),
              maxRotation: 0,
              autoSkipPadding: 18,
              callback: (value) => (Number.isInteger(Number(value)) ? `${value} kB` : ''),
            },
          },
          y: {
            min: 0,
            max: top,
            ...axisTones(),
            ticks: { ...tickTones(), maxTicksLimit: 5, callback: String },
          },
        },
      },
    };
    // One chart that changes: another one for each point that is measured would cost frames. It is made empty, and filled
    // in a task of its own.
    let filling: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      if (!canvas.current) return;
      const { type, options } = content;
      drawn.current ??= new Chart(canvas.current, { type, data: { datasets: [] }, options: EMPTY });
      filling = setTimeout(() => {
        if (!drawn.current) return;
        Object.assign(drawn.current, { data: content.data, options });
        drawn.current.update('none');
      });
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(filling);
    };
  }, [data, target, budget, inHand]);
  return (
    <ChartFrame
      canvas={canvas}
      height={172}
      label="Bytes against visible difference, a line for each format; the same figures stand in the table below."
    />
  );
}

export function Curves(props: Props) {
  const { tried, target, inHand, sent, take } = props;
  const rows = (Object.keys(TONES) as LossyFormat[]).flatMap((format) => along(tried, format));
  const step = (event: React.KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const at = rows.findIndex((one) => keyOf(one) === inHand);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))];
    if (!next) return;
    take(next);
    document.getElementById(`point-${keyOf(next).replace(' ', '-')}`)?.focus();
  };
  return (
    <>
      <CurveChart {...props} />
      <p className="mt-1 flex flex-wrap gap-x-3 text-[12px] text-ink-2">
        {(Object.keys(TONES) as LossyFormat[]).map((format) => (
          <span key={format}>
            <span
              aria-hidden="true"
              className="mr-1 inline-block h-[3px] w-[14px] align-middle"
              style={{ background: `var(${TONES[format]})` }}
            />
            {FORMAT_NAMES[format]}
          </span>
        ))}
        <span>– – target {target.toFixed(1)}</span>
        {props.budget !== null && <span className="text-rust">– – budget {bytesInWords(props.budget)}</span>}
      </p>
      <div
        className="mt-2 max-h-[190px] overflow-auto"
        tabIndex={0}
        role="region"
        aria-label="Points of all formats"
      >
        <table className="w-full border-collapse text-[12.5px]" onKeyDown={step}>
          <thead>
            <tr className="text-right text-[12px] text-ink-2 [&>th]:font-[500]">
              <th className="text-left">Format</th>
              <th>quality</th>
              <th>bytes</th>
              <th>difference</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((one) => {
              const key = keyOf(one);
              const seen = one.measured!.difference;
              return (
                <tr
                  key={key}
                  className={`border-t border-rule text-right ${key === inHand ? 'bg-kelp-soft font-[650]' : ''}`}
                >
                  <td className="py-0.5 text-left">
                    <button
                      id={`point-${key.replace(' ', '-')}`}
                      className="underline decoration-rule-strong underline-offset-2 hover:text-kelp"
                      aria-pressed={key === inHand}
                      onClick={() => take(one)}
                    >
                      {FORMAT_NAMES[one.format]}
                    </button>
                    {key === sent && <span className="text-ink-2"> sent</span>}
                  </td>
                  <td>{one.quality}</td>
                  <td>{bytesInWords(one.bytes)}</td>
                  <td className={seen > target ? 'text-rust' : ''}>
                    {seen > target && <span className="sr-only">above the target, </span>}
                    {seen.toFixed(2)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </>
  );
}
