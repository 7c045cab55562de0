// Visible targets by name.
import type { Policy, TargetName } from '../contract/index.ts';

/** Largest visible difference D that each target allows (1: found by a trained eye; 2 to 3: unnoticed on a page). */
export const TARGETS: Record<TargetName, number> = { exacting: 1.3, clean: 2, lean: 3 };

export const TARGET_NAMES = Object.keys(TARGETS) as TargetName[];

/** A site's policy before anyone has changed it. */
export const DEFAULT_POLICY: Policy = { modern: 'avif', target: 'clean' };

/** A policy with every part said: one that leaves a part out means what stands here. */
export const wholePolicy = (policy: Policy): Required<Policy> => ({
  thorough: true,
  density: 2,
  metadata: 'none',
  progressive: true,
  wideColours: false,
  naming: 'fingerprint',
  prefix: '',
  ...policy,
});
