// A photo and a row for tests of the core.
import type {
  Frame,
  OriginalFacts,
  Photo,
  PhotoRow,
  Placement,
  PlanContext,
  Policy,
  Slot,
  SlotId,
} from '../contract/index.ts';
import { NO_WORDS } from '../words/no-words.ts';
import { firstFrame } from '../geometry/frame.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import { planPhoto, rowVariant } from '../plan/plan.ts';
import { openIn } from '../plan/set-places.ts';
import { DEFAULT_DEVICES } from '../slots/devices.ts';
import { SHIPPED_SLOTS } from '../slots/shipped.ts';

/** A site as it begins. */
export const sampleContext = (policy: Policy = DEFAULT_POLICY): PlanContext => ({
  slots: SHIPPED_SLOTS,
  devices: DEFAULT_DEVICES,
  policy,
  languages: ['en'],
});

export const CONTEXT = sampleContext();

/** A shipped place by its name. */
export const slotById = (id: SlotId): Slot => SHIPPED_SLOTS.find((slot) => slot.id === id)!;

export function samplePhoto(change: Partial<Photo> = {}, facts: Partial<OriginalFacts> = {}): Photo {
  return {
    id: 1,
    version: 1,
    fileName: 'DSC00198.JPG',
    original: {
      hash: 'ab'.repeat(32),
      bytes: 1_640_000,
      format: 'jpeg',
      width: 3000,
      height: 2000,
      orientation: 1,
      profile: null,
      frames: 1,
      transparent: false,
      content: { colours: 40_000, commonest: 0.01, common: 0.1 },
      takenAt: null,
      hasPosition: false,
      camera: null,
      colour: '#808080',
      attention: { x: 0.5, y: 0.5 },
      found: { alt: '', caption: '', title: '', credit: '' },
      damage: null,
      ...facts,
    },
    frame: sampleFrame(),
    words: {
      ...NO_WORDS,
      role: 'informative',
      alt: 'Still bay between two dark headlands.',
      title: 'Bay at dusk',
    },
    quality: {},
    placements: null,
    position: 'a0',
    binned: false,
    toRead: false,
    ...change,
  };
}

/** The frame of a sample photo, with changes. */
export const sampleFrame = (change: Partial<Frame> = {}): Frame => ({
  ...firstFrame({ x: 0.5, y: 0.5 }),
  focal: { x: 0.5, y: 0.5, confirmed: true },
  ...change,
});

/** A placement with nothing decided for itself. */
export const placed = (...slots: SlotId[]): Placement[] =>
  slots.map((slot) => ({ slot, link: '', words: {}, crops: {} }));

/** A row whose variants are all stored, each `bytes` bytes. */
export function sampleRow(
  slots: readonly SlotId[],
  change: Partial<Photo> = {},
  facts: Partial<OriginalFacts> = {},
  bytes: number | null = 5000,
  context: PlanContext = CONTEXT,
): PhotoRow {
  const photo = samplePhoto(change, facts);
  const variants = planPhoto(photo, openIn(...slots), context).map((planned) =>
    rowVariant(
      planned,
      bytes === null ? undefined : { bytes, contentHash: planned.key, quality: 80, difference: 1.9 },
      null,
    ),
  );
  return { ...photo, variants };
}
