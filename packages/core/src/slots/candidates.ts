// From a slot's width rule and the device table to the pixel widths that are worth making.
import type { DeviceClass, Size, Slot, SlotShape } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { roundHalfUp } from '../geometry/geometry.ts';
import { chosenWidth } from '../source/choice.ts';
import { MOST_DENSITY, PHONE, toldWidth } from './devices.ts';
import { kept } from './kept.ts';
import { fewestWidths, surplusOf, type WidthPlan } from './optimal-widths.ts';
import { hangsOnCrop, ruleFor, spanOf } from './slots.ts';

/** What one device asks of a slot: display width in CSS px, the density that counts, and pixels of the file. */
export interface Demand {
  device: DeviceClass;
  display: number;
  density: number;
  pixels: number;
  share: number;
}

/** A table may know no device for a shape; somebody will come with one: the nearest window, at 1× and at 2×. */
function imagined(part: SlotShape): DeviceClass[] {
  const viewport = Math.max(part.from, Math.min(PHONE.viewport, spanOf(part).to - 1));
  return [1, 2].map((density) => ({ name: 'any', viewport, density, share: 0.5 }));
}

function demandsAnew(
  slot: Slot,
  part: SlotShape,
  crop: Size,
  devices: readonly DeviceClass[],
  most: number,
): Demand[] {
  const rule = ruleFor(slot, part.shape, crop);
  const { from, to } = spanOf(part);
  const served = devices.filter((device) => device.viewport >= from && device.viewport < to);
  return (served.length > 0 ? served : imagined(part))
    .map((device) => {
      const display = widthAt(rule, device.viewport);
      const density = Math.min(most, device.density);
      const pixels = Math.max(1, Math.ceil(display * density - 1e-6));
      return { device, display, density, pixels, share: device.share };
    })
    .sort((a, b) => a.pixels - b.pixels);
}

/** What of a crop a slot's widths depend on: its size where the whole photo is fitted in, else nothing. */
const cropPart = (slot: Slot, crop: Size): string =>
  hangsOnCrop(slot) ? `${crop.width}x${crop.height}` : '';

const keptDemands = kept<Demand[]>();

/**
 * The demands of every device whose viewport this shape serves, smallest first. Found once for all photos that
 * share it.
 * @param most densities above it count as this one.
 */
export const demandsOf = (
  slot: Slot,
  part: SlotShape,
  crop: Size,
  devices: readonly DeviceClass[],
  most = MOST_DENSITY,
): readonly Demand[] =>
  keptDemands([slot, devices], `${part.shape} ${part.from} ${most} ${cropPart(slot, crop)}`, () =>
    demandsAnew(slot, part, crop, devices, most),
  );

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
export function sharpnessOf(
  slot: Slot,
  part: SlotShape,
  crop: Size,
  devices: readonly DeviceClass[],
): Sharpness {
  const demands = demandsOf(slot, part, crop, devices);
  const display = Math.max(0, ...demands.map((d) => roundHalfUp(d.display)));
  const retina = Math.max(display, ...demands.map((d) => d.pixels));
  const verdict = crop.width < display ? 'too-small' : crop.width < retina ? 'soft' : 'sharp';
  const missing =
    verdict === 'too-small' ? display - crop.width : verdict === 'soft' ? retina - crop.width : 0;
  return { display, retina, density: display ? crop.width / display : 0, verdict, missing };
}

/** Demands with no more pixels than the crop has: nothing is enlarged. */
const capped = (demands: readonly Demand[], crop: Size): Demand[] =>
  demands.map((demand) => ({ ...demand, pixels: Math.min(demand.pixels, crop.width) }));

/** In justified rows a picture is seldom narrower than this part of what it is at its row's highest. */
const LEAST_IN_ROW = 0.55;
/** Steps between the widths of a picture in justified rows: no screen is sent one that is much wider than it needs. */
const STEP_IN_ROWS = 1.4;

/**
 * Widths in equal steps, from what the least of the devices may need to what the most demanding one does: how wide a
 * picture in a justified row is seen hangs on its neighbours, and no demand says it.
 */
function evenSteps(demands: readonly Demand[]): WidthPlan {
  const most = Math.max(1, ...demands.map(({ pixels }) => pixels));
  const least = Math.max(1, Math.min(most, ...demands.map(({ pixels }) => pixels)) * LEAST_IN_ROW);
  const steps = Math.max(1, Math.ceil(Math.log(most / least) / Math.log(STEP_IN_ROWS) - 1e-9));
  const widths = Array.from({ length: steps + 1 }, (_, n) =>
    Math.ceil(least * (most / least) ** (n / steps) - 1e-6),
  );
  const each = [...new Set(widths)];
  return { widths: each, surplus: surplusOf(each, demands) };
}

const keptWidths = kept<WidthPlan>();

/**
 * Candidate pixel widths for one shape of a slot: the fewest, at most six, that send at most a tenth more pixels
 * than the devices of the table ask for; never above the crop's own width. Found once for all photos that share it.
 */
export function candidateWidths(
  slot: Slot,
  part: SlotShape,
  crop: Size,
  devices: readonly DeviceClass[],
  most = MOST_DENSITY,
): WidthPlan {
  const demands = demandsOf(slot, part, crop, devices, most);
  // A crop that is wider than any demand caps none: all such crops share their widths.
  const cap = Math.min(crop.width, demands.at(-1)?.pixels ?? crop.width);
  const key = `${part.shape} ${part.from} ${most} ${cap} ${cropPart(slot, crop)}`;
  const isJustified = slot.arranged?.options.kind === 'rows';
  return keptWidths([slot, devices], key, () =>
    isJustified ? evenSteps(capped(demands, crop)) : fewestWidths(capped(demands, crop)),
  );
}

/** Densities of variants are told apart in quarters, so that a moved crop rarely changes what a variant is. */
const DENSITY_STEP = 0.25;

/**
 * The density at which a candidate is looked at: the lowest among the devices that load it, for there its errors
 * are seen best. File px per CSS px, in quarters, 1 to 2.
 */
export function viewingDensity(width: number, widths: readonly number[], demands: readonly Demand[]): number {
  // As it is chosen at the device's own density, and as it was planned for.
  const loads = ({ device, display, density }: Demand): boolean =>
    chosenWidth(widths, toldWidth(display, device.density), device.density) === width ||
    chosenWidth(widths, display, density) === width;
  const displays = demands.filter(loads).map(({ display }) => display);
  // Loaded by no device of the table: by one that lies between them.
  const density = displays.length > 0 ? width / Math.max(...displays) : 1;
  return Math.min(2, Math.max(1, Math.floor(density / DENSITY_STEP + 1e-6) * DENSITY_STEP));
}
