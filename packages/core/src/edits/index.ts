// What the room offers to the others.
export * from './commands.ts';
export * from './apply.ts';
export * from './touched.ts';
export * from './positions.ts';
