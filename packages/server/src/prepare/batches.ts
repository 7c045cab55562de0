// Groups the variants that a photo wants so that one decode serves many: a batch is one crop of it.
import type { RenderJob } from '../codec/protocol.ts';
import type { Vault } from '../vault/vault.ts';
import type {
  Photo,
  PlanContext,
  PlannedVariant,
  Rect,
  SetPlaces,
  ShapeId,
} from '@dusky-otter/core/contract';
import { planPhoto } from '@dusky-otter/core/plan';

export interface Batch {
  photo: Photo;
  shape: ShapeId;
  crop: Rect;
  /** Its outputs are one frame of an animation. */
  still: boolean;
  frame: number;
  /** What it is laid on where it is transparent. */
  background: string | null;
  /** Each key once, equal sizes beside each other, smallest first: the row can show something soon. */
  outputs: PlannedVariant[];
}

/** What is decoded together: the same rectangle of the same frames, on the same ground. */
const sourceOf = ({ crop, settings: { still, frame, background } }: PlannedVariant): string =>
  [crop.x, crop.y, crop.width, crop.height, still ?? false, frame ?? 0, background ?? ''].join(' ');

/** All batches of a photo; each key is wanted once. */
export function batchesOf(
  photo: Photo,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots' | 'devices' | 'policy'>,
): Batch[] {
  const wanted = new Set<string>();
  const bySource = new Map<string, PlannedVariant[]>();
  for (const variant of planPhoto(photo, setPlaces, context)) {
    if (wanted.has(variant.key)) continue;
    wanted.add(variant.key);
    const source = sourceOf(variant);
    bySource.set(source, [...(bySource.get(source) ?? []), variant]);
  }
  return [...bySource.values()].map((variants) => {
    const outputs = [...variants].sort((a, b) => a.width - b.width || a.height - b.height);
    const { shape, crop, settings } = outputs[0]!;
    const { still = false, frame = 0, background = null } = settings;
    return { photo, shape, crop, still, frame, background, outputs };
  });
}

/** What a codec process is told to make some outputs of a batch. */
export function jobOf(batch: Batch, outputs: readonly PlannedVariant[], vault: Vault): RenderJob {
  const { photo, crop, still, frame, background } = batch;
  const { mirrored, turns, angle } = photo.frame;
  return {
    kind: 'render',
    path: vault.original(photo.original.hash),
    facts: photo.original,
    incoming: vault.incoming,
    turning: { mirrored, turns, angle },
    still,
    frame,
    background,
    crop,
    outputs: outputs.map((output) => ({ ...output, path: vault.variant(output.key, output.format) })),
  };
}
