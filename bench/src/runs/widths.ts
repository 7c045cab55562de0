// Expected surplus pixels of the candidate widths beside two plain lists of the same length.
import { cover, ratioOf } from '@dusky-otter/core/geometry';
import {
  candidateWidths,
  DEFAULT_DEVICES,
  demandsOf,
  SHIPPED_SLOTS,
  surplusOf,
  toldWidth,
  type Demand,
} from '@dusky-otter/core/slots';
import { chosenWidth } from '@dusky-otter/core/source';
import { report, type Figures } from '../report.ts';

const PHOTO = { width: 6000, height: 4000 };
const percent = (share: number): number => Math.round(share * 1000) / 10;

/** Largest width, its half, the half of that, and so on. */
const doubling = (most: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => Math.ceil(most / 2 ** (count - 1 - i)));

/** Equal steps from the smallest demand to the largest. */
const equalSteps = (least: number, most: number, count: number): number[] =>
  count === 1
    ? [most]
    : Array.from({ length: count }, (_, i) => Math.ceil(least + ((most - least) * i) / (count - 1)));

/** Surplus of what browsers load, which go by the device's own density and by what `sizes` tells it. */
function asLoaded(widths: readonly number[], demands: readonly Demand[]): number {
  const area = (pixels: number): number => pixels * pixels;
  const sent = demands.reduce(
    (sum, { display, device, share }) =>
      sum + share * area(chosenWidth(widths, toldWidth(display, device.density), device.density)!),
    0,
  );
  const asked = demands.reduce((sum, { pixels, share }) => sum + share * area(pixels), 0);
  return sent / asked - 1;
}

const rows: Figures[] = [];
const sums = { optimised: 0, doubling: 0, 'equal steps': 0 };
for (const slot of SHIPPED_SLOTS) {
  for (const part of slot.shapes) {
    const crop = cover(PHOTO, ratioOf(part.shape, PHOTO), { x: 0.5, y: 0.5 });
    const demands = demandsOf(slot, part, crop, DEFAULT_DEVICES);
    const { widths, surplus } = candidateWidths(slot, part, crop, DEFAULT_DEVICES);
    const [least, most] = [demands[0]!.pixels, demands.at(-1)!.pixels];
    const plain = {
      doubling: doubling(most, widths.length),
      'equal steps': equalSteps(least, most, widths.length),
    };
    const surpluses = {
      doubling: surplusOf(plain.doubling, demands),
      'equal steps': surplusOf(plain['equal steps'], demands),
    };
    sums.optimised += surplus;
    sums.doubling += surpluses.doubling;
    sums['equal steps'] += surpluses['equal steps'];
    rows.push({
      slot: slot.id,
      shape: part.shape,
      widths: widths.join(' '),
      '% surplus': percent(surplus),
      '% doubling': percent(surpluses.doubling),
      '% equal steps': percent(surpluses['equal steps']),
      '% as browsers load': percent(asLoaded(widths, demands)),
    });
  }
}
await report(
  'widths',
  'expected surplus pixels, in per cent of the pixels asked for (densities above 2 count as 2)',
  rows,
  Object.fromEntries(
    Object.entries(sums).map(([name, sum]) => [`mean % ${name}`, percent(sum / rows.length)]),
  ),
);
