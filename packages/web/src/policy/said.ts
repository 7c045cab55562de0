// How a site's rules are said: the choices of each, and what visitors get.
import type { Policy, TargetName } from '@dusky-otter/core/contract';
import { TARGETS } from '@dusky-otter/core/weight';

export const MODERN_SAID: Record<Policy['modern'], string> = {
  avif: 'AVIF',
  webp: 'WebP',
  smaller: 'the smaller of AVIF and WebP',
  both: 'AVIF and WebP',
};

interface Choice<T> {
  value: T;
  name: string;
  /** What visitors get. */
  hint: string;
}

export const TARGET_CHOICES: readonly Choice<TargetName>[] = [
  {
    value: 'exacting',
    name: 'exacting',
    hint: `nothing to find, even for who compares; difference up to ${TARGETS.exacting}`,
  },
  { value: 'clean', name: 'clean', hint: `nothing to notice on a page; difference up to ${TARGETS.clean}` },
  {
    value: 'lean',
    name: 'lean',
    hint: `quicker pages; a trained eye finds traces; difference up to ${TARGETS.lean}`,
  },
];

export const MODERN_CHOICES: readonly Choice<Policy['modern']>[] = [
  { value: 'avif', name: 'AVIF', hint: 'mostly the fewest bytes; others get the JPEG or PNG' },
  { value: 'webp', name: 'WebP', hint: 'made faster, and read by browsers from before 2022' },
  {
    value: 'smaller',
    name: 'The smaller of the two',
    hint: 'for each picture what needs fewer bytes; both are made',
  },
  { value: 'both', name: 'Both', hint: 'the smaller one first, the other for browsers that read no better' },
];

export const DENSITY_CHOICES: readonly Choice<1 | 1.5 | 2>[] = [
  { value: 2, name: 'Up to 2×', hint: 'sharp on every phone and retina screen' },
  { value: 1.5, name: 'Up to 1.5×', hint: 'a little softer on phones, about half the pixels' },
  { value: 1, name: '1× alone', hint: 'soft on phones; a quarter of the pixels' },
];

export const METADATA_CHOICES: readonly Choice<NonNullable<Policy['metadata']>>[] = [
  { value: 'none', name: 'Nothing but the picture', hint: 'no camera, time, place or name is inside a file' },
  {
    value: 'credit',
    name: 'The credit',
    hint: 'who made a photo, as its words or its original say; never where it was taken',
  },
  {
    value: 'words',
    name: 'Its words and the credit',
    hint: 'alt text, description, title and caption too, for those who pass the file on; adds up to a few kB a file, which no weight here counts',
  },
];

export const ARRIVAL_CHOICES: readonly Choice<boolean>[] = [
  { value: true, name: 'Progressive', hint: 'a JPEG shows whole and blurred at first, and is smaller' },
  { value: false, name: 'From top to bottom', hint: 'for systems that read no progressive JPEG' },
];

export const COLOUR_CHOICES: readonly Choice<boolean>[] = [
  {
    value: false,
    name: 'As every screen shows them',
    hint: 'sRGB: the brightest reds and greens of a phone are a little calmer',
  },
  {
    value: true,
    name: 'Wide where a photo has them',
    hint: 'Display P3 in the modern format: fuller on newer screens, the same on others; the JPEG stays sRGB',
  },
];

export const THOROUGH_CHOICES: readonly Choice<boolean>[] = [
  {
    value: true,
    name: 'When there is time',
    hint: 'the same pictures in about a fifth fewer bytes, made while nobody waits',
  },
  { value: false, name: 'Only when asked', hint: 'files stay as they were made first' },
];

export const NAMING_CHOICES: readonly Choice<NonNullable<Policy['naming']>>[] = [
  {
    value: 'fingerprint',
    name: 'With a fingerprint',
    hint: 'a changed picture has a new name: nobody sees an old one from a cache',
  },
  {
    value: 'plain',
    name: 'Plain',
    hint: 'the same name for a changed picture: caches may show the old one for a while',
  },
];
