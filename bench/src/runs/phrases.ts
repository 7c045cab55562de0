// Widths in words: how many of the kept list are understood as they are meant, those that nothing was fitted to apart, and
// what reading one costs.
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseSizes, widthAt } from '@dusky-otter/core/css';
import { readWidth } from '@dusky-otter/core/slots';
import { median, report, ROOT, rounded, type Figures } from '../report.ts';

interface Said {
  /** When it was written: before the grammar, or before another of its mends; "apart": after the last. */
  list: string;
  language: string;
  text: string;
  /** What it means, as CSS. */
  means: string;
}

const WINDOWS = [320, 390, 599, 700, 820, 1280, 1920];
const said = JSON.parse(
  await readFile(join(ROOT, 'packages/core/src/slots/said-widths.json'), 'utf8'),
) as Said[];

function outcome({ text, means }: Said): 'understood' | 'not known' | 'misread' {
  try {
    const { rule } = readWidth(text);
    const meant = parseSizes(means);
    const isSame = WINDOWS.every((window) => Math.abs(widthAt(rule, window) - widthAt(meant, window)) < 0.6);
    return isSame ? 'understood' : 'misread';
  } catch {
    return 'not known';
  }
}

const outcomes = said.map((one) => ({ ...one, outcome: outcome(one) }));
const count = (list: readonly (typeof outcomes)[number][], what: string) =>
  list.filter((one) => one.outcome === what).length;
const groups = [...new Set(said.map(({ list, language }) => `${list} ${language}`))];
const rows: Figures[] = groups.map((group) => {
  const list = outcomes.filter((one) => `${one.list} ${one.language}` === group);
  return {
    list: group,
    phrases: list.length,
    understood: count(list, 'understood'),
    'not known': count(list, 'not known'),
    misread: count(list, 'misread'),
  };
});
const times = Array.from({ length: 15 }, () => {
  const from = performance.now();
  for (const one of said) outcome(one);
  return (performance.now() - from) / said.length;
});
const apart = outcomes.filter(({ list }) => list === 'apart');
await report('phrases', 'widths in words, in English and German', rows, {
  phrases: said.length,
  understood: count(outcomes, 'understood'),
  misread: count(outcomes, 'misread'),
  'set apart: phrases': apart.length,
  'set apart: understood': count(apart, 'understood'),
  ms: rounded(median(times)),
});
