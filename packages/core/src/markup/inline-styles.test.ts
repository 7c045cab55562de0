// Styles of single elements, in the element or in a stylesheet.
import { expect, test } from '@jest/globals';
import { ElementStyles, styled } from './inline-styles.ts';

test('stand in the element, or as a class beside its own', () => {
  const own = new ElementStyles();
  expect(styled('--b0: 30%', undefined, 'a')).toEqual({ class: 'a', style: '--b0: 30%' });
  expect(styled(null, own.sink, 'a')).toEqual({ class: 'a', style: null });
  expect(styled('', own.sink)).toEqual({ class: null, style: null });
  const { class: name, style } = styled('--b0: 30%', own.sink, 'a');
  expect([name, style]).toEqual([expect.stringMatching(/^a dusky-s-[0-9a-f]{10}$/), null]);
  expect(own.rules).toBe(`.${name!.slice(2)} { --b0: 30%; }\n`);
});
test('the same are one rule, whichever came first', () => {
  const [one, other] = [new ElementStyles(), new ElementStyles()];
  for (const said of ['color: red', 'color: blue', 'color: red']) one.sink(said);
  for (const said of ['color: blue', 'color: red']) other.sink(said);
  expect(one.rules).toBe(other.rules);
  expect(one.rules.split('\n')).toHaveLength(3);
});
