// The kinds of arrangement: what they are called, and a small drawing of each.
import type { ArrangementKind } from '@dusky-otter/core/contract';
import type { ReactNode } from 'react';

const box = (x: number, y: number, width: number, height: number, opacity = 1) => (
  <rect key={`${x} ${y}`} x={x} y={y} width={width} height={height} fill="currentColor" opacity={opacity} />
);

export const KINDS: Record<ArrangementKind, { name: string; hint: string; drawing: ReactNode }> = {
  figure: {
    name: 'Figure',
    hint: 'one picture, with text around it',
    drawing: [box(6, 4, 18, 14), box(28, 5, 14, 3, 0.5), box(28, 11, 14, 3, 0.5), box(6, 21, 36, 3, 0.5)],
  },
  grid: {
    name: 'Grid',
    hint: 'one shape, in columns',
    drawing: [0, 1, 2].flatMap((n) => [box(6 + n * 13, 3, 11, 9), box(6 + n * 13, 15, 11, 9)]),
  },
  rows: {
    name: 'Rows',
    hint: 'their own shapes, in full rows',
    drawing: [box(6, 3, 16, 9), box(24, 3, 19, 9), box(6, 15, 21, 9), box(29, 15, 14, 9)],
  },
  feed: {
    name: 'Feed',
    hint: 'one below the other, or sideways',
    drawing: [box(14, 2, 20, 8), box(14, 12, 20, 3, 0.5), box(14, 17, 20, 8)],
  },
  strip: {
    name: 'Strip',
    hint: 'one large, the others small',
    drawing: [box(10, 2, 28, 15), ...[0, 1, 2, 3].map((n) => box(10 + n * 7.3, 20, 6, 5, 0.6))],
  },
  rotating: {
    name: 'Rotating',
    hint: 'one at a time',
    drawing: [
      box(4, 4, 40, 15),
      ...[0, 1, 2].map((n) => (
        <circle key={n} cx={18 + n * 6} cy={24} r={1.5} fill="currentColor" opacity={n ? 0.4 : 1} />
      )),
    ],
  },
  zoom: {
    name: 'Zoom',
    hint: 'one, to be looked at closely',
    drawing: [box(10, 3, 28, 21, 0.35), box(20, 9, 12, 10)],
  },
  cover: {
    name: 'Cover',
    hint: 'one, that opens all of them',
    drawing: [box(12, 6, 24, 18, 0.35), box(15, 3, 24, 18)],
  },
  index: {
    name: 'Index',
    hint: 'covers that lead to galleries',
    drawing: [0, 1, 2].flatMap((n) => [
      box(6 + n * 13, 4, 11, 9),
      box(6 + n * 13, 15, 11, 2, 0.5),
      box(6 + n * 13, 19, 7, 2, 0.5),
    ]),
  },
};
