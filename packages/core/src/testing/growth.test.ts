// Every check, parser and writer of text on hostile strings: time grows no faster than length.
import { describe, expect, test } from '@jest/globals';
import type { Words } from '../contract/index.ts';
import { escapeCell, readCsv, writeCsv } from '../csv/csv.ts';
import { harmless } from '../css/harmless.ts';
import { parseLength } from '../css/length.ts';
import { parseMedia } from '../css/media.ts';
import { parseSizes } from '../css/sizes.ts';
import { prefixProblem } from '../html/address.ts';
import { escapeHtml, indent, tag } from '../html/html.ts';
import { figureMarkup } from '../markup/picture.ts';
import { slugOf, speakingNames, speakingSlug } from '../naming/naming.ts';
import { breakpointsIn, pathOf, wholeSheet } from '../pages/css-files.ts';
import { parseDevices } from '../slots/devices.ts';
import { readPhrase } from '../slots/phrase.ts';
import { readPlaces, slotIdFor } from '../places/places-file.ts';
import { withoutHeight } from '../slots/phrase-height.ts';
import { mendedWidth } from '../slots/typed-width.ts';
import { parseSrcset } from '../source/srcset.ts';
import { isPlaceholder, looksLikeFileName } from '../words/checks/absent.ts';
import { allCapitals, tooLong } from '../words/checks/form.ts';
import { saysClick } from '../words/checks/invitation.ts';
import { keywordList } from '../words/checks/keywords.ts';
import { otherLanguage } from '../words/checks/language.ts';
import { fileData, holdsAddress, holdsMarkup } from '../words/checks/left.ts';
import { imageOpening, opensWithImage } from '../words/checks/opening.ts';
import { repeatsNearby, sameAlts, saysTheSame } from '../words/checks/repetition.ts';
import { describesLook, functionalLook } from '../words/checks/role.ts';
import { fileName, missing, placeholderAlt } from '../words/checks/absent.ts';
import { checkWords } from '../words/checks.ts';
import { sayingsIn } from '../words/checks/sayings.ts';
import { hardlySays, onlyLook } from '../words/checks/substance.ts';
import { bookFor } from '../words/data/languages.ts';
import { blocksOf, descriptionAddress } from '../words/long-description.ts';
import { NO_WORDS } from '../words/no-words.ts';
import { plain, sounded, withoutEnding, wordsOf } from '../words/text/text.ts';
import { FASTER_THAN_LENGTH, growthOf, HOSTILE } from './growth.ts';
import { sampleRow, slotById } from './sample.ts';

const ENGLISH = bookFor('en');
const words = (text: string, role: Words['role'] = 'informative'): Words => ({
  ...NO_WORDS,
  role,
  alt: text,
  caption: text,
  title: text.slice(1),
  credit: text,
});
const AROUND = { language: 'en', says: sayingsIn('en'), book: ENGLISH, fileName: 'DSC00198.JPG' };
const row = sampleRow(['grid']);
/** The checks themselves, without the cap that `checkWords` puts on what they read. */
const CHECKS = {
  fileName,
  missing,
  holdsMarkup,
  holdsAddress,
  fileData,
  saysClick,
  otherLanguage,
  placeholderAlt,
  opensWithImage,
  functionalLook,
  repeatsNearby,
  tooLong,
  keywordList,
  allCapitals,
};

const READERS: Record<string, (text: string) => unknown> = {
  ...Object.fromEntries(
    Object.entries(CHECKS).map(([name, check]) => [
      `check ${name}`,
      // A link is not asked what a photo is.
      (text: string) =>
        check({
          ...AROUND,
          words: words(text, check === functionalLook ? 'functional' : 'informative'),
          nearby: [text],
          terms: [text, 'bowl'],
        }),
    ]),
  ),
  checkWords: (text) => checkWords(words(text), text, { nearby: [text], target: text }),
  isPlaceholder: (text) => isPlaceholder(text, ENGLISH),
  looksLikeFileName: (text) => looksLikeFileName(text, `${text}.jpg`),
  imageOpening: (text) => imageOpening(text, ENGLISH),
  saysTheSame: (text) => saysTheSame(text, `${text} again`, ENGLISH),
  sameAlts: (text) => sameAlts([1, 2].map((id) => ({ id, name: text, alt: text, decorative: false }))),
  describesLook: (text) => describesLook(text, ENGLISH, text),
  hardlySays: (text) => hardlySays({ ...AROUND, words: words(text) }),
  onlyLook: (text) => onlyLook({ ...AROUND, words: words(text), book: bookFor('de') }),
  blocksOf,
  descriptionAddress,
  plain,
  sounded,
  wordsOf,
  withoutEnding,
  slugOf: (text) => slugOf(text),
  speakingSlug: (text) => speakingSlug({ title: '', alt: text }, text),
  speakingNames: (text) =>
    speakingNames(new Map([[1, speakingSlug({ title: text, alt: text }, text)]]), { a: 1 }),
  readPhrase,
  mendedWidth,
  withoutHeight,
  readPlaces: (text) => readPlaces(text, []),
  slotIdFor: (text) => slotIdFor(text, []),
  wholeSheet: (text) => wholeSheet(text, 'a.css', { sheet: () => null, file: () => null }),
  breakpointsIn,
  harmless: (text) => harmless(text, { address: () => null }),
  pathOf: (text) => pathOf(text, text),
  prefixProblem,
  parseLength,
  parseMedia,
  parseSizes,
  parseSrcset,
  parseDevices,
  readCsv,
  writeCsv: (text) => writeCsv([[text, text]]),
  escapeCell,
  escapeHtml,
  indent: (text) => indent(text),
  tag: (text) => tag('img', { alt: text }),
  figureMarkup: (text) =>
    figureMarkup({
      row: { ...row, words: { ...words(text), longDescription: text } },
      slot: slotById('grid'),
      urlOf: () => 'a',
      first: false,
    }),
};

describe('on hostile strings of growing length', () => {
  test('the measure tells: squares and doubling are found, lengths are not', () => {
    const square = (text: string) => /\s+$/.test(text);
    // eslint-disable-next-line regexp/no-super-linear-backtracking -- it is there to be found
    const doubling = (text: string) => /^(?:\w+ ?)*$/.test(text);
    expect(growthOf(square, HOSTILE.spaces!).ratio).toBeGreaterThan(FASTER_THAN_LENGTH);
    expect(growthOf(doubling, (n) => `${'a'.repeat(n)}!`).stuckAt).toBeLessThan(200);
    expect(growthOf((text) => text.split(' '), HOSTILE.words!).ratio).toBeLessThan(FASTER_THAN_LENGTH);
  });
  test.each(Object.entries(READERS))('%s takes no longer than the length asks for', (_, read) => {
    const tooFast = Object.entries(HOSTILE)
      .map(([name, hostile]) => ({ name, ...growthOf(read, hostile) }))
      .filter(({ ratio, stuckAt }) => stuckAt !== null || ratio > FASTER_THAN_LENGTH);
    expect(tooFast).toEqual([]);
  });
});
