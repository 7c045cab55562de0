// The few words that the markup itself says around an editor's own, by language.
import type { Language } from '../contract/index.ts';

export interface Phrases {
  /** Heads a folded long description, or links to one. */
  description: (of: string) => string;
  /** Before a credit. */
  photo: string;
  /** Behind the name of a link that opens a window of its own. */
  newWindow: string;
}

const PHRASES: Record<string, Phrases> = {
  en: {
    description: (of) => (of ? `Description of “${of}”` : 'Description'),
    photo: 'Photo:',
    newWindow: 'opens in a new window',
  },
  de: {
    description: (of) => (of ? `Beschreibung zu „${of}“` : 'Beschreibung'),
    photo: 'Foto:',
    newWindow: 'öffnet ein neues Fenster',
  },
};

/** The subtag that names the language itself: "de" of "de-AT" (BCP 47). */
export const primaryOf = (language: Language): string => language.split('-')[0]!.toLowerCase();

/** @returns the phrases, and the language that they are in: English where others are not known */
export function phrasesIn(language: Language): { phrases: Phrases; said: Language } {
  const own = PHRASES[primaryOf(language)];
  return own ? { phrases: own, said: language } : { phrases: PHRASES.en!, said: 'en' };
}
