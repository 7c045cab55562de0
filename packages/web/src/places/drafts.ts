// Changes of places that are not applied yet. They belong to the browser until then, and outlive a reload.
import type { ShapeId, Slot, SlotId, Tallest } from '@dusky-otter/core/contract';
import { CssError, sizesOf } from '@dusky-otter/core/css';
import { keptHeight, mendedWidth, readWidth, withoutHeight, type TypedWidth } from '@dusky-otter/core/slots';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { hintFor } from './shapes-said.ts';

export interface PlaceDraft {
  slot: Slot;
  /** The width as it is being typed; it may not be readable yet. */
  width: string;
}

/** A place that is being made: not yet more than a name and a width. */
export interface NewPlace {
  name: string;
  width: string;
}

interface Drafts {
  /** By site and place. */
  changed: Record<string, PlaceDraft>;
  /** By site. */
  made: Record<number, NewPlace>;
}

export const useDrafts = create<Drafts>()(
  persist((): Drafts => ({ changed: {}, made: {} }), { name: 'dusky-otter-places' }),
);

const keyOf = (siteId: number, id: SlotId): string => `${siteId} ${id}`;

export const draftOf = ({ changed }: Drafts, siteId: number, id: SlotId): PlaceDraft | null =>
  changed[keyOf(siteId, id)] ?? null;

export function keepDraft(siteId: number, draft: PlaceDraft): void {
  useDrafts.setState(({ changed }) => ({ changed: { ...changed, [keyOf(siteId, draft.slot.id)]: draft } }));
}

export function dropDraft(siteId: number, id: SlotId): void {
  useDrafts.setState(({ changed }) => {
    const { [keyOf(siteId, id)]: dropped, ...others } = changed;
    return dropped ? { changed: others } : {};
  });
}

export function keepNew(siteId: number, place: NewPlace | null): void {
  useDrafts.setState(({ made }) => {
    const others = Object.fromEntries(Object.entries(made).filter(([id]) => Number(id) !== siteId));
    return { made: place ? { ...others, [siteId]: place } : others };
  });
}

export interface WidthRead {
  read: TypedWidth | null;
  error: CssError | null;
  mend: string | null;
}

/** What was typed as a width, with its error and mend where it can't be read. */
export function widthRead(text: string): WidthRead {
  try {
    return { read: readWidth(text), error: null, mend: null };
  } catch (error) {
    if (!(error instanceof CssError)) throw error;
    return { read: null, error, mend: mendedWidth(text) };
  }
}

const everywhere = (shape: ShapeId): Slot['shapes'] => [{ shape, from: 0, to: null }];

/**
 * A place with another width: a box that was said makes it show whole photos. A height that was said goes with its words;
 * one that has a field of its own stays.
 */
export function withWidth(slot: Slot, text: string, read: TypedWidth): Slot {
  const next = { ...slot };
  // What was measured was another width.
  delete next.measured;
  const shaped = { ...next, ...(read.fit && { fit: read.fit, shapes: everywhere('own') }) };
  const wasSaid = withoutHeight(slot.said ?? '').height !== null;
  const tallest = read.height ? keptHeight(read.height, shaped) : wasSaid ? undefined : slot.tallest;
  return { ...limited(shaped, tallest), rule: read.rule, said: text.trim() };
}

function limited(slot: Slot, tallest: Tallest | undefined): Slot {
  const next = { ...slot };
  delete next.tallest;
  return tallest ? { ...next, tallest } : next;
}

/** The width alone, where a height was said with it. */
const widthAlone = (text: string, slot: Slot): string => {
  const said = withoutHeight(text);
  return said.height ? said.text || sizesOf(slot.rule) : text;
};

/** A draft with another height, or none: what was said of it with the width is said no more. */
export function withTallest({ slot, width }: PlaceDraft, tallest: Tallest | undefined): PlaceDraft {
  const next = limited(slot, tallest);
  return {
    slot: { ...next, ...(next.said !== undefined && { said: widthAlone(next.said, slot) }) },
    width: widthAlone(width, slot),
  };
}

/** Whole photos in a box, or cut to shapes. */
export function withWhole(slot: Slot, whole: boolean): Slot {
  return whole
    ? { ...slot, shapes: everywhere('own') }
    : { ...slot, fit: null, shapes: slot.shapes[0]?.shape === 'own' ? everywhere('3:2') : slot.shapes };
}

/** Shapes by the window they begin at: what each serves follows. */
export function withShapes(slot: Slot, parts: readonly { shape: ShapeId; from: number }[]): Slot {
  const falling = [...parts].sort((a, b) => b.from - a.from);
  return {
    ...slot,
    shapes: falling.map(({ shape, from }, n) => ({ shape, from, to: n === 0 ? null : falling[n - 1]!.from })),
  };
}

/** A place as it is sent: its hint says what it is now. */
export const finished = (slot: Slot): Slot => ({ ...slot, name: slot.name.trim(), hint: hintFor(slot) });
