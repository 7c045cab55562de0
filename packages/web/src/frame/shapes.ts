// The shapes a photo is shown in, each with the first slot that asks for it.
import type { ShapeId, Slot, SlotShape } from '@dusky-otter/core/contract';

export interface ShapeUse {
  shape: ShapeId;
  slot: Slot;
  part: SlotShape;
  /** "Full-width hero 3:1". */
  label: string;
}

export function shapeUses(slots: readonly Slot[]): ShapeUse[] {
  const uses = new Map<ShapeId, ShapeUse>();
  for (const slot of slots) {
    for (const part of slot.shapes) {
      const { shape } = part;
      if (!uses.has(shape))
        uses.set(shape, { shape, slot, part, label: `${slot.name} ${shape === 'own' ? '' : shape}`.trim() });
    }
  }
  return [...uses.values()];
}
