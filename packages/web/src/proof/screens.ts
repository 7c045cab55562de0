// The screens that pages and arrangements are looked at on.

export const SCREENS = [
  { name: 'Phone', width: 390, height: 1000 },
  { name: 'Tablet', width: 820, height: 1100 },
  { name: 'Laptop', width: 1280, height: 1100 },
  { name: 'Wide', width: 1920, height: 1300 },
] as const;

export type ProofScreen = (typeof SCREENS)[number];
