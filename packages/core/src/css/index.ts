// What the room offers to the others.
export * from './errors.ts';
export * from './width-rule.ts';
export * from './length.ts';
export * from './media.ts';
export * from './fit.ts';
export * from './sizes.ts';
export * from './declared.ts';
export * from './drawing-styles.ts';
export { harmless, type HarmlessRules, type Readdress } from './harmless.ts';
