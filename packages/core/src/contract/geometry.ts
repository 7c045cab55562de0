// Sizes, rectangles, and the frame of a photo.

export interface Size {
  width: number;
  height: number;
}

/** Integers, inside the picture, in the space that its use names: for crops that of the frame (see `Frame`). */
export interface Rect extends Size {
  x: number;
  y: number;
}

/** Fractions of a picture, 0 to 1. A guess until an editor confirms it. */
export interface FocalPoint {
  x: number;
  y: number;
  confirmed: boolean;
}

/** A ratio "w:h", or "own" for the photo's own shape. */
export type ShapeId = 'own' | `${number}:${number}`;

/**
 * How a photo is framed. It is applied in this order, and each part is measured in the space that those before it
 * made:
 * 1. the original's pixels after its EXIF orientation are the photo's own space;
 * 2. `mirrored` flips it left to right, then `turns` turn it by right angles: the turned space;
 * 3. `focal` are fractions of the turned space, so that straightening leaves it on its subject;
 * 4. `angle` turns it about its centre; the box around the result (`frameSpace`) is the space of the crops;
 * 5. `crops` are whole pixels of that box, with no corner outside the picture.
 */
export interface Frame {
  mirrored: boolean;
  /** Right angles, clockwise. */
  turns: 0 | 1 | 2 | 3;
  /** Degrees clockwise, −15 to 15. */
  angle: number;
  focal: FocalPoint;
  /** Crops that an editor moved; a shape that is missing here follows the focal point. */
  crops: Partial<Record<ShapeId, Rect>>;
}
