// The types that cross the wire between server and web, and that the core computes with. Plain data only.
export * from './geometry.ts';
export * from './photo.ts';
export * from './width.ts';
export * from './language.ts';
export * from './site.ts';
export * from './set.ts';
export * from './wire.ts';
export * from './measuring.ts';
export * from './arrangement.ts';
export * from './passage.ts';
export * from './page.ts';
export * from './channel.ts';
