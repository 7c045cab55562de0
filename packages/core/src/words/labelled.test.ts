// Precision and recall of every word check over the labelled alt texts.
import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { scoresOf, type LabelledAlt } from './score.ts';
import { WORD_CHECKS } from './catalogue.ts';

const LISTS = [
  { name: 'English', file: 'labelled-alts.json', texts: 300, sound: 100 },
  { name: 'German', file: 'labelled-alts.de.json', texts: 150, sound: 50 },
];

describe.each(LISTS)('labelled alt texts in $name', ({ file, texts: least, sound }) => {
  const texts = JSON.parse(readFileSync(resolve(import.meta.dirname, file), 'utf8')) as LabelledAlt[];
  const scores = scoresOf(
    texts,
    WORD_CHECKS.map(({ code }) => code),
  );
  test('are many, a good part of them without any fault', () => {
    expect(texts.length).toBeGreaterThanOrEqual(least);
    expect(texts.filter((text) => !text.codes).length).toBeGreaterThanOrEqual(sound);
  });
  /** Judged by the lists by trade and kind; in these, which are older, nothing has them. */
  const ELSEWHERE = ['holds-markup', 'holds-address', 'file-data', 'says-click', 'other-language'];
  test.each(ELSEWHERE)('%s alarms nobody', (code) => {
    expect(scores.find((score) => score.code === code)!.wrong).toEqual([]);
  });
  const own = scores.filter((score) => !ELSEWHERE.includes(score.code));
  test.each(own.map((score) => [score.code, score] as const))('%s', (code, score) => {
    expect(score.labelled).toBeGreaterThanOrEqual(code === 'missing' ? 2 : 5);
    // The texts that are judged wrongly stand in the message of a failure.
    const { precision, recall, wrong } = score;
    expect({ good: precision >= 0.95 && recall >= 0.95, wrong }).toEqual({
      good: true,
      wrong: expect.any(Array),
    });
  });
});
