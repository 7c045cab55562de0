// A photo and a row for tests of the core.
import type { OriginalFacts, Photo, PhotoRow, Policy, SlotId } from '../contract/index.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import { planPhoto, rowVariant } from '../plan/plan.ts';

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
    focal: { x: 0.5, y: 0.5, confirmed: true },
    crops: {},
    words: {
      role: 'informative',
      alt: 'Still bay between two dark headlands.',
      caption: '',
      title: 'Bay at dusk',
      credit: '',
      longDescription: '',
    },
    slots: null,
    binned: false,
    ...change,
  };
}

/** A row whose variants are all stored, each `bytes` bytes. */
export function sampleRow(
  setSlots: readonly SlotId[],
  change: Partial<Photo> = {},
  facts: Partial<OriginalFacts> = {},
  bytes: number | null = 5000,
  policy: Policy = DEFAULT_POLICY,
): PhotoRow {
  const photo = samplePhoto(change, facts);
  const variants = planPhoto(photo, setSlots, policy).map((planned) =>
    rowVariant(
      planned,
      bytes === null ? undefined : { bytes, contentHash: planned.key, quality: 80, difference: 1.9 },
      null,
    ),
  );
  return { ...photo, variants };
}
