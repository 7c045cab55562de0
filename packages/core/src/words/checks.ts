// Checks of a photo's words: each says what is wrong, why it matters to a visitor, and offers a mend.
import type { Words } from '../contract/index.ts';
import { IMAGE_OPENINGS, PLACEHOLDERS } from './lists.ts';

export interface WordFinding {
  code: 'no-role' | 'missing' | 'file-name' | 'placeholder' | 'opens-with-image';
  severity: 'todo' | 'care';
  sentence: string;
  why: string;
  /** Words to put in place of the alt text, where a mend can be computed. */
  mend: string | null;
}

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

const stripEnding = (name: string): string => name.replace(/\.[a-z0-9]{2,5}$/i, '');

/** True for the photo's own file name, anything with a picture's ending, and what cameras call their files. */
export function looksLikeFileName(alt: string, fileName: string): boolean {
  const text = plain(alt);
  if (text === plain(fileName) || text === plain(stripEnding(fileName))) return true;
  if (/^\S+\.(jpe?g|png|gif|webp|avif|tiff?|svg|heic|bmp)$/.test(text)) return true;
  return /^(dsc|dscf|dscn|img|image|pict?|gm|pxl|mvi|p)[-_ ]?\d{3,}([-_]\w+)*$/.test(text);
}

/** True for stand-ins such as "test", "image 1", "asdf" or "lorem ipsum dolor". */
export function isPlaceholder(alt: string): boolean {
  const text = plain(alt).replace(/[.!?…:]+$/, '');
  if (/^lorem ipsum\b/.test(text)) return true;
  if (/^[^\p{L}\p{N}]*$/u.test(text) || /^(.)\1*$/.test(text)) return true;
  const withoutNumber = text.replace(/[\s_#-]*\d+$/, '');
  return PLACEHOLDERS.some((word) => word === text || word === withoutNumber);
}

/** The opening that a screen reader has said already, as written, or null. */
export function imageOpening(alt: string): string | null {
  const text = alt.trimStart();
  const lower = text.toLowerCase();
  const found = [...IMAGE_OPENINGS]
    .sort((a, b) => b.length - a.length)
    .find((opening) => lower.startsWith(opening) && !/[\p{L}\p{N}]/u.test(lower.charAt(opening.length)));
  return found ? text.slice(0, found.length) : null;
}

const withCapital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function checkAlt(words: Words, fileName: string): WordFinding | null {
  if (words.alt.trim() === '') {
    return {
      code: 'missing',
      severity: 'todo',
      sentence: 'No words yet',
      why: 'A screen reader may read the file name instead.',
      mend: null,
    };
  }
  if (looksLikeFileName(words.alt, fileName)) {
    return {
      code: 'file-name',
      severity: 'care',
      sentence: 'Is a file name',
      why: 'Read aloud, it tells nobody what the photo shows.',
      mend: '',
    };
  }
  if (isPlaceholder(words.alt)) {
    return {
      code: 'placeholder',
      severity: 'care',
      sentence: `“${words.alt.trim()}” is a placeholder`,
      why: 'Visitors who can’t see the photo learn nothing from it.',
      mend: '',
    };
  }
  const opening = imageOpening(words.alt);
  if (!opening) return null;
  const rest = words.alt.trimStart().slice(opening.length).trim();
  return {
    code: 'opens-with-image',
    severity: 'care',
    sentence: `Opens with “${opening}”`,
    why: 'A screen reader says “image” already.',
    mend: withCapital(rest),
  };
}

/** Findings for one photo, the gravest first. A decorative photo needs no alt: it leaves with alt="". */
export function checkWords(words: Words, fileName: string): WordFinding[] {
  if (words.role === 'decorative') return [];
  const findings: WordFinding[] = [];
  const alt = checkAlt(words, fileName);
  if (alt) findings.push(alt);
  if (words.role === null) {
    findings.push({
      code: 'no-role',
      severity: 'todo',
      sentence: 'No role yet',
      why: 'Whether it informs or decorates decides if it is read aloud at all.',
      mend: null,
    });
  }
  return findings;
}
