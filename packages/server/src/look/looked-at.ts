// What a codec process must know to show a crop of a photo.
import type { Photo, PlannedVariant } from '@dusky-otter/core';
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
