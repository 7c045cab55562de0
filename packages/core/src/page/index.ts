// What the room offers to the others.
export * from './page.ts';
export * from './template.ts';
