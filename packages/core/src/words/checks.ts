// Checks of a photo's words: each says what is wrong, why it matters to a visitor, and offers a mend.
import type { Language, OriginalFacts, Words } from '../contract/index.ts';
import { fileName, missing, placeholderAlt } from './checks/absent.ts';
import type { WordContext, WordFinding } from './checks/finding.ts';
import { allCapitals, tooLong } from './checks/form.ts';
import { saysClick } from './checks/invitation.ts';
import { keywordList } from './checks/keywords.ts';
import { otherLanguage } from './checks/language.ts';
import { fileData, holdsAddress, holdsMarkup } from './checks/left.ts';
import { opensWithImage } from './checks/opening.ts';
import { repeatsNearby, sameAlt } from './checks/repetition.ts';
import { decorativeWithAlt, functionalLook, noRole } from './checks/role.ts';
import { sayingsIn } from './checks/sayings.ts';
import { textNotCarried } from './checks/shown.ts';
import { hardlySays, onlyLook } from './checks/substance.ts';
import { primaryOf } from '../html/phrases.ts';
import { bookFor } from './data/languages.ts';
import { READ_BY_CHECKS } from './text/text.ts';

/** The first of these that finds something speaks alone: there are no words yet to say more about. */
const WHETHER = [
  missing,
  holdsMarkup,
  fileData,
  fileName,
  holdsAddress,
  saysClick,
  placeholderAlt,
  otherLanguage,
];
const HOW = [
  opensWithImage,
  functionalLook,
  repeatsNearby,
  tooLong,
  keywordList,
  allCapitals,
  onlyLook,
  hardlySays,
];

/** What checks read: texts from files and imports can be of any length. */
function readPart(words: Words): Words {
  const cut = (text: string) => text.slice(0, READ_BY_CHECKS);
  return {
    ...words,
    alt: cut(words.alt),
    caption: cut(words.caption),
    title: cut(words.title),
  };
}

/**
 * Findings for one photo, the gravest first. A decorative photo needs no alt: it leaves with alt="".
 * @param language of the words; English where none is named
 * @param spoken the language in which findings are said; that of the words where none is named
 * @param sameAs names of other photos of the page with the same alt text.
 */
export function checkWords(
  words: Words,
  fileName: string,
  {
    language = 'en',
    spoken = language,
    ...around
  }: Pick<WordContext, 'nearby' | 'target' | 'shown' | 'terms'> & {
    sameAs?: readonly string[];
    language?: Language;
    spoken?: Language;
  } = {},
): WordFinding[] {
  const context: WordContext = {
    words: readPart(words),
    language,
    says: sayingsIn(primaryOf(spoken)),
    book: bookFor(language),
    fileName: fileName.slice(0, 255),
    ...around,
    ...(around.nearby && { nearby: around.nearby.map((text) => text.slice(0, READ_BY_CHECKS)) }),
  };
  if (words.role === 'decorative')
    return [decorativeWithAlt(context), textNotCarried({ ...context, words })].filter((f) => f !== null);
  let findings: WordFinding[] = [];
  for (const check of WHETHER) {
    const finding = check(context);
    if (finding) {
      findings = [finding];
      break;
    }
  }
  if (findings.length === 0) {
    // A text that is too long is counted and moved whole; looking for its first sentences takes no time.
    findings = HOW.map((check) => check(check === tooLong ? { ...context, words } : context)).filter(
      (finding) => finding !== null,
    );
    if (around.sameAs && around.sameAs.length > 0) findings.push(sameAlt(context, around.sameAs));
  }
  // A long description is read whole: what stands at its end is carried, too.
  const last = [textNotCarried({ ...context, words }), noRole(context)];
  return [...findings, ...last.filter((finding) => finding !== null)];
}

/** Findings for words of a photo, with what is known of its picture. */
export const checkPhoto = (
  { fileName, original: { shows } }: { fileName: string; original: Pick<OriginalFacts, 'shows'> },
  words: Words,
  around: Pick<WordContext, 'terms'> & {
    sameAs?: readonly string[];
    language?: Language;
    spoken?: Language;
  } = {},
): WordFinding[] => checkWords(words, fileName, { ...around, ...(shows && { shown: shows }) });
