// How sharp a photo is where it goes: by its pixels, unless it goes out as a drawing.
import type { DeviceClass, Photo, Rect, Slot, SlotShape } from '../contract/index.ts';
import { sharpnessOf, type Sharpness } from '../slots/candidates.ts';
import { densityInWords } from '../slots/density-words.ts';
import { isDrawingIn } from './plan.ts';

type Sent = Pick<Photo, 'original' | 'quality'>;

/** Judges a crop of a photo in a slot, see `sharpnessOf`; a drawing has as many pixels as are wanted. */
export function sharpnessIn(
  photo: Sent,
  slot: Slot,
  part: SlotShape,
  crop: Rect,
  devices: readonly DeviceClass[],
): Sharpness {
  const sharp = sharpnessOf(slot, part, crop, devices);
  return isDrawingIn(photo, slot.id) ? { ...sharp, verdict: 'sharp', missing: 0 } : sharp;
}

/** The same in words, see `densityInWords`. */
export const sharpnessInWords = (
  photo: Sent,
  slot: Slot,
  part: SlotShape,
  crop: Rect,
  devices: readonly DeviceClass[],
): string =>
  isDrawingIn(photo, slot.id)
    ? 'Sharp on every screen: a drawing'
    : densityInWords(slot, part, crop, devices).sentence;
