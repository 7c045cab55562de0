// What a visitor's device is sent for a row: from stored variants, by the rules of candidate choice.
import type { PhotoRow, PlanContext, RowVariant, SentBytes, SetPlaces, Slot } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { cropIn } from '../plan/plan.ts';
import { slotsOf } from '../plan/set-places.ts';
import { PHONE, toldWidth } from '../slots/devices.ts';
import { chosenWidth, type Screen } from '../source/choice.ts';
import { formatsByBytes, isModern } from '../weight/served.ts';
import { ruleFor, shapeAt, slotsIn } from '../slots/slots.ts';

/** The variant that a browser which reads the modern format loads on a screen. */
export function variantSentTo(row: PhotoRow, slot: Slot, screen: Screen): RowVariant | null {
  const part = shapeAt(slot, screen.viewport);
  if (!part) return null;
  const own = row.variants.filter((v) => v.slot === slot.id && v.shape === part.shape);
  const [format] = formatsByBytes(own);
  const modern = own.filter((v) => v.format === format);
  const display = widthAt(ruleFor(slot, part.shape, cropIn(row, slot.id, part.shape)), screen.viewport);
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
export function phoneWeights(
  row: PhotoRow,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots'>,
): SlotWeight[] {
  return slotsIn(context, slotsOf(row, setPlaces))
    .map((slot) => {
      const variant = variantSentTo(row, slot, PHONE);
      const bytes = variant?.bytes ?? null;
      return { slot, variant, bytes, over: Math.max(0, (bytes ?? 0) - slot.budget) };
    })
    .sort((a, b) => (b.bytes ?? 0) / b.slot.budget - (a.bytes ?? 0) / a.slot.budget);
}

/** A fallback is heavy beyond so many bytes, and so many times what other browsers are sent. */
const HEAVY = { bytes: 300_000, times: 3 } as const;

/** What a phone whose browser reads no modern format is sent, where that is far heavier than what others are. */
export function phoneFallbacks(
  row: PhotoRow,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots'>,
): { slot: Slot; variant: RowVariant; plain: RowVariant & { bytes: number } }[] {
  return phoneWeights(row, setPlaces, context).flatMap(({ slot, variant, bytes }) => {
    if (!variant || bytes === null || !isModern(variant.format)) return [];
    const plain = row.variants.find(
      (v) =>
        v.slot === slot.id && v.shape === variant.shape && v.width === variant.width && !isModern(v.format),
    );
    if (plain?.bytes == null || plain.bytes < HEAVY.bytes || plain.bytes < HEAVY.times * bytes) return [];
    return [{ slot, variant, plain: { ...plain, bytes: plain.bytes } }];
  });
}

/** Bytes that a screen is sent for one row where it stands, and whether all of it is made. */
export function sentTo(
  row: PhotoRow,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots'>,
  screen: Screen,
): SentBytes {
  const chosen = slotsIn(context, slotsOf(row, setPlaces)).map((slot) => variantSentTo(row, slot, screen));
  return {
    sent: chosen.reduce((sum, variant) => sum + (variant?.bytes ?? 0), 0),
    complete: chosen.every((variant) => variant !== null && variant.bytes !== null),
  };
}
