// A frame that was chosen on one photo, laid on another.
import type { Frame, Rect, ShapeId, Size } from '../contract/index.ts';
import { frameCropProblem, frameSpace, listedCrops, type Framed } from './frame.ts';
import { clamp, heightFor, largestWindow, ratioOf, roundHalfUp } from './geometry.ts';

/**
 * The same frame on another picture: as large in proportion to the largest that fits, and with its middle at the
 * same part of what room there is. So a frame that touches an edge touches it again, and the shape is kept exactly.
 * For the shape "own" the frame keeps its own ratio.
 * @param from size of the picture that the frame was made on. @param to size of the other.
 */
export function copyFrame(frame: Rect, shape: ShapeId, from: Size, to: Size): Rect {
  const ratio = shape === 'own' ? frame.width / frame.height : ratioOf(shape, from);
  const [before, after] = [largestWindow(from, ratio), largestWindow(to, ratio)];
  // The longer side is scaled and the other follows, so that rounding disturbs the ratio least.
  const wide = ratio >= 1;
  const part = wide ? frame.width / before.width : frame.height / before.height;
  const width = wide
    ? clamp(roundHalfUp(after.width * part), 1, after.width)
    : clamp(roundHalfUp(roundHalfUp(after.height * part) * ratio), 1, after.width);
  const height = clamp(wide ? heightFor(width, ratio) : roundHalfUp(after.height * part), 1, to.height);
  const along = (start: number, length: number, room: number, newLength: number, newRoom: number): number => {
    const share = room > length ? start / (room - length) : 0.5;
    return clamp(roundHalfUp(share * (newRoom - newLength)), 0, newRoom - newLength);
  };
  return {
    x: along(frame.x, frame.width, from.width, width, to.width),
    y: along(frame.y, frame.height, from.height, height, to.height),
    width,
    height,
  };
}

/**
 * All of a frame laid on another photo: its turns, its angle, its focal point as one that was meant, and its crops as
 * large in proportion. A crop that would reach outside there is left to follow the focal point.
 */
export function frameLaidOn(from: Framed, original: Size): Frame {
  const bare: Frame = { ...from.frame, focal: { ...from.frame.focal, confirmed: true }, crops: {} };
  const [before, after] = [frameSpace(from.original, from.frame), frameSpace(original, bare)];
  const crops = listedCrops(from.frame.crops)
    .map(([shape, crop]): [ShapeId, Rect] => [shape, copyFrame(crop, shape, before, after)])
    .filter(([shape, crop]) => frameCropProblem(crop, shape, { original, frame: bare }) === null);
  return { ...bare, crops: Object.fromEntries(crops) };
}
