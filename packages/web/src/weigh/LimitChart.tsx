// Where each picture of a page stands: bytes against what is seen, now and within the limit.
import { shownName } from '@dusky-otter/core/naming';
import type { QualityPoint, SentPicture } from '@dusky-otter/core/readiness';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useEffect, useRef } from 'react';
import { axisTones, NO_LEGEND, STILL, tickTones, token } from '../ui/chart.ts';
import { ChartFrame } from '../ui/ChartFrame.tsx';
import { Chart } from '../ui/scatter.ts';

export interface Move {
  picture: SentPicture;
  then: QualityPoint;
}

export function LimitChart({ moves, target }: { moves: readonly Move[]; target: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const data = JSON.stringify(
    moves.map(({ picture: { row, slot, bytes, difference }, then }) => ({
      name: `${shownName(row.words, row.fileName)}, ${slot.name}`,
      now: { x: bytes / 1000, y: difference },
      then: { x: then.bytes / 1000, y: then.difference },
    })),
  );
  useEffect(() => {
    const all = JSON.parse(data) as {
      name: string;
      now: { x: number; y: number };
      then: { x: number; y: number };
    }[];
    if (!canvas.current || all.length === 0) return;
    const bytes = all.flatMap(({ now, then }) => [now.x, then.x]);
    const top = Math.ceil(Math.max(target * 1.5, ...all.flatMap(({ now, then }) => [now.y, then.y])) * 1.05);
    const [least, most] = [Math.min(...bytes) * 0.8, Math.max(...bytes) * 1.25];
    const points = (label: string, of: 'now' | 'then', tone: string, radius: number) => ({
      label,
      data: all.map((one) => ({ ...one[of], name: one.name })),
      backgroundColor: token(tone),
      borderColor: token('--sheet'),
      borderWidth: 1,
      pointRadius: radius,
      pointHitRadius: 8,
    });
    const chart = new Chart(canvas.current, {
      type: 'scatter',
      data: {
        datasets: [
          points('then', 'then', '--kelp', 5),
          points('now', 'now', '--ink-3', 3.5),
          // From where it is to where it would be.
          ...all
            .filter(({ now, then }) => now.x !== then.x)
            .map(({ now, then }) => ({
              data: [now, then],
              showLine: true,
              pointRadius: 0,
              pointHitRadius: 0,
              borderWidth: 1,
              borderColor: token('--rule-strong'),
            })),
          {
            data: [
              { x: least, y: target },
              { x: most, y: target },
            ],
            showLine: true,
            pointRadius: 0,
            pointHitRadius: 0,
            borderDash: [4, 3],
            borderWidth: 1.2,
            borderColor: token('--ink'),
          },
        ],
      },
      options: {
        ...STILL,
        plugins: {
          ...NO_LEGEND,
          tooltip: {
            filter: ({ datasetIndex }) => datasetIndex < 2,
            callbacks: {
              label: ({ dataset, raw }) => {
                const { x, y, name } = raw as { x: number; y: number; name: string };
                return `${name}, ${dataset.label}: ${bytesInWords(x * 1000)}, difference ${y.toFixed(2)}`;
              },
            },
          },
        },
        scales: {
          x: {
            type: 'logarithmic',
            min: least,
            max: most,
            ...axisTones('kB'),
            ticks: { ...tickTones(), maxRotation: 0, autoSkipPadding: 18 },
          },
          y: {
            min: 0,
            max: top,
            ...axisTones('visible difference'),
            ticks: { ...tickTones(), maxTicksLimit: 6 },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [data, target]);
  return (
    <ChartFrame
      canvas={canvas}
      height={260}
      label="Bytes and visible difference of every picture, now and within the limit; the same figures stand in the table."
    />
  );
}
