// The frame of a photo: the spaces it makes, the crop that a shape shows, and what turning does to the rest of it.
import type { FocalPoint, Frame, Rect, ShapeId, Size, Turning } from '../contract/index.ts';
import { clamp, cropProblem, ratioOf } from './geometry.ts';
import { MOST_STRAIGHTENING, straighten, turnedBox } from './straighten.ts';

/** A photo as far as its frame goes. `original` is the size of its own space. */
export interface Framed {
  original: Size;
  frame: Frame;
}

/** Crops that an editor moved, each with its shape. */
export const listedCrops = (crops: Frame['crops']): [ShapeId, Rect][] =>
  Object.entries(crops) as [ShapeId, Rect][];

export const NO_TURNING: Turning = { mirrored: false, turns: 0, angle: 0 };

/** The frame of a photo that nobody has framed: it looks at the first guess. */
export const firstFrame = ({ x, y }: { x: number; y: number }): Frame => ({
  ...NO_TURNING,
  focal: { x, y, confirmed: false },
  crops: {},
});

export const isTurned = ({ mirrored, turns, angle }: Turning): boolean =>
  mirrored || turns !== 0 || angle !== 0;

const isSideways = ({ turns }: Pick<Turning, 'turns'>): boolean => turns % 2 === 1;

/** Size of the turned space, before straightening. Exact. */
export const turnedSize = ({ width, height }: Size, turning: Pick<Turning, 'turns'>): Size =>
  isSideways(turning) ? { width: height, height: width } : { width, height };

/** Size of the space that crops are measured in: the box around the turned and straightened picture, in whole px. */
export const frameSpace = (original: Size, turning: Turning): Size =>
  turning.angle === 0
    ? turnedSize(original, turning)
    : turnedBox(turnedSize(original, turning), turning.angle);

/** Where a point of the turned picture, in fractions, lies in the space of the crops, in px. */
export function pointInSpace(
  { original, frame }: Framed,
  point: { x: number; y: number },
): { x: number; y: number } {
  const turned = turnedSize(original, frame);
  const box = frameSpace(original, frame);
  const angle = (frame.angle * Math.PI) / 180;
  const [dx, dy] = [(point.x - 0.5) * turned.width, (point.y - 0.5) * turned.height];
  return {
    x: box.width / 2 + dx * Math.cos(angle) - dy * Math.sin(angle),
    y: box.height / 2 + dx * Math.sin(angle) + dy * Math.cos(angle),
  };
}

/**
 * The whole turning as a matrix [a b c d e f] of SVG and CSS (x' = a x + c y + e, y' = b x + d y + f): from px of the
 * upright original to px of the space of the crops.
 */
export function turningMatrix(
  original: Size,
  turning: Turning,
): [a: number, b: number, c: number, d: number, e: number, f: number] {
  const box = frameSpace(original, turning);
  const radians = (turning.angle * Math.PI) / 180 + (turning.turns * Math.PI) / 2;
  const [sin, cos] = [Math.sin(radians), Math.cos(radians)];
  const mirror = turning.mirrored ? -1 : 1;
  const [a, b, c, d] = [mirror * cos, mirror * sin, -sin, cos];
  // The middle stays the middle, whatever is turned about it.
  const [x, y] = [original.width / 2, original.height / 2];
  return [a, b, c, d, box.width / 2 - a * x - c * y, box.height / 2 - b * x - d * y];
}

/** The way back from `pointInSpace`: a place in the space of the crops as fractions of the turned picture, 0 to 1. */
export function pointFromSpace(
  { original, frame }: Framed,
  place: { x: number; y: number },
): { x: number; y: number } {
  const turned = turnedSize(original, frame);
  const box = frameSpace(original, frame);
  const angle = (frame.angle * Math.PI) / 180;
  const [dx, dy] = [place.x - box.width / 2, place.y - box.height / 2];
  return {
    x: clamp(0.5 + (dx * Math.cos(angle) + dy * Math.sin(angle)) / turned.width, 0, 1),
    y: clamp(0.5 + (dy * Math.cos(angle) - dx * Math.sin(angle)) / turned.height, 0, 1),
  };
}

/**
 * The angle that makes a line drawn on the straightened picture level or upright, whichever is nearer: its own tilt is
 * taken off the angle that there is. Degrees, at most 15 either way; to a tenth.
 */
export function angleFromLine(
  angle: number,
  from: { x: number; y: number },
  to: { x: number; y: number },
): number {
  const slope = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const tilt = slope - 90 * Math.round(slope / 90);
  return clamp(Math.round((angle - tilt) * 10) / 10, -MOST_STRAIGHTENING, MOST_STRAIGHTENING);
}

/** The largest crop of a shape that follows the focal point. */
export function automaticCrop({ original, frame }: Framed, shape: ShapeId): Rect {
  const turned = turnedSize(original, frame);
  return straighten(turned, ratioOf(shape, turned), frame.angle, frame.focal);
}

/** The crop a shape shows: the editor's own if there is one, otherwise the automatic one. */
export const cropFor = (photo: Framed, shape: ShapeId): Rect =>
  photo.frame.crops[shape] ?? automaticCrop(photo, shape);

/** True when all corners of a crop lie in the straightened picture, by up to half a pixel. */
function liesInPicture(crop: Rect, turned: Size, angle: number): boolean {
  const box = turnedBox(turned, angle);
  const radians = (angle * Math.PI) / 180;
  const [sin, cos] = [Math.sin(radians), Math.cos(radians)];
  const corners = [crop.x, crop.x + crop.width].flatMap((x) =>
    [crop.y, crop.y + crop.height].map((y) => ({ x: x - box.width / 2, y: y - box.height / 2 })),
  );
  // Turned back, a corner is measured from the picture's middle in the picture's own directions.
  return corners.every(
    ({ x, y }) =>
      Math.abs(x * cos + y * sin) <= turned.width / 2 + 0.5 &&
      Math.abs(y * cos - x * sin) <= turned.height / 2 + 0.5,
  );
}

/** What is wrong with a crop of a shape in a photo's frame, as a sentence, or null when it is right. */
export function frameCropProblem(
  crop: Rect,
  shape: ShapeId,
  { original, frame }: { original: Size; frame: Turning },
): string | null {
  const problem = cropProblem(crop, shape, frameSpace(original, frame));
  if (problem || frame.angle === 0) return problem;
  return liesInPicture(crop, turnedSize(original, frame), frame.angle)
    ? null
    : 'A corner of the crop reaches outside the straightened picture.';
}

/** "2:3" for "3:2": what a crop's shape becomes when it is laid on its side. */
function sideways(shape: ShapeId): ShapeId {
  if (shape === 'own') return shape;
  const [w, h] = shape.split(':').map(Number);
  return `${h!}:${w!}`;
}

/** A point and the rectangles of one space after one right angle clockwise; `size` is that of the space before. */
function afterOneTurn(frame: Frame, size: Size): Frame {
  const crops = listedCrops(frame.crops).map(([shape, { x, y, width, height }]) => [
    sideways(shape),
    { x: size.height - y - height, y: x, width: height, height: width },
  ]);
  return {
    ...frame,
    turns: ((frame.turns + 1) % 4) as Frame['turns'],
    focal: { ...frame.focal, x: 1 - frame.focal.y, y: frame.focal.x },
    crops: Object.fromEntries(crops) as Frame['crops'],
  };
}

/**
 * A frame after more right angles, clockwise: the focal point stays on its subject, crops stay what they show (and
 * so belong to the shape laid on its side). Four turns are none.
 */
export function turnFrame(frame: Frame, original: Size, times: number): Frame {
  let turned = frame;
  for (let n = 0; n < ((times % 4) + 4) % 4; n++) turned = afterOneTurn(turned, frameSpace(original, turned));
  return turned;
}

/** A frame of the picture as it is seen now, flipped left to right. Twice is not at all. */
export function mirrorFrame(frame: Frame, original: Size): Frame {
  const { width } = frameSpace(original, frame);
  const crops = listedCrops(frame.crops).map(([shape, crop]) => [
    shape,
    { ...crop, x: width - crop.x - crop.width },
  ]);
  return {
    mirrored: !frame.mirrored,
    // Mirroring comes first: seen from behind it, the other turns go the other way round.
    turns: ((4 - frame.turns) % 4) as Frame['turns'],
    angle: frame.angle === 0 ? 0 : -frame.angle,
    focal: { ...frame.focal, x: 1 - frame.focal.x },
    crops: Object.fromEntries(crops) as Frame['crops'],
  };
}

/** A frame with another angle. Crops that would reach outside the picture are given back to the focal point. */
export function straightenFrame(frame: Frame, original: Size, angle: number): Frame {
  const next = { ...frame, angle: clamp(angle, -MOST_STRAIGHTENING, MOST_STRAIGHTENING) };
  const [before, after] = [frameSpace(original, frame), frameSpace(original, next)];
  const [dx, dy] = [(after.width - before.width) / 2, (after.height - before.height) / 2];
  const crops = listedCrops(frame.crops)
    // The middle of the picture stays the middle of the box.
    .map(([shape, crop]): [ShapeId, Rect] => [
      shape,
      { ...crop, x: Math.round(crop.x + dx), y: Math.round(crop.y + dy) },
    ])
    .filter(([shape, crop]) => frameCropProblem(crop, shape, { original, frame: next }) === null);
  return { ...next, crops: Object.fromEntries(crops) };
}

/** What is wrong with a frame as a whole, as a sentence, or null. */
export function frameProblem(frame: Frame, original: Size): string | null {
  if (!(Math.abs(frame.angle) <= MOST_STRAIGHTENING))
    return `A picture can be straightened by up to ${MOST_STRAIGHTENING}°.`;
  const focal = focalProblem(frame.focal);
  if (focal) return focal;
  for (const [shape, crop] of listedCrops(frame.crops)) {
    const problem = frameCropProblem(crop, shape, { original, frame });
    if (problem) return problem;
  }
  return null;
}

export const focalProblem = ({ x, y }: Pick<FocalPoint, 'x' | 'y'>): string | null =>
  x >= 0 && x <= 1 && y >= 0 && y <= 1 ? null : 'The focal point lies outside the picture.';
