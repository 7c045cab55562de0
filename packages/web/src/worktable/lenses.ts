// What the table shows at each stop of the path: its columns, their widths, and how tall a row is.
import type { StopId } from '../shell/stops.ts';

export type ColumnId =
  'photo' | 'crops' | 'focal' | 'weight' | 'weights' | 'words' | 'text' | 'places' | 'files' | 'seal';

export interface Lens {
  columns: ColumnId[];
  /** grid-template-columns behind the number column. */
  widths: string;
  rowHeight: number;
  /** Height in px of the crops. */
  cropHeight: number;
}

const PHOTO = '270px';
const SEAL = '64px';

const table: Lens = {
  columns: ['photo', 'crops', 'weight', 'words', 'seal'],
  widths: `${PHOTO} 236px 176px minmax(0,1fr) ${SEAL}`,
  rowHeight: 92,
  cropHeight: 50,
};

export const LENSES: Record<Exclude<StopId, 'rehearse'>, Lens> = {
  gather: table,
  frame: {
    columns: ['photo', 'crops', 'focal', 'seal'],
    widths: `${PHOTO} minmax(0,1fr) 210px ${SEAL}`,
    rowHeight: 150,
    cropHeight: 104,
  },
  weigh: {
    columns: ['photo', 'weights', 'seal'],
    widths: `${PHOTO} minmax(0,1fr) ${SEAL}`,
    rowHeight: 124,
    cropHeight: 0,
  },
  describe: {
    columns: ['photo', 'text', 'seal'],
    widths: `${PHOTO} minmax(0,1fr) ${SEAL}`,
    rowHeight: 184,
    cropHeight: 0,
  },
  arrange: {
    columns: ['photo', 'places', 'seal'],
    widths: `${PHOTO} minmax(0,1fr) ${SEAL}`,
    rowHeight: 92,
    cropHeight: 0,
  },
  'hand-over': {
    columns: ['photo', 'files', 'seal'],
    widths: `${PHOTO} minmax(0,1fr) ${SEAL}`,
    rowHeight: 104,
    cropHeight: 0,
  },
};

export const HEADINGS: Record<ColumnId, string> = {
  photo: 'Photo',
  crops: 'Crops',
  focal: 'Focal point',
  weight: 'Weight, sent to a phone',
  weights: 'Weight in each place: bar for a phone, line for a retina laptop, mark for the budget',
  words: 'Words',
  text: 'Words',
  places: 'Goes to',
  files: 'What goes out',
  seal: 'Ready',
};
