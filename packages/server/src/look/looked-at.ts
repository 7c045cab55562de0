// What a codec process must know to show a crop of a photo.
import type { BitmapFormat, EncoderSettings, Photo, PlannedVariant } from '@dusky-otter/core/contract';
import { RenderError } from '../codec/task.ts';
import { ProblemError } from '../problems.ts';
import type { PreviewRenderer } from './preview-renderer.ts';
import type { Vault } from '../vault/vault.ts';

export function lookedAt(photo: Photo, { crop, settings }: PlannedVariant, vault: Vault) {
  const { mirrored, turns, angle } = photo.frame;
  return {
    path: vault.original(photo.original.hash),
    facts: photo.original,
    turning: { mirrored, turns, angle },
    frame: settings.frame ?? 0,
    background: settings.background ?? null,
    crop,
  };
}

/**
 * Bytes of a planned file in a format that is looked at, with settings of its own or others.
 * @throws RenderError; the signal's reason when nobody waits for it any more
 */
export const weighed = (
  photo: Photo,
  planned: PlannedVariant & { format: BitmapFormat },
  { previews, vault }: { previews: PreviewRenderer; vault: Vault },
  signal: AbortSignal,
  settings: EncoderSettings = planned.settings,
): Promise<number> => {
  const { width, height, format } = planned;
  const job = { kind: 'look' as const, ...lookedAt(photo, planned, vault), width, height, format, settings };
  return previews.weigh(job, signal);
};

/** What can't be made to be looked at is said as a problem. */
export const nothingToSee = (error: unknown): never => {
  throw error instanceof RenderError ? new ProblemError('nothing-to-see', error.message) : error;
};
