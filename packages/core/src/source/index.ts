// What the room offers to the others.
export * from './srcset.ts';
export * from './choice.ts';
