// What the room offers to the others.
export * from './text/text.ts';
export * from './no-words.ts';
export * from './long-description.ts';
export * from './kept.ts';
export * from './translated.ts';
export * from './words-file.ts';
export * from './alike.ts';
export * from './packet.ts';
export * from './pattern.ts';
export * from './text/shown-text.ts';
export * from './checks/finding.ts';
export * from './data/languages.ts';
export * from './checks/repetition.ts';
export * from './checks.ts';
export * from './catalogue.ts';
export * from './score.ts';
export * from './filler.ts';
