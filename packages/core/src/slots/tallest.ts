// How high a picture may stand: in px, or as a part of the window's height. Cut, it stays as wide as planned and loses what is
// above and below; whole, it becomes narrower.
import type { Size, Slot, SlotShape, Tallest } from '../contract/index.ts';
import { cssNumber } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { heightFor, ratioOf } from '../geometry/geometry.ts';
import type { SaidHeight } from './phrase-height.ts';
import { ruleFor } from './slots.ts';

/** The height as CSS: "70vh", "480px". */
export const tallestCss = ({ height, unit }: Tallest): string => `${cssNumber(height)}${unit}`;

/** A height limit in words: "at most 70vh high, cut". */
export const tallestSaid = (tallest: Tallest): string =>
  `at most ${tallestCss(tallest)} high, ${tallest.cut ? 'cut to it' : 'seen whole'}`;

/**
 * The most that a picture of this ratio may be wide so that it is seen whole in a place of limited height, as a CSS length;
 * null where its place has no such limit.
 * @param ratio width by height
 */
export function widestByHeight({ tallest }: Pick<Slot, 'tallest'>, ratio: number): string | null {
  if (!tallest || tallest.cut) return null;
  return tallestCss({ ...tallest, height: tallest.height * ratio });
}

/** The height in CSS px in a window that is `window` px high. */
const tallestIn = ({ height, unit }: Tallest, window: number): number =>
  unit === 'vh' ? (height * window) / 100 : height;

/** A height that was said with a width, as it is kept: where it was not said how, pictures of their own shape stay whole. */
export const keptHeight = (
  { cut, ...height }: NonNullable<SaidHeight['height']>,
  { shapes }: Pick<Slot, 'shapes'>,
): Tallest => ({ ...height, cut: cut ?? shapes[0]?.shape !== 'own' });

/** Heights that windows of these widths have, less the browser's bars, CSS px: phones, tablets, laptops, large screens. */
const HEIGHTS: readonly (readonly [from: number, height: number])[] = [
  [1600, 940],
  [1024, 720],
  [600, 1060],
  [0, 664],
];

/** How high a window of this width usually is; both in CSS px. */
export const usualHeight = (width: number): number =>
  HEIGHTS.find(([from]) => width >= from)?.[1] ?? HEIGHTS.at(-1)![1];

/**
 * A picture as its place's height leaves it, CSS px.
 * @param width what it would take without. @param ratio width by height. @param window height of the window
 */
export function withinHeight(
  tallest: Tallest | undefined,
  width: number,
  ratio: number,
  window: number,
): Size {
  const most = tallest ? tallestIn(tallest, window) : Infinity;
  const left = tallest?.cut === false ? Math.min(width, most * ratio) : width;
  return { width: left, height: Math.min(most, heightFor(left, ratio)) };
}

/**
 * What a picture takes in a window, CSS px: the width not rounded, the height whole.
 * @param crop the part of the photo that is shown, in its pixels
 * @param window inner size, CSS px
 */
export function shownSize(slot: Slot, { shape }: SlotShape, crop: Size, window: Size): Size {
  const ratio = ratioOf(shape, crop);
  const width = widthAt(ruleFor(slot, shape, crop), window.width);
  const { width: left, height } = withinHeight(slot.tallest, width, ratio, window.height);
  return { width: left, height: Math.round(height) };
}
