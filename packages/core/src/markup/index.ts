// What the room offers to the others.
export * from './arranged/arranged.ts';
export { isPoster } from './arranged/links.ts';
export * from './arranged/styles.ts';
export * from './styles.ts';
export { ElementStyles, type StyleSink } from './inline-styles.ts';
export * from './picture.ts';
export type { PageOptions } from './pages/options.ts';
export * from './pages/page.ts';
export * from './pages/own-page.ts';
export * from './pages/gallery-page.ts';
export * from './passage.ts';
export * from './designs.ts';
export * from './manifest.ts';
