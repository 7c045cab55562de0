// What is said at the foot of the screen, when more than one thing is.
import { describe, expect, test } from '@jest/globals';
import { MOST_FAILURES, withNotice, withoutNotice, type Notice } from './notices.ts';

const bad = (text: string): Notice => ({ text, tone: 'bad' });
const plain = (text: string): Notice => ({ text, tone: 'plain' });
const said = (...notices: Notice[]) =>
  notices.reduce<readonly Notice[]>(withNotice, []).map(({ text }) => text);

describe('several lines', () => {
  test('what went well replaces what went well before', () =>
    expect(said(plain('Saved'), plain('Taken back'))).toEqual(['Taken back']));

  test('what failed stays when something else went well, before or after it', () => {
    expect(said(bad('No JSON file'), plain('Taken back'))).toEqual(['No JSON file', 'Taken back']);
    expect(said(plain('Taken back'), bad('No JSON file'))).toEqual(['Taken back', 'No JSON file']);
  });

  test('each failure is said once, the newest last', () =>
    expect(said(bad('a'), bad('b'), bad('a'))).toEqual(['b', 'a']));

  test('a failure in the words of a plain line stands beside it', () =>
    expect(said(plain('a'), bad('a'))).toEqual(['a', 'a']));

  test('of very many failures the newest are said', () => {
    const many = Array.from({ length: MOST_FAILURES + 3 }, (_, n) => bad(String(n)));
    expect(said(...many)).toEqual(many.slice(3).map(({ text }) => text));
    expect(said(...many, plain('well'))).toHaveLength(MOST_FAILURES + 1);
  });

  test('one is put away, the others stay', () => {
    const [a, b] = [bad('a'), bad('b')];
    expect(withoutNotice([a, b], a)).toEqual([b]);
    expect(withoutNotice([b], a)).toEqual([b]);
  });
});
