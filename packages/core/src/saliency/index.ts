// What the room offers to the others.
export * from './saliency.ts';
export * from './subject.ts';
export * from './doubt.ts';
