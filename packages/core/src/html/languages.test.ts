// Texts in several languages: which one is shown, how it is marked, and what may be sent as one.
import { describe, expect, test } from '@jest/globals';
import type { Passage } from '../contract/index.ts';
import {
  isBlank,
  lineProblem,
  marked,
  othersProblem,
  phraseMarkup,
  saidIn,
  spokenMarkup,
  textsProblem,
} from './languages.ts';

const passage = (text: string): Passage => [{ kind: 'paragraph', runs: [{ text }] }];

describe('what is said', () => {
  const german = { language: 'de', main: 'en' };
  test('is the language’s own; the first one’s where nobody wrote it', () => {
    expect(saidIn('Pots', 'Töpfe', german)).toEqual({ text: 'Töpfe', language: 'de' });
    expect(saidIn('Pots', ' ', german)).toEqual({ text: 'Pots', language: 'en' });
    expect(saidIn('Pots', undefined, german)).toEqual({ text: 'Pots', language: 'en' });
    expect(saidIn(passage('Pots'), passage(' '), german).language).toBe('en');
    expect(saidIn('Pots', 'Töpfe', { language: 'en', main: 'en' }).text).toBe('Pots');
  });
  test('is marked where it is another language, with its direction where that turns', () => {
    expect(marked('de', 'de')).toEqual({ lang: null, dir: null });
    expect(marked('en', 'de')).toEqual({ lang: 'en', dir: null });
    expect(marked('en', 'ar')).toEqual({ lang: 'en', dir: 'ltr' });
    expect(marked('ar', 'en')).toEqual({ lang: 'ar', dir: 'rtl' });
    expect(spokenMarkup({ text: 'Pots & jugs', language: 'de' }, 'de')).toBe('Pots &amp; jugs');
    expect(spokenMarkup({ text: 'Pots & jugs', language: 'en' }, 'de')).toBe(
      '<span lang="en">Pots &amp; jugs</span>',
    );
  });
  test('stands marked within a phrase of the page’s language', () => {
    const all = (of: string) => `Alles aus “${of}” & mehr`;
    expect(phraseMarkup(all, { text: '<$&>', language: 'en' }, 'de')).toBe(
      'Alles aus “<span lang="en">&lt;$&amp;&gt;</span>” &amp; mehr',
    );
  });
  test('nothing is said by blanks, and by passages of them', () => {
    expect([isBlank(undefined), isBlank(' \n'), isBlank([]), isBlank(passage(' '))]).toEqual(
      Array(4).fill(true),
    );
    expect([isBlank('a'), isBlank(passage('a'))]).toEqual([false, false]);
  });
});

describe('what is sent', () => {
  const line = lineProblem(10);
  test.each([
    [undefined, null],
    [{ de: 'Töpfe', 'pt-BR': 'Potes' }, null],
    [null, /named by them/],
    [['de'], /named by them/],
    ['de', /named by them/],
    [{ de: 'x'.repeat(11) }, /up to 10/],
    [{ de: 3 }, /up to 10/],
    [{ 'de<script>': 'a' }, /written like/],
    [JSON.parse('{"__proto__":"a"}'), /written like/],
    [{ '': 'a' }, /written like/],
    [Object.fromEntries(Array.from({ length: 51 }, (_, n) => [`a${n}`.padEnd(4, 'b'), 'a'])), /up to 50/],
  ])('%j', (others, wanted) => {
    const problem = othersProblem(others, line);
    if (wanted === null) expect(problem).toBeNull();
    else expect(problem).toMatch(wanted);
  });
  test('several texts are judged by their names', () => {
    const texts = textsProblem({ title: line });
    expect([texts({}), texts({ title: 'Pots' })]).toEqual([null, null]);
    expect(texts({ title: 1 })).toMatch(/up to 10/);
    expect(texts({ constructor: 'a' })).toMatch(/no text called/);
    expect([texts(null), texts([]), texts('a')].every((problem) => problem !== null)).toBe(true);
  });
});
