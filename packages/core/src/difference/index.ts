// What the room offers to the others.
export * from './opponent.ts';
export * from './model.ts';
export * from './visible-difference.ts';
export * from './spots.ts';
export * from './windows.ts';
export * from './masking.ts';
export * from './pooling.ts';
export * from './reduce.ts';
