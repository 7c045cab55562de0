// Word checks: precision and recall on the labelled alt texts, and the time for a page of 2,000 photos.
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  checkWords,
  readTradeList,
  sameAlts,
  scoresOf,
  tradeScoreOf,
  WORD_CHECKS,
  wordsOfLabelled,
  type LabelledAlt,
} from '@dusky-otter/core/words';
import { median, report, ROOT, rounded, type Figures } from '../report.ts';

const PHOTOS = 2000;
const LISTS = { English: 'labelled-alts.json', German: 'labelled-alts.de.json' };
const lists = await Promise.all(
  Object.entries(LISTS).map(async ([language, file]) => ({
    language,
    texts: JSON.parse(await readFile(join(ROOT, 'packages/core/src/words', file), 'utf8')) as LabelledAlt[],
  })),
);
const texts = lists[0]!.texts;

/** A page of the labelled texts again and again, every second one with a mark of its own. */
const page = Array.from({ length: PHOTOS }, (_, id) => {
  const text = texts[id % texts.length]!;
  const alt = id % 2 && text.alt ? `${text.alt} (${id})` : text.alt;
  const words = wordsOfLabelled({ ...text, alt });
  return { id, words, fileName: text.file ?? `DSC0${id}.JPG`, nearby: text.nearby ?? [] };
});

function checkPage(): number {
  const same = sameAlts(
    page.map(({ id, words, fileName }) => ({
      id,
      name: fileName,
      alt: words.alt,
      decorative: words.role === 'decorative',
    })),
  );
  return page.reduce(
    (sum, { id, words, fileName, nearby }) =>
      sum + checkWords(words, fileName, { nearby, sameAs: same.get(id) ?? [] }).length,
    0,
  );
}

const times = Array.from({ length: 15 }, () => {
  const from = performance.now();
  checkPage();
  return performance.now() - from;
});
const rows: Figures[] = lists.flatMap(({ language, texts: labelled }) =>
  scoresOf(
    labelled,
    WORD_CHECKS.map(({ code }) => code),
  ).map(({ code, labelled: all, found, precision, recall }) => ({
    language,
    code,
    labelled: all,
    found,
    precision: rounded(precision),
    recall: rounded(recall),
  })),
);
/** The lists by trade and kind: parts of the good texts that are left alone, and of the faulty ones found under their name. */
const byTrade = await Promise.all(
  ['en', 'de'].flatMap((language) =>
    ['good', 'faulty'].map(async (kind) => {
      const file = join(ROOT, 'packages/core/src/words/lists', `${kind}.${language}.tsv`);
      const { texts: count, right } = tradeScoreOf(readTradeList(await readFile(file, 'utf8'), language));
      return [`${count} ${kind} ones by trade, ${language}: right`, rounded(right, 3)] as const;
    }),
  ),
);
const counted = lists.map(({ language, texts: own }) => `${own.length} in ${language}`).join(', ');
await report('words', `precision and recall on labelled alt texts: ${counted}`, rows, {
  photos: PHOTOS,
  findings: checkPage(),
  'ms the first time': Math.round(times[0]!),
  'ms, median of 15': rounded(median(times), 1),
  ...Object.fromEntries(byTrade),
  'aim for good ones': 0.97,
  'aim for faulty ones': 0.92,
});
