// Rectangles and ratios: contain, cover, and moving and resizing a crop. Nothing is enlarged, nothing stretched.
import type { FocalPoint, Rect, ShapeId, Size } from '../contract/index.ts';

/** Rounds half up, as display heights are rounded. */
export const roundHalfUp = (value: number): number => Math.floor(value + 0.5);

/** The value, or the nearer bound outside of which it lies. */
export const clamp = (value: number, low: number, high: number): number =>
  Math.min(Math.max(value, low), high);

/** How a shape is written: whole numbers from 1 to 9999. */
export const SHAPE = /^(?:own|[1-9]\d{0,3}:[1-9]\d{0,3})$/;

/**
 * Width ÷ height of a shape; for "own" that of the given picture.
 * @throws RangeError when the shape is not two positive numbers.
 */
export function ratioOf(shape: ShapeId, own: Size): number {
  if (shape === 'own') return own.width / own.height;
  const [w, h] = shape.split(':').map(Number);
  if (!w || !h || !(w > 0) || !(h > 0)) throw new RangeError(`"${shape}" is not a ratio such as 3:2`);
  return w / h;
}

/** Display or pixel height for a width at a ratio, rounded half up, at least 1. */
export const heightFor = (width: number, ratio: number): number => Math.max(1, roundHalfUp(width / ratio));

/** Contain: the picture scaled by min(1, W/w, H/h); never enlarged. Sizes in px. */
export function contain(picture: Size, box: Size): Size {
  const scale = Math.min(1, box.width / picture.width, box.height / picture.height);
  return {
    width: Math.max(1, roundHalfUp(picture.width * scale)),
    height: Math.max(1, roundHalfUp(picture.height * scale)),
  };
}

/** The largest whole-pixel window of a ratio that fits into a picture. */
export function largestWindow(picture: Size, ratio: number): Size {
  if (picture.width / picture.height > ratio) {
    return { width: clamp(roundHalfUp(picture.height * ratio), 1, picture.width), height: picture.height };
  }
  return { width: picture.width, height: clamp(roundHalfUp(picture.width / ratio), 1, picture.height) };
}

/**
 * Cover: the largest window of the ratio, centred as near the focal point as the edges allow:
 * x = clamp(fx·w − cw/2, 0, w − cw), likewise y. Result in whole picture pixels.
 */
export function cover(picture: Size, ratio: number, focal: Pick<FocalPoint, 'x' | 'y'>): Rect {
  const { width, height } = largestWindow(picture, ratio);
  return {
    x: clamp(roundHalfUp(focal.x * picture.width - width / 2), 0, picture.width - width),
    y: clamp(roundHalfUp(focal.y * picture.height - height / 2), 0, picture.height - height),
    width,
    height,
  };
}

/** Moves a rectangle by (dx, dy) px, stopping at the picture's edges. */
export function moveRect(rect: Rect, dx: number, dy: number, picture: Size): Rect {
  return {
    ...rect,
    x: clamp(roundHalfUp(rect.x + dx), 0, picture.width - rect.width),
    y: clamp(roundHalfUp(rect.y + dy), 0, picture.height - rect.height),
  };
}

export type Corner = 'nw' | 'ne' | 'sw' | 'se';

/**
 * Resizes a rectangle by dragging one corner to a point; the opposite corner stays. With a ratio the
 * result keeps it to within half a pixel; with null both sides are free. At least `least` px wide.
 */
export function resizeRect(
  rect: Rect,
  corner: Corner,
  to: { x: number; y: number },
  picture: Size,
  ratio: number | null,
  least = 16,
): Rect {
  const anchorX = corner.endsWith('w') ? rect.x + rect.width : rect.x;
  const anchorY = corner.startsWith('n') ? rect.y + rect.height : rect.y;
  const roomX = corner.endsWith('w') ? anchorX : picture.width - anchorX;
  const roomY = corner.startsWith('n') ? anchorY : picture.height - anchorY;
  let width = Math.abs(clamp(to.x, 0, picture.width) - anchorX);
  let height = Math.abs(clamp(to.y, 0, picture.height) - anchorY);
  if (ratio !== null) {
    width = Math.max(width, height * ratio);
    width = Math.min(width, roomX, roomY * ratio);
    width = Math.max(width, Math.min(least, roomX, roomY * ratio));
    height = width / ratio;
  }
  const w = clamp(roundHalfUp(width), Math.min(least, roomX), roomX);
  const h = clamp(
    ratio === null ? roundHalfUp(height) : roundHalfUp(w / ratio),
    Math.min(ratio === null ? least : 1, roomY),
    roomY,
  );
  return {
    x: corner.endsWith('w') ? anchorX - w : anchorX,
    y: corner.startsWith('n') ? anchorY - h : anchorY,
    width: w,
    height: h,
  };
}

/** Natural logarithm of the stretch that is still rounding: a tenth, which only crops of about ten pixels reach. */
const MOST_STRETCHED = 0.1;

/** What is wrong with a crop for a shape of a picture, as a sentence, or null when it is right. */
export function cropProblem(rect: Rect, shape: ShapeId, picture: Size): string | null {
  const whole = [rect.x, rect.y, rect.width, rect.height].every(Number.isInteger);
  if (!whole) return 'A crop is measured in whole pixels.';
  if (rect.width < 1 || rect.height < 1) return 'A crop is at least one pixel wide and high.';
  if (
    rect.x < 0 ||
    rect.y < 0 ||
    rect.x + rect.width > picture.width ||
    rect.y + rect.height > picture.height
  ) {
    return `The crop reaches outside the picture of ${picture.width} × ${picture.height} px.`;
  }
  if (shape === 'own') return null;
  const ratio = ratioOf(shape, picture);
  // A pixel more or less is rounding. Of a crop of a few pixels it is a good part, and would stretch the picture.
  const rounded =
    Math.abs(rect.width - rect.height * ratio) <= ratio || Math.abs(rect.height - rect.width / ratio) <= 1;
  const stretched = Math.abs(Math.log(rect.width / rect.height / ratio)) > MOST_STRETCHED;
  return rounded && !stretched
    ? null
    : `The crop of ${rect.width} × ${rect.height} px does not have the shape ${shape}.`;
}
