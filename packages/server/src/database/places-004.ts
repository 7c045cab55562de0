// The places that every site had before it had places of its own, as they were then: 004 carries them over. Not changed when
// the places that ship are.
import type { ShapeId, Slot, SlotShape } from '@dusky-otter/core/contract';

const PAGE_MARGIN = 32;
const everywhere = (shape: ShapeId): SlotShape[] => [{ shape, from: 0, to: null }];

export const PLACES_OF_004: readonly Slot[] = [
  {
    id: 'hero',
    name: 'Full-width hero',
    hint: '3:1 from 700 px, 4:5 on phones',
    rule: [{ from: 0, vw: 1, px: 0 }],
    shapes: [
      { shape: '3:1', from: 700, to: null },
      { shape: '4:5', from: 0, to: 700 },
    ],
    budget: 90_000,
    loading: 'first',
    fit: null,
  },
  {
    id: 'column',
    name: 'Text column',
    hint: '3:2, up to 720 px wide',
    rule: [
      { from: 0, vw: 1, px: -PAGE_MARGIN },
      { from: 720 + PAGE_MARGIN, vw: 0, px: 720 },
    ],
    shapes: everywhere('3:2'),
    budget: 50_000,
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
    budget: 60_000,
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
    budget: 20_000,
    loading: 'lazy',
    fit: null,
  },
  {
    id: 'viewer',
    name: 'Viewer',
    hint: 'whole photo, inside 1600 × 1200',
    rule: [{ from: 0, vw: 1, px: -PAGE_MARGIN }],
    shapes: everywhere('own'),
    budget: 120_000,
    loading: 'lazy',
    fit: { width: 1600, height: 1200 },
  },
];
