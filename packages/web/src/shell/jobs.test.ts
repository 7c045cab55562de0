// The jobs: found by the words that people use, and the guide says the same.
import { describe, expect, test } from '@jest/globals';
import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { guideOf, JOBS } from './jobs.ts';
import { matchOf } from './matching.ts';

const GUIDE = resolve(import.meta.dirname, '../../../../docs/guide.md');

const best = (search: string): string | undefined =>
  JOBS.map(({ name, also }) => ({ name, fit: matchOf(`${name} ${also}`, search) }))
    .filter(({ fit }) => fit > 0)
    .sort((a, b) => b.fit - a.fit)[0]?.name;

describe('jobs', () => {
  test.each([
    ['straighten a photo', 'Straighten a photo'],
    ['how do I straighten this', 'Straighten a photo'],
    ['make a gallery of twelve a page', 'Make a gallery of twelve a page'],
    ['why is this one too heavy', 'Why is this photo too heavy?'],
    ['publish', 'Publish: take files and pages away'],
    ['German', 'Write in several languages'],
    ['language', 'Write in several languages'],
    ['slider', 'Make a hero or a rotating banner'],
    ['lazy loading', 'Load photos only when they are needed'],
    ['crooked horizon', 'Straighten a photo'],
    ['spreadsheet', 'Take words from a spreadsheet'],
    ['face cut off', 'Keep the subject in every crop'],
    ['restore deleted photos', 'Get back what I changed or threw away'],
  ])('%j finds “%s”', (search, name) => expect(best(search)).toBe(name));
  test('what nobody does finds none', () => expect(best('zzyzx')).toBeUndefined());
  test('are two dozen, each of a few steps', () => {
    expect(JOBS.length).toBeGreaterThanOrEqual(24);
    expect(new Set(JOBS.map(({ name }) => name)).size).toBe(JOBS.length);
    for (const { steps } of JOBS) expect(steps.length).toBeLessThanOrEqual(4);
  });
  test('the guide says the same; it is written anew with WRITE_GUIDE=1', () => {
    if (process.env.WRITE_GUIDE) writeFileSync(GUIDE, guideOf(JOBS));
    expect(readFileSync(GUIDE, 'utf8')).toBe(guideOf(JOBS));
  });
});

describe('matching', () => {
  test('case, accents and other forms of a word count for nothing', () => {
    expect(matchOf('Café at dusk', 'CAFE')).toBe(1);
    expect(matchOf('Straighten a photo', 'straightening')).toBeGreaterThan(0.8);
    expect(matchOf('Add photos', 'gallery')).toBe(0);
  });
  test('every word of two must be found', () => expect(matchOf('Add photos', 'add gallery')).toBe(0));
});
