// How doubtful a first guess is: how much of what draws the eye the automatic crops would cut off.
import type { Extent, Photo, ShapeId } from '../contract/index.ts';
import { automaticCrop, isTurned } from '../geometry/frame.ts';

export interface Doubt {
  /** The largest part of the subject that a crop cuts off, 0 to 1. */
  part: number;
  /** The shape that does. */
  shape: ShapeId;
}

const overlap = (from: number, to: number, low: number, high: number): number =>
  Math.max(0, Math.min(to, high) - Math.max(from, low));

/** Part of an extent that lies outside a crop. Both as fractions of one picture. */
function cutOff(extent: Extent, crop: Extent): number {
  const area = (extent.right - extent.left) * (extent.bottom - extent.top);
  if (area <= 0) return 0;
  const kept =
    overlap(extent.left, extent.right, crop.left, crop.right) *
    overlap(extent.top, extent.bottom, crop.top, crop.bottom);
  return Math.max(0, 1 - kept / area);
}

/**
 * Doubt of a photo whose focal point is a guess. It is computed from the box that holds the inner 80 % of what draws the
 * eye, in each direction (`subjectExtent`), and the crops that follow the focal point.
 * @returns null where nothing is guessed any more: a confirmed focal point, a turned photo (somebody looked at it), crops
 *   that are all the editor's; and where the extent was not found when the photo was taken in
 */
export function doubtOf(photo: Pick<Photo, 'original' | 'frame'>, shapes: readonly ShapeId[]): Doubt | null {
  const { original, frame } = photo;
  const { extent } = original.attention;
  if (!extent || frame.focal.confirmed || isTurned(frame)) return null;
  let worst: Doubt | null = null;
  for (const shape of shapes) {
    if (shape === 'own' || frame.crops[shape]) continue;
    const { x, y, width, height } = automaticCrop(photo, shape);
    const crop = {
      left: x / original.width,
      top: y / original.height,
      right: (x + width) / original.width,
      bottom: (y + height) / original.height,
    };
    const part = cutOff(extent, crop);
    if (!worst || part > worst.part) worst = { part, shape };
  }
  return worst;
}
