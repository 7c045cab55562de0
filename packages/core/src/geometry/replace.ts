// A frame when another original takes the place of a photo's.
import type { Frame, OriginalFacts, ShapeId, Size } from '../contract/index.ts';
import { frameLaidOn } from './copy-frame.ts';
import { firstFrame, type Framed } from './frame.ts';

/** Ratios that differ by less, by parts of the smaller, are one: exports round their sides. */
const SAME_RATIO = 0.01;

/** Whether two pictures have one ratio, by up to 1 %. Then what was framed in one can be framed in the other. */
export function sameRatio(a: Size, b: Size): boolean {
  const [one, other] = [a.width * b.height, b.width * a.height];
  return Math.abs(one - other) <= SAME_RATIO * Math.min(one, other);
}

export interface ReplacedFrame {
  frame: Frame;
  /** Crops of the editor's that stay, in proportion. */
  kept: ShapeId[];
  /** Crops that follow the focal point again. */
  given: ShapeId[];
}

/**
 * The frame of a photo with another original. Where the ratio stays, turns, angle, focal point and crops stay on the
 * same part of it, in proportion; otherwise nothing tells where its subject is, and all begins with the first guess.
 * Whether the picture shows the same is for the editor to see: the focal point is confirmed no more.
 */
export function frameReplaced(
  photo: Framed,
  original: Size & Pick<OriginalFacts, 'attention'>,
): ReplacedFrame {
  const shapes = Object.keys(photo.frame.crops) as ShapeId[];
  if (!sameRatio(photo.original, original))
    return { frame: firstFrame(original.attention), kept: [], given: shapes };
  const laid = frameLaidOn(photo, original);
  const kept = shapes.filter((shape) => laid.crops[shape]);
  return {
    frame: { ...laid, focal: { ...laid.focal, confirmed: false } },
    kept,
    given: shapes.filter((shape) => !kept.includes(shape)),
  };
}
