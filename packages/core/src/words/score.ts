// The labelled alt texts, and how a set of findings does against them.
import type { Role, Words } from '../contract/index.ts';
import { checkWords } from './checks.ts';
import type { WordCheckCode } from './checks/finding.ts';
import { NO_WORDS } from './no-words.ts';
import { sameAlts } from './checks/repetition.ts';

/** One alt text with the codes that a careful reader would give it. Role "informative" where none is said. */
export interface LabelledAlt {
  alt: string;
  codes?: WordCheckCode[];
  role?: Role | null;
  caption?: string;
  title?: string;
  file?: string;
  nearby?: string[];
  target?: string;
  /** Words that the picture shows. */
  shown?: string;
  /** English where none is said. */
  language?: string;
  /** Texts with one letter stand on one page. */
  page?: string;
}

export interface CheckScore {
  code: WordCheckCode;
  /** Texts that have it by label. */
  labelled: number;
  found: number;
  /** Labelled and found ÷ found. */
  precision: number;
  /** Labelled and found ÷ labelled. */
  recall: number;
  /** Texts where label and finding disagree. */
  wrong: string[];
}

/** A labelled text as a photo's words. */
export const wordsOfLabelled = ({ role, alt, caption, title }: LabelledAlt): Words => ({
  ...NO_WORDS,
  role: role === undefined ? 'informative' : role,
  alt,
  caption: caption ?? '',
  title: title ?? '',
});

/** What the checks find in each labelled text, page by page. */
export function findingsOf(texts: readonly LabelledAlt[]): WordCheckCode[][] {
  const pages = new Map<string, ReturnType<typeof sameAlts>>();
  for (const page of new Set(texts.map((text) => text.page ?? ''))) {
    const photos = texts.flatMap((text, id) =>
      page !== '' && text.page === page
        ? [{ id, name: `photo ${id}`, alt: text.alt, decorative: text.role === 'decorative' }]
        : [],
    );
    pages.set(page, sameAlts(photos));
  }
  return texts.map((text, id) => {
    return checkWords(wordsOfLabelled(text), text.file ?? 'DSC09999.JPG', {
      nearby: text.nearby ?? [],
      language: text.language ?? 'en',
      ...(text.shown && { shown: [{ text: text.shown, box: { left: 0, top: 0, right: 1, bottom: 1 } }] }),
      ...(text.target && { target: text.target }),
      sameAs: pages.get(text.page ?? '')?.get(id) ?? [],
    }).map(({ code }) => code);
  });
}

/** Precision and recall of every check. */
export function scoresOf(texts: readonly LabelledAlt[], codes: readonly WordCheckCode[]): CheckScore[] {
  const findings = findingsOf(texts);
  return codes.map((code) => {
    const has = texts.map((text) => text.codes?.includes(code) ?? false);
    const says = findings.map((found) => found.includes(code));
    const both = has.filter((yes, i) => yes && says[i]).length;
    const labelled = has.filter(Boolean).length;
    const found = says.filter(Boolean).length;
    return {
      code,
      labelled,
      found,
      precision: found === 0 ? 0 : both / found,
      recall: labelled === 0 ? 0 : both / labelled,
      wrong: texts.flatMap((text, i) => (has[i] === says[i] ? [] : [`${says[i] ? '+' : '−'} ${text.alt}`])),
    };
  });
}
