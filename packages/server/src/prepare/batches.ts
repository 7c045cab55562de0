// Groups wanted variants so that one decode serves many: a batch is a photo and one crop of it.
import {
  planPhoto,
  type Photo,
  type PlannedVariant,
  type Policy,
  type Rect,
  type ShapeId,
  type SlotId,
} from '@dusky-otter/core';

export interface Batch {
  photo: Photo;
  shape: ShapeId;
  crop: Rect;
  /** Each key once, equal sizes beside each other, smallest first: the row can show something soon. */
  outputs: PlannedVariant[];
}

/** All batches of a set's photos in order, and the keys they want. */
export function batchesOf(
  photos: readonly Photo[],
  setSlots: readonly SlotId[],
  policy: Policy,
): { batches: Batch[]; wanted: Set<string> } {
  const wanted = new Set<string>();
  const batches: Batch[] = [];
  for (const photo of photos) {
    const byShape = new Map<ShapeId, PlannedVariant[]>();
    for (const variant of planPhoto(photo, setSlots, policy)) {
      if (wanted.has(variant.key)) continue;
      wanted.add(variant.key);
      byShape.set(variant.shape, [...(byShape.get(variant.shape) ?? []), variant]);
    }
    for (const [shape, variants] of byShape) {
      const outputs = [...variants].sort((a, b) => a.width - b.width || a.height - b.height);
      batches.push({ photo, shape, crop: outputs[0]!.crop, outputs });
    }
  }
  return { batches, wanted };
}
