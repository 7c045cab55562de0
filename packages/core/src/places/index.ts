// What the room offers to the others.
export * from './problem.ts';
export * from './places-file.ts';
