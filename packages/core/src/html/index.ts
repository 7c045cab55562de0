// What the room offers to the others.
export * from './html.ts';
export * from './link.ts';
export * from './phrases.ts';
export * from './address.ts';
export * from './passage.ts';
export * from './languages.ts';
export * from './film.ts';
