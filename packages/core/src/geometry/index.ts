// What the room offers to the others.
export * from './geometry.ts';
export * from './straighten.ts';
export * from './frame.ts';
export * from './copy-frame.ts';
export * from './replace.ts';
export * from './tilt.ts';
