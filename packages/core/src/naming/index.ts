// What the room offers to the others.
export * from './folders.ts';
export * from './naming.ts';
export * from './delivered.ts';
