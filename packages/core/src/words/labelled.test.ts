// Precision and recall of every word check over the labelled alt texts.
import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { scoresOf, type LabelledAlt } from './score.ts';
import { WORD_CHECKS } from './catalogue.ts';

const texts = JSON.parse(
  readFileSync(resolve(import.meta.dirname, 'labelled-alts.json'), 'utf8'),
) as LabelledAlt[];
const scores = scoresOf(
  texts,
  WORD_CHECKS.map(({ code }) => code),
);

describe('labelled alt texts', () => {
  test('are at least 200, a good part of them without any fault', () => {
    expect(texts.length).toBeGreaterThanOrEqual(200);
    expect(texts.filter((text) => !text.codes).length).toBeGreaterThanOrEqual(60);
  });
  test.each(scores.map((score) => [score.code, score] as const))('%s', (_, score) => {
    expect(score.labelled).toBeGreaterThanOrEqual(5);
    // The texts that are judged wrongly stand in the message of a failure.
    const { precision, recall, wrong } = score;
    expect({ ok: precision >= 0.95 && recall >= 0.95, precision, recall, wrong }).toMatchObject({ ok: true });
  });
});
