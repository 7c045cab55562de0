// What a visitor's device is sent for a row: from stored variants, by the rules of candidate choice.
import type { PhotoRow, RowVariant, SlotId } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { cropFor } from '../geometry/geometry.ts';
import { slotsOf } from '../plan/plan.ts';
import { PHONE, toldWidth } from '../slots/devices.ts';
import { chosenWidth, type Screen } from '../source/choice.ts';
import { ruleFor, slotById, type Slot } from '../slots/slots.ts';

/** The variant that a browser which reads the modern format loads on a screen. */
export function variantSentTo(row: PhotoRow, slot: Slot, screen: Screen): RowVariant | null {
  const part = slot.shapes.find((s) => screen.viewport >= s.from && screen.viewport < s.to);
  if (!part) return null;
  const own = row.variants.filter((v) => v.slot === slot.id && v.shape === part.shape);
  const modern = own.filter((v) => v.format === own[0]?.format);
  const display = widthAt(ruleFor(slot, part.shape, cropFor(row, part.shape)), screen.viewport);
  const width = chosenWidth(
    modern.map((v) => v.width),
    toldWidth(display, screen.density),
    screen.density,
  );
  return modern.find((v) => v.width === width) ?? null;
}

export interface SlotWeight {
  slot: Slot;
  variant: RowVariant | null;
  /** Bytes a phone is sent, or null while the file is not made. */
  bytes: number | null;
  /** Bytes above the slot's budget; 0 within. */
  over: number;
}

/** What a phone is sent in each of a row's slots, the heaviest against its budget first. */
export function phoneWeights(row: PhotoRow, setSlots: readonly SlotId[]): SlotWeight[] {
  return slotsOf(row, setSlots)
    .map((id) => {
      const slot = slotById(id);
      const variant = variantSentTo(row, slot, PHONE);
      const bytes = variant?.bytes ?? null;
      return { slot, variant, bytes, over: Math.max(0, (bytes ?? 0) - slot.budget) };
    })
    .sort((a, b) => (b.bytes ?? 0) / b.slot.budget - (a.bytes ?? 0) / a.slot.budget);
}

export interface Totals {
  camera: number;
  /** Bytes of what is stored; `complete` tells whether that is everything. */
  sent: number;
  complete: boolean;
}

/** Bytes of the originals, and what a screen is sent for all rows in all their slots. */
export function totalsFor(rows: readonly PhotoRow[], setSlots: readonly SlotId[], screen: Screen): Totals {
  const chosen = rows.flatMap((row) =>
    slotsOf(row, setSlots).map((id) => variantSentTo(row, slotById(id), screen)),
  );
  return {
    camera: rows.reduce((sum, row) => sum + row.original.bytes, 0),
    sent: chosen.reduce((sum, v) => sum + (v?.bytes ?? 0), 0),
    complete: chosen.every((v) => v !== null && v.bytes !== null),
  };
}
