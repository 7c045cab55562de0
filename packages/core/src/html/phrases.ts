// The few words that the markup itself says around an editor's own, by language.
import type { Language } from '../contract/index.ts';

export interface Phrases {
  /** Heads a folded long description, or links to one. */
  description: (of: string) => string;
  /** Before a credit. */
  photo: string;
  /** Behind the name of a link that opens a window of its own. */
  newWindow: string;
  /** Names a picture that has no words by its place among the others. */
  picture: (n: number, of: number) => string;
  /** Opens the list of all pictures of an arrangement. */
  all: (count: number) => string;
  /** What a rotating hero is, and one of its pictures; after the carousel pattern. */
  carousel: string;
  slide: string;
  slides: string;
  /** Names the links to the pages of an arrangement. */
  pages: (of: string) => string;
  /** Links to the pages before and behind, and to one of them. */
  before: string;
  behind: string;
  page: (n: number) => string;
  /** Which of how many pages, within a title. */
  pageOf: (n: number, of: number) => string;
  /** How many pictures a gallery has. */
  count: (pictures: number) => string;
  /** Names the links to the other pages of a site. */
  menu: string;
  /** Names the links to the same page in other languages. */
  languages: string;
  /** Leads from a picture's own page to the page that it stands on. */
  allOf: (title: string) => string;
  /** Plays a film in the place of its poster. */
  film: string;
  /** What the scripts say. `{n}` and `{m}` are numbers. */
  script: Record<
    'of' | 'back' | 'on' | 'play' | 'pause' | 'close' | 'save' | 'controls' | 'to' | 'how',
    string
  >;
}

const PHRASES: Record<string, Phrases> = {
  en: {
    description: (of) => (of ? `Description of “${of}”` : 'Description'),
    photo: 'Photo:',
    newWindow: 'opens in a new window',
    picture: (n, of) => `Picture ${n} of ${of}`,
    all: (count) => `All ${count} pictures`,
    carousel: 'carousel',
    slide: 'slide',
    slides: 'Pictures',
    pages: (of) => `Pages of ${of}`,
    before: 'Earlier',
    behind: 'More',
    page: (n) => `Page ${n}`,
    pageOf: (n, of) => `page ${n} of ${of}`,
    count: (pictures) => (pictures === 1 ? '1 picture' : `${pictures} pictures`),
    menu: 'Pages',
    languages: 'Languages',
    allOf: (title) => `All of ${title}`,
    film: 'Play the film',
    script: {
      of: '{n} of {m}',
      back: 'Previous picture',
      on: 'Next picture',
      play: 'Show one after the other',
      pause: 'Stop',
      close: 'Close',
      save: 'Download',
      controls: 'Choose a picture',
      to: 'Picture {n} of {m}',
      how: 'Enter looks closely, arrow keys move, Escape ends it',
    },
  },
  de: {
    description: (of) => (of ? `Beschreibung zu „${of}“` : 'Beschreibung'),
    photo: 'Foto:',
    newWindow: 'öffnet ein neues Fenster',
    picture: (n, of) => `Bild ${n} von ${of}`,
    all: (count) => `Alle ${count} Bilder`,
    carousel: 'Karussell',
    slide: 'Bild',
    slides: 'Bilder',
    pages: (of) => `Seiten von ${of}`,
    before: 'Zurück',
    behind: 'Weiter',
    page: (n) => `Seite ${n}`,
    pageOf: (n, of) => `Seite ${n} von ${of}`,
    count: (pictures) => (pictures === 1 ? '1 Bild' : `${pictures} Bilder`),
    menu: 'Seiten',
    languages: 'Sprachen',
    allOf: (title) => `Alles aus ${title}`,
    film: 'Film abspielen',
    script: {
      of: '{n} von {m}',
      back: 'Voriges Bild',
      on: 'Nächstes Bild',
      play: 'Nacheinander zeigen',
      pause: 'Anhalten',
      close: 'Schließen',
      save: 'Herunterladen',
      controls: 'Bild wählen',
      to: 'Bild {n} von {m}',
      how: 'Eingabetaste vergrößert, Pfeiltasten bewegen, Escape beendet',
    },
  },
};

/** "7 of 24", as the scripts say it. */
export const placeAmong = ({ script }: Phrases, n: number, of: number): string =>
  script.of.replace('{n}', String(n)).replace('{m}', String(of));

/** The subtag that names the language itself: "de" of "de-AT" (BCP 47). */
export const primaryOf = (language: Language): string => language.split('-')[0]!.toLowerCase();

/** @returns the phrases, and the language that they are in: English where others are not known */
export function phrasesIn(language: Language): { phrases: Phrases; said: Language } {
  const own = PHRASES[primaryOf(language)];
  return own ? { phrases: own, said: language } : { phrases: PHRASES.en!, said: 'en' };
}
