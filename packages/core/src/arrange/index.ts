// What the room offers to the others.
export * from './cells.ts';
export * from './justify.ts';
export * from './options.ts';
export * from './contrast.ts';
export * from './order.ts';
export * from './row-widths.ts';
