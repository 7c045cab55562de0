// The bytes that a place may take, derived: what a slow phone line brings in the time that a first screen may take, shared
// among what stands there by area. The sum is written out in docs/decisions.md.
import type { Slot } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { ratioOf } from '../geometry/geometry.ts';
import { PHONE } from './devices.ts';
import { shapeAt } from './slots.ts';
import { usualHeight, withinHeight } from './tallest.ts';

/** A slow phone line: 1.6 Mbit/s with 150 ms there and back. */
export const SLOW_LINE = { bytesPerSecond: 200_000, roundTrip: 0.15 } as const;

/** Seconds within which the largest picture of the first screen should stand (Core Web Vitals: "good" up to 2.5 s). */
export const FIRST_SCREEN_SECONDS = 2.5;
/** Round trips before the first byte of a picture: name, connection, TLS, the page, the picture. */
const ROUND_TRIPS = 5;
/** Bytes of a page that come before its pictures: document, styles, fonts, scripts. */
const PAGE_ITSELF = 200_000;
/** What a phone shows of a page: its window less the browser's bars; CSS px. */
const SCREEN = { width: PHONE.viewport, height: usualHeight(PHONE.viewport) } as const;

/** Bytes that all pictures of a first screen may take together: 150,000. */
export const FIRST_SCREEN_BYTES = Math.round(
  (FIRST_SCREEN_SECONDS - ROUND_TRIPS * SLOW_LINE.roundTrip) * SLOW_LINE.bytesPerSecond - PAGE_ITSELF,
);

/** A ratio for pictures of their own shape: most cameras'. */
const OWN = { width: 3, height: 2 };
const STEP = 5_000;

/**
 * The budget of a place: its part of a phone's first screen, as a part of the bytes that may come there. In bytes, to
 * the nearest 5,000 and at least that; a place that is higher than the screen gets no more than all of it.
 * @param alone nothing else stands on the screen with it: all the bytes are its own.
 */
export function derivedBudget(
  slot: Pick<Slot, 'rule' | 'shapes' | 'fit' | 'tallest'>,
  { alone = false }: { alone?: boolean } = {},
): number {
  if (alone) return FIRST_SCREEN_BYTES;
  const shape = shapeAt(slot as Slot, PHONE.viewport)?.shape ?? 'own';
  const ratio = ratioOf(shape, OWN);
  const room = slot.fit ? Math.min(slot.fit.width, slot.fit.height * ratio) : Infinity;
  const most = Math.min(widthAt(slot.rule, PHONE.viewport), room);
  const { width, height } = withinHeight(slot.tallest, most, ratio, SCREEN.height);
  const area = Math.min(SCREEN.width, width) * Math.min(SCREEN.height, height);
  const bytes = (FIRST_SCREEN_BYTES * area) / (SCREEN.width * SCREEN.height);
  return Math.max(STEP, Math.round(bytes / STEP) * STEP);
}
