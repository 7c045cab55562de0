// The lists by trade and kind: good texts are left alone, faulty ones are found under their name.
import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { readTradeList, tradeScoreOf } from './trade-lists.ts';

/** The aims: parts of the texts that are judged rightly. */
const AIMS = { good: 0.97, faulty: 0.92 };

describe.each(['en', 'de'])('lists by trade and kind in %s', (language) => {
  test.each(Object.entries(AIMS))('%s ones', (kind, aim) => {
    const file = resolve(import.meta.dirname, 'lists', `${kind}.${language}.tsv`);
    const texts = readTradeList(readFileSync(file, 'utf8'), language);
    expect(texts.length).toBeGreaterThanOrEqual(200);
    expect(new Set(texts.map(({ trade }) => trade)).size).toBeGreaterThan(15);
    const { right, wrong } = tradeScoreOf(texts);
    // The texts that are judged wrongly stand in the message of a failure.
    expect({ reached: right >= aim, wrong }).toEqual({ reached: true, wrong: expect.any(Array) });
  });
});
