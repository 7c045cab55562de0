// Languages as people call them, and as pages write them.
import { describe, expect, test } from '@jest/globals';
import { languageFrom, languageName, languagesProblem, namedLanguages } from './language-tags.ts';

describe('a language', () => {
  test.each([
    ...[
      ['German', 'de'],
      ['german ', 'de'],
      ['Deutsch', 'de'],
      ['français', 'fr'],
    ],
    ...[
      ['de', 'de'],
      ['DE', 'de'],
      ['pt-br', 'pt-BR'],
      ['Brazilian Portuguese', 'pt-BR'],
    ],
    ...[
      ['Arabic', 'ar'],
      ['zh-hant', 'zh-Hant'],
      ['gsw', 'gsw'],
    ],
  ])('%s is %s', (text, tag) => {
    expect(languageFrom(text)).toBe(tag);
  });
  test.each(['', '  ', 'not a language!', 'germanic', 'klatschian', 'x', '<b>', 'de_'])(
    '%j is none',
    (text) => {
      expect(languageFrom(text)).toBeNull();
    },
  );
  test('whatever is found may stand in a site', () => {
    for (const [name, tag] of namedLanguages()) {
      expect(languageFrom(name)).toBe(tag);
      expect(languagesProblem([tag], [])).toBeNull();
    }
    expect(namedLanguages().size).toBeGreaterThan(150);
  });
  test('a name of a language is no tag of one', () => {
    expect(languagesProblem(['en', 'german'], ['en'])).toContain('no language');
    expect(languageName('de')).toBe('German');
    expect(languageName('not a tag')).toBe('not a tag');
  });
});
