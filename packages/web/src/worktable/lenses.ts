// What the table shows at each stop of the path: its columns, their widths, and how tall a row is.
import { useCallback, useMemo, useSyncExternalStore } from 'react';
import type { StopId } from '../screen/stops.ts';

/** Stops whose work is done on the table. */
export type TableStop = Exclude<StopId, 'arrange' | 'rehearse'>;

export type ColumnId =
  'photo' | 'crops' | 'focal' | 'weight' | 'weights' | 'words' | 'text' | 'files' | 'seal';

export interface Lens {
  columns: ColumnId[];
  /** grid-template-columns behind the number column. */
  widths: string;
  rowHeight: number;
  /** Height in px of the crops. */
  cropHeight: number;
  /** Width in px of the photo. */
  thumb: number;
  /** On a narrow screen the words stand below the photo. */
  stacked: boolean;
}

const photo = (thumb: number, beside = 160): string => `${thumb + beside}px`;
const SEAL = '64px';

function lens(rowHeight: number, middle: [ColumnId, string][], more: Partial<Lens> = {}): Lens {
  const thumb = more.thumb ?? 102;
  return {
    columns: ['photo', ...middle.map(([column]) => column), 'seal'],
    widths: [photo(thumb), ...middle.map(([, width]) => width), SEAL].join(' '),
    rowHeight,
    cropHeight: 50,
    thumb,
    stacked: false,
    ...more,
  };
}

const REST = 'minmax(0,1fr)';

export const LENSES: Record<TableStop, Lens> = {
  gather: lens(92, [
    ['crops', '254px'],
    ['weight', '176px'],
    ['words', REST],
  ]),
  frame: lens(
    150,
    [
      ['crops', REST],
      ['focal', '210px'],
    ],
    { cropHeight: 104 },
  ),
  weigh: lens(124, [['weights', REST]]),
  describe: lens(232, [['text', REST]], { thumb: 158 }),
  'hand-over': lens(104, [['files', REST]]),
};

const NARROW: Lens = {
  ...lens(226, [['words', REST]], { thumb: 86 }),
  widths: `${REST} 54px`,
  stacked: true,
};
const NARROW_TEXT: Lens = {
  ...lens(500, [['text', REST]], { thumb: 110 }),
  widths: `${REST} 54px`,
  stacked: true,
};

/** Between phone and desktop: everything a little smaller, so that there is room to write in. */
const TIGHT_GATHER: Lens = {
  ...lens(
    118,
    [
      ['crops', '196px'],
      ['weight', '142px'],
      ['words', REST],
    ],
    { thumb: 66, cropHeight: 34 },
  ),
  widths: `${photo(66, 126)} 196px 142px ${REST} 58px`,
};

/** What a media query says, as it changes. */
function useMedia(text: string): boolean {
  const query = useMemo(() => window.matchMedia(text), [text]);
  const watch = useCallback(
    (changed: () => void): (() => void) => {
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    [query],
  );
  return useSyncExternalStore(watch, () => query.matches);
}

/** The lens of a stop; on a phone the words are what is worked on. */
export function useLens(stop: TableStop): Lens {
  const narrow = useMedia('(max-width: 700px)');
  const tight = useMedia('(max-width: 1120px)');
  if (!narrow) return tight && stop === 'gather' ? TIGHT_GATHER : LENSES[stop];
  return stop === 'describe' ? NARROW_TEXT : NARROW;
}

export const HEADINGS: Record<ColumnId, string> = {
  photo: 'Photo',
  crops: 'Crops',
  focal: 'Focal point',
  weight: 'Weight, sent to a phone',
  weights: 'Weight in each place: bar for a phone, line for a retina laptop, mark for the budget',
  words: 'Words',
  text: 'Words',
  files: 'What goes out',
  seal: 'Ready',
};
