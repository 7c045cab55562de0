// Straightening: a turned picture and the largest upright rectangle of a ratio inside it.
import type { FocalPoint, Rect, Size } from '../contract/index.ts';
import { clamp, cover, heightFor, roundHalfUp } from './geometry.ts';

/** Degrees either way; more is a matter of right-angle turns. */
export const MOST_STRAIGHTENING = 15;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** What a rectangle takes up when it is turned by an angle, not rounded. */
function turned({ width, height }: Size, degrees: number): Size {
  const [sin, cos] = [Math.abs(Math.sin(radians(degrees))), Math.cos(radians(degrees))];
  return { width: width * cos + height * sin, height: width * sin + height * cos };
}

/** Box around a picture turned by an angle: what a codec's rotation gives, in px, rounded up. */
export function turnedBox(picture: Size, degrees: number): Size {
  const { width, height } = turned(picture, degrees);
  return { width: Math.ceil(width - 1e-9), height: Math.ceil(height - 1e-9) };
}

/**
 * Width of the largest upright rectangle of a ratio r inside a w × h picture turned by θ, in px, not rounded.
 * A rectangle of width c and height c/r, seen from the turned picture, needs c·cos θ + (c/r)·sin θ of its width and
 * c·sin θ + (c/r)·cos θ of its height; the tighter of the two decides.
 */
export function largestTurned({ width, height }: Size, ratio: number, degrees: number): number {
  const [sin, cos] = [Math.abs(Math.sin(radians(degrees))), Math.cos(radians(degrees))];
  return Math.min(width / (cos + sin / ratio), height / (sin + cos / ratio));
}

/**
 * The largest upright rectangle of a ratio in a straightened picture, centred as near the focal point as the turned
 * edges allow. At 0° it is `cover`.
 * @param degrees clockwise, −15 to 15.
 * @returns whole px in the box around the turned picture (`turnedBox`), with no corner outside the picture.
 * @throws RangeError beyond 15°.
 */
export function straighten(
  picture: Size,
  ratio: number,
  degrees: number,
  focal: Pick<FocalPoint, 'x' | 'y'>,
): Rect {
  if (!(Math.abs(degrees) <= MOST_STRAIGHTENING)) {
    throw new RangeError(`A picture can be straightened by up to ${MOST_STRAIGHTENING}°, not ${degrees}°.`);
  }
  if (degrees === 0) return cover(picture, ratio, focal);
  const angle = radians(degrees);
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  // Placing the rectangle on whole pixels moves it by up to half a pixel each way: that much stays free.
  const room = {
    width: Math.max(1, picture.width - Math.SQRT2),
    height: Math.max(1, picture.height - Math.SQRT2),
  };
  let width = Math.max(1, Math.floor(largestTurned(room, ratio, degrees)));
  let height = heightFor(width, ratio);
  let need = turned({ width, height }, degrees);
  while (width > 1 && (need.width > room.width || need.height > room.height)) {
    width -= 1;
    height = heightFor(width, ratio);
    need = turned({ width, height }, degrees);
  }
  // The centre, from the picture's middle in the picture's own directions, may move by what is left.
  const [slackX, slackY] = [
    Math.max(0, room.width - need.width) / 2,
    Math.max(0, room.height - need.height) / 2,
  ];
  const x = clamp((focal.x - 0.5) * picture.width, -slackX, slackX);
  const y = clamp((focal.y - 0.5) * picture.height, -slackY, slackY);
  const box = turnedBox(picture, degrees);
  const middle = { x: box.width / 2 + x * cos - y * sin, y: box.height / 2 + x * sin + y * cos };
  return {
    x: clamp(roundHalfUp(middle.x - width / 2), 0, box.width - width),
    y: clamp(roundHalfUp(middle.y - height / 2), 0, box.height - height),
    width,
    height,
  };
}
