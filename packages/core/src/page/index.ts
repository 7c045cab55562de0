// What the room offers to the others.
export * from './limits.ts';
export * from './page.ts';
export * from './template.ts';
export * from './everywhere.ts';
export * from './texts.ts';
export * from './from-below.ts';
