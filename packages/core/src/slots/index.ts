// What the room offers to the others.
export * from './devices.ts';
export * from './slots.ts';
export * from './shipped.ts';
export * from './phrase.ts';
export * from './phrase-height.ts';
export * from './tallest.ts';
export * from './typed-width.ts';
export * from './budget.ts';
export * from './optimal-widths.ts';
export * from './candidates.ts';
export * from './density-words.ts';
