// What the room offers to the others.
export * from './page-limit.ts';
export * from './weight.ts';
export * from './readiness.ts';
export * from './standing.ts';
