// From a slot's width rule and the device table to the pixel widths that are worth making.
import type { ShapeId, Size } from '../contract/index.ts';
import { roundHalfUp } from '../geometry/geometry.ts';
import { countedDensity, DEFAULT_DEVICES, type DeviceClass } from './devices.ts';
import { ruleFor, type Slot, type SlotShape } from './slots.ts';
import { widthAt } from './width-rule.ts';

/** What one device asks of a slot: display width in CSS px and pixels of the file. */
export interface Demand {
  device: DeviceClass;
  display: number;
  pixels: number;
}

/** The demands of every device whose viewport this shape serves, smallest first. */
export function demandsOf(
  slot: Slot,
  part: SlotShape,
  crop: Size,
  devices: readonly DeviceClass[] = DEFAULT_DEVICES,
): Demand[] {
  const rule = ruleFor(slot, part.shape, crop);
  return devices
    .filter((device) => device.viewport >= part.from && device.viewport < part.to)
    .map((device) => {
      const display = widthAt(rule, device.viewport);
      return { device, display, pixels: Math.ceil(display * countedDensity(device.density) - 1e-6) };
    })
    .sort((a, b) => a.pixels - b.pixels);
}

/** Pixels that 1× and 2× need at most, and how far a crop falls short of them. All in px of width. */
export interface Sharpness {
  display: number;
  retina: number;
  /** Crop width ÷ largest display width. */
  density: number;
  verdict: 'sharp' | 'soft' | 'too-small';
  /** Pixels that are missing for the verdict "sharp" (soft) or for 1× (too small); 0 when sharp. */
  missing: number;
}

/** Judges a crop: fewer pixels than 1× needs is "too small", fewer than 2× needs is "soft" on retina. */
export function sharpnessOf(slot: Slot, part: SlotShape, crop: Size): Sharpness {
  const demands = demandsOf(slot, part, crop);
  const display = Math.max(0, ...demands.map((d) => roundHalfUp(d.display)));
  const retina = Math.max(display, ...demands.map((d) => d.pixels));
  const verdict = crop.width < display ? 'too-small' : crop.width < retina ? 'soft' : 'sharp';
  const missing =
    verdict === 'too-small' ? display - crop.width : verdict === 'soft' ? retina - crop.width : 0;
  return { display, retina, density: display ? crop.width / display : 0, verdict, missing };
}

/** Widths closer than this share one file: a step smaller saves too few bytes to be worth a file. */
const STEP = 0.8;
const MOST = 6;

/**
 * Candidate pixel widths for one shape of a slot, ascending: from the largest demand downward, keeping
 * a demand when it is at most 0.8 of the last one kept; at most 6; never above the crop's own width.
 */
export function candidateWidths(
  slot: Slot,
  part: { shape: ShapeId; from: number; to: number },
  crop: Size,
): number[] {
  const wanted = demandsOf(slot, part, crop).map((d) => Math.min(d.pixels, crop.width));
  const pick = (step: number): number[] => {
    const kept: number[] = [];
    for (const width of [...wanted].reverse()) {
      const last = kept.at(-1);
      if (last === undefined || width <= last * step) kept.push(width);
    }
    return kept;
  };
  let step = STEP;
  let kept = pick(step);
  while (kept.length > MOST) kept = pick((step *= 0.95));
  return kept.reverse();
}

/**
 * The candidate a browser loads: the smallest at least as dense as the screen, else the largest.
 * `display` in CSS px, `density` in device px per CSS px.
 */
export function chosenWidth(widths: readonly number[], display: number, density: number): number | null {
  const ascending = [...widths].sort((a, b) => a - b);
  return ascending.find((w) => w >= display * density - 1e-6) ?? ascending.at(-1) ?? null;
}
