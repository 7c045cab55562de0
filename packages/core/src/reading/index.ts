// What the room offers to the others.
export * from './whole-set.ts';
export * from './first-places.ts';
