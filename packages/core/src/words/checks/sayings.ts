// What the checks say, in the languages that they know: a sentence, and why it matters to a visitor.
import type { WordCheckCode } from './codes.ts';

/** One voice. Sentences are short and even: nobody is told off. */
export interface Sayings {
  /** BCP 47, the language alone. */
  language: string;
  why: Readonly<Record<WordCheckCode, string>>;
  quoted: (text: string) => string;
  missing: string;
  isFileName: string;
  holdsFileName: string;
  sameAsFileName: string;
  placeholder: (quoted: string) => string;
  markup: string;
  address: string;
  fileData: string;
  click: (quoted: string) => string;
  otherLanguage: (spoken: string, own: string) => string;
  opensWith: (quoted: string) => string;
  look: string;
  sameAs: { caption: string; title: string; nearby: string };
  tooLong: (length: number, about: number) => string;
  twice: (quoted: string) => string;
  heardTwice: string;
  hashtags: string;
  keywords: string;
  keywordString: string;
  often: (quoted: string, times: number) => string;
  stuffed: (quoted: string) => string;
  capitals: string;
  onlyLook: string;
  named: (quoted: string) => string;
  hardlySays: (quoted: string) => string;
  sameWords: (quoted: string) => string;
  shows: (quoted: string) => string;
  decorative: string;
  noRole: string;
}

const ENGLISH: Sayings = {
  language: 'en',
  why: {
    missing: 'A screen reader may read the file name instead.',
    'file-name': 'Read aloud, it tells nobody what the photo shows.',
    placeholder: 'Visitors who can’t see the photo learn nothing from it.',
    'holds-markup': 'It is read aloud as it stands, sign by sign.',
    'holds-address': 'An address is spelled out letter by letter, and says nothing of what there is to see.',
    'file-data': 'It tells of the file, not of what the photo shows.',
    'says-click':
      'Who listens knows already that a link can be followed, and may have no mouse. What is behind it is worth saying.',
    'other-language': 'It is read with the sounds of the page’s language, and is hard to understand.',
    'opens-with-image': 'A screen reader says “image” already.',
    'describes-look':
      'Who hears a link or a button needs to know where it leads or what it does: “Opening hours”, “Search”.',
    'repeats-nearby': 'A screen reader reads both, one after the other.',
    'too-long':
      'An alt text is heard in one go, without a way back. A long description can be read at leisure.',
    'keyword-list':
      'Keywords are read out one by one and don’t make a picture; search engines count them against a page.',
    'all-capitals': 'Some screen readers spell capitals letter by letter.',
    'only-look': 'Title or caption call it by its name: say here what it is as well.',
    'hardly-says':
      'Who can’t see the photo wants to know what there is to see: who or what, doing what, where.',
    'same-alt': 'Two photos with the same words can’t be told apart by ear.',
    'text-not-carried':
      'Neither alt text nor caption nor long description tells them: who can’t see the picture doesn’t get to know them.',
    'decorative-with-alt':
      'A decorative photo leaves with alt="": these words would not go out. If they matter, it informs.',
    'no-role': 'Whether it informs or decorates decides if it is read aloud at all.',
  },
  quoted: (text) => `“${text}”`,
  missing: 'No words yet',
  isFileName: 'Is a file name',
  holdsFileName: 'Holds a file name',
  sameAsFileName: 'Same as the file’s name',
  placeholder: (quoted) => `${quoted} is a placeholder`,
  markup: 'Holds markup or code',
  address: 'Holds an address',
  fileData: 'Tells the file’s size or format',
  click: (quoted) => `Says ${quoted}`,
  otherLanguage: (spoken, own) => `Reads as ${spoken}; these words are for ${own}`,
  opensWith: (quoted) => `Opens with ${quoted}`,
  look: 'Says how it looks, not where it leads',
  sameAs: {
    caption: 'Says the same as the caption',
    title: 'Says the same as the title',
    nearby: 'Says the same as the text beside it',
  },
  tooLong: (length, about) => `${length} characters: more than about ${about}`,
  twice: (quoted) => `Says ${quoted} twice in a row`,
  heardTwice: 'A listener hears this twice.',
  hashtags: 'Hashtags instead of a sentence',
  keywords: 'A list of keywords',
  keywordString: 'A string of keywords',
  often: (quoted, times) => `Says ${quoted} ${times} times`,
  stuffed: (quoted) => `Full of the site’s terms: ${quoted}`,
  capitals: 'Written in capitals',
  onlyLook: 'Speaks of colours and shapes only',
  named: (quoted) => `Title or caption call it by its name (${quoted}): say here what it is as well.`,
  hardlySays: (quoted) => `${quoted} hardly says anything`,
  sameWords: (quoted) => `Same words as ${quoted}`,
  shows: (quoted) => `The picture shows words: ${quoted}`,
  decorative: 'Decorative, yet it has words',
  noRole: 'No role yet',
};

const GERMAN: Sayings = {
  language: 'de',
  why: {
    missing: 'Ein Screenreader liest sonst vielleicht den Dateinamen vor.',
    'file-name': 'Vorgelesen sagt er niemandem, was auf dem Foto zu sehen ist.',
    placeholder: 'Wer das Foto nicht sehen kann, erfährt daraus nichts.',
    'holds-markup': 'Es wird so vorgelesen, wie es dasteht, Zeichen für Zeichen.',
    'holds-address': 'Eine Adresse wird buchstabiert und sagt nichts von dem, was zu sehen ist.',
    'file-data': 'Das erzählt von der Datei, nicht von dem, was das Foto zeigt.',
    'says-click':
      'Wer zuhört, weiß schon, dass man einem Link folgen kann, und hat vielleicht keine Maus. Sagen Sie lieber, was dahinter ist.',
    'other-language':
      'Der Text wird mit den Lauten der Seitensprache vorgelesen und ist so schwer zu verstehen.',
    'opens-with-image': '„Bild“ oder „Grafik“ sagt ein Screenreader schon selbst.',
    'describes-look':
      'Wer einen Link oder eine Schaltfläche hört, muss wissen, wohin sie führt oder was sie tut: „Öffnungszeiten“, „Suchen“.',
    'repeats-nearby': 'Ein Screenreader liest beides nacheinander vor.',
    'too-long':
      'Ein Alternativtext wird am Stück gehört, ohne Weg zurück. Eine lange Beschreibung kann man in Ruhe lesen.',
    'keyword-list':
      'Stichwörter werden eines nach dem anderen vorgelesen und ergeben kein Bild; Suchmaschinen legen sie einer Seite zur Last.',
    'all-capitals': 'Manche Screenreader buchstabieren Großbuchstaben.',
    'only-look': 'Titel oder Bildunterschrift nennen es beim Namen: Sagen Sie auch hier, was es ist.',
    'hardly-says': 'Wer das Foto nicht sehen kann, möchte wissen, was zu sehen ist: wer oder was, wobei, wo.',
    'same-alt': 'Zwei Fotos mit denselben Worten sind beim Hören nicht zu unterscheiden.',
    'text-not-carried':
      'Weder Alternativtext noch Bildunterschrift noch lange Beschreibung nennen sie: Wer das Bild nicht sehen kann, erfährt sie nicht.',
    'decorative-with-alt':
      'Ein Schmuckbild geht mit alt="" hinaus, diese Worte also nicht. Wenn sie wichtig sind, informiert das Bild.',
    'no-role': 'Ob es informiert oder schmückt, entscheidet, ob es überhaupt vorgelesen wird.',
  },
  quoted: (text) => `„${text}“`,
  missing: 'Noch keine Worte',
  isFileName: 'Ist ein Dateiname',
  holdsFileName: 'Enthält einen Dateinamen',
  sameAsFileName: 'Gleich wie der Dateiname',
  placeholder: (quoted) => `${quoted} ist ein Platzhalter`,
  markup: 'Enthält Auszeichnung oder Code',
  address: 'Enthält eine Adresse',
  fileData: 'Nennt Größe oder Format der Datei',
  click: (quoted) => `Sagt ${quoted}`,
  otherLanguage: (spoken, own) => `Liest sich als ${spoken}; diese Worte sind für ${own}`,
  opensWith: (quoted) => `Beginnt mit ${quoted}`,
  look: 'Sagt, wie es aussieht, nicht wohin es führt',
  sameAs: {
    caption: 'Sagt dasselbe wie die Bildunterschrift',
    title: 'Sagt dasselbe wie der Titel',
    nearby: 'Sagt dasselbe wie der Text daneben',
  },
  tooLong: (length, about) => `${length} Zeichen: mehr als etwa ${about}`,
  twice: (quoted) => `Sagt ${quoted} zweimal hintereinander`,
  heardTwice: 'Wer zuhört, hört das zweimal.',
  hashtags: 'Hashtags statt eines Satzes',
  keywords: 'Eine Liste von Stichwörtern',
  keywordString: 'Eine Kette von Stichwörtern',
  often: (quoted, times) => `Sagt ${quoted} ${times}-mal`,
  stuffed: (quoted) => `Voll von den Begriffen der Website: ${quoted}`,
  capitals: 'In Großbuchstaben geschrieben',
  onlyLook: 'Spricht nur von Farben und Formen',
  named: (quoted) =>
    `Titel oder Bildunterschrift nennen es beim Namen (${quoted}): Sagen Sie auch hier, was es ist.`,
  hardlySays: (quoted) => `${quoted} sagt kaum etwas`,
  sameWords: (quoted) => `Dieselben Worte wie bei ${quoted}`,
  shows: (quoted) => `Das Bild zeigt Worte: ${quoted}`,
  decorative: 'Schmuckbild, hat aber Worte',
  noRole: 'Noch keine Rolle',
};

const VOICES: Readonly<Record<string, Sayings>> = { en: ENGLISH, de: GERMAN };

/** The voice in a language, without its region; English where there is none. */
export const sayingsIn = (primary: string): Sayings => VOICES[primary] ?? ENGLISH;
