// What the room offers to the others.
export * from './csv.ts';
