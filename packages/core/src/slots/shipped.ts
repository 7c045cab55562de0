// The places that a new site starts with. Their budgets are derived (budget.ts).
import type { ShapeId, Slot, SlotShape } from '../contract/index.ts';
import { derivedBudget } from './budget.ts';

const PAGE_MARGIN = 32;
const everywhere = (shape: ShapeId): SlotShape[] => [{ shape, from: 0, to: null }];

const PLACES: readonly Omit<Slot, 'budget'>[] = [
  {
    id: 'hero',
    name: 'Full-width hero',
    hint: '3:1 from 700 px, 4:5 on phones',
    said: 'as wide as the window',
    rule: [{ from: 0, vw: 1, px: 0 }],
    shapes: [
      { shape: '3:1', from: 700, to: null },
      { shape: '4:5', from: 0, to: 700 },
    ],
    loading: 'first',
    fit: null,
  },
  {
    id: 'column',
    name: 'Text column',
    hint: '3:2, up to 720 px wide',
    said: '720 px column',
    rule: [
      { from: 0, vw: 1, px: -PAGE_MARGIN },
      { from: 720 + PAGE_MARGIN, vw: 0, px: 720 },
    ],
    shapes: everywhere('3:2'),
    loading: 'lazy',
    fit: null,
  },
  {
    id: 'half',
    name: 'Half column',
    hint: '4:5, beside text from 752 px',
    rule: [
      { from: 0, vw: 1, px: -PAGE_MARGIN },
      { from: 720 + PAGE_MARGIN, vw: 0, px: 348 },
    ],
    shapes: everywhere('4:5'),
    loading: 'lazy',
    fit: null,
  },
  {
    id: 'grid',
    name: 'Square thumbnail grid',
    hint: '1:1, two to five in a row',
    rule: [
      { from: 0, vw: 1 / 2, px: -PAGE_MARGIN / 2 - 6 },
      { from: 600, vw: 1 / 3, px: -PAGE_MARGIN / 3 - 8 },
      { from: 960, vw: 0, px: 240 },
    ],
    shapes: everywhere('1:1'),
    loading: 'lazy',
    fit: null,
  },
  {
    id: 'viewer',
    name: 'Viewer',
    hint: 'whole photo, inside 1600 × 1200',
    rule: [{ from: 0, vw: 1, px: -PAGE_MARGIN }],
    shapes: everywhere('own'),
    loading: 'lazy',
    fit: { width: 1600, height: 1200 },
  },
];

/** A viewer opens over the page, and its photo stands there alone. */
const ALONE: readonly string[] = ['viewer'];

export const SHIPPED_SLOTS: readonly Slot[] = PLACES.map((slot) => ({
  ...slot,
  budget: derivedBudget(slot, { alone: ALONE.includes(slot.id) }),
}));
