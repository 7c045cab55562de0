// What the room offers to the others.
export * from './target.ts';
export * from './content.ts';
export * from './gamut.ts';
export * from './kind.ts';
export * from './format.ts';
export * from './decision-words.ts';
export * from './curves.ts';
export * from './recipes.ts';
export * from './search.ts';
export * from './prediction.ts';
export * from './variant-search.ts';
export * from './thorough-search.ts';
export * from './served.ts';
export * from './point-ladder.ts';
export * from './units.ts';
export * from './hull.ts';
export * from './page-budget.ts';
