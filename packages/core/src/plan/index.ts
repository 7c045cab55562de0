// What the room offers to the others.
export * from './keys.ts';
export * from './plan.ts';
export * from './set-places.ts';
export * from './plans-alike.ts';
export * from './sharpness.ts';
export * from './replacement.ts';
export * from './ways-out.ts';
export * from './films.ts';
