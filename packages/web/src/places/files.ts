// The files that a place makes of a photo that is large enough: widths, surplus, and what each device is sent.
import type { DeviceClass, Slot, SlotShape } from '@dusky-otter/core/contract';
import { ratioOf } from '@dusky-otter/core/geometry';
import { bestWidths, candidateWidths, demandsOf, type Demand, type WidthPlan } from '@dusky-otter/core/slots';

export interface ShapeFiles {
  part: SlotShape;
  plan: WidthPlan;
  demands: readonly Demand[];
  /** The best that one width, two, three … can do. */
  tries: WidthPlan[];
}

const LARGE = 8000;

export function filesOf(slot: Slot, devices: readonly DeviceClass[]): ShapeFiles[] {
  return slot.shapes.map((part) => {
    const crop = { width: LARGE, height: LARGE / ratioOf(part.shape, { width: 3, height: 2 }) };
    const demands = demandsOf(slot, part, crop, devices);
    return {
      part,
      plan: candidateWidths(slot, part, crop, devices),
      demands,
      tries: bestWidths(demands, 6),
    };
  });
}

/** Surplus of all shapes together, weighed by the visits that see each. */
export function surplusIn(files: readonly ShapeFiles[]): number {
  const visits = ({ demands }: ShapeFiles) => demands.reduce((sum, { share }) => sum + share, 0);
  const all = files.reduce((sum, one) => sum + visits(one), 0);
  return all === 0 ? 0 : files.reduce((sum, one) => sum + one.plan.surplus * visits(one), 0) / all;
}

export const countOf = (files: readonly ShapeFiles[]): number =>
  files.reduce((sum, { plan }) => sum + plan.widths.length, 0);
