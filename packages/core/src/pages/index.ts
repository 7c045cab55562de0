// What the room offers to the others.
export * from './measured.ts';
export * from './proposals.ts';
export * from './css-files.ts';
export * from './placeholder.ts';
