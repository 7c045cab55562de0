// What the word checks know of a language. One file a language; a new one is such a file and a line in `languages.ts`.

/** All in lower case. */
export interface WordData {
  /** BCP 47, the language alone. */
  language: string;
  /** Whole texts that stand in for words. */
  standIns: readonly string[];
  /** Beginnings of texts that tell the writer what to do. */
  instructions: readonly string[];
  /** Words that say no more than that there is a picture. A text of nothing else is a placeholder. */
  emptyNouns: readonly string[];
  /** What is said of words that are still to come: "missing", "to follow". With the words above they are a placeholder. */
  states: readonly string[];
  /** Words that may stand between them. */
  fillers: readonly string[];
  /** Of the words above those that are no target either, where they are all that a link says. */
  dummies: readonly string[];
  /** What a picture may be called. That it is a painting, a map or a screenshot tells something: they are not here. */
  pictureNouns: readonly string[];
  /** What may stand between the article and the noun without telling more. */
  idleAdjectives: readonly string[];
  determiners: readonly string[];
  /** What leads from the noun to what is seen. */
  leads: readonly string[];
  /** Of the pictures those that may be painted. */
  paintings: readonly string[];
  /** Those that are spoken of by their year. */
  oldPictures: readonly string[];
  /** First words of openings after which the verb comes first: taken away, they leave no sentence. */
  turning: readonly string[];
  /** Openings that need no noun and no lead. */
  fixedOpenings: readonly string[];
  /** What may be left before the noun: "here is". */
  presenters: readonly string[];
  /** Left behind an opening, and taken away with it: "Pictured is". */
  copulas: readonly string[];
  /** What is left without its opening begins with one of these: it would be in the wrong case, and only a person can mend it. */
  bound: readonly string[];
  /** The small words that hold sentences together. A text without them is a list. */
  functionWords: readonly string[];
  articles: readonly string[];
  /** Doubled on purpose: names and idioms would be wrong without. */
  doubled: readonly string[];
  /** Words of a target or an act. */
  targets: readonly string[];
  /** Words for the look of a sign: without a target word they say nothing of where it leads. */
  signs: readonly string[];
  /** Of those the ones that name many other things: a box, a house. They speak of a sign only beside colours and shapes. */
  weakSigns: readonly string[];
  /** What such a sign itself is called: "basket icon". */
  drawn: readonly string[];
  /** What is written is called so: beside such words capitals are quoted. */
  lettering: readonly string[];
  /** What a hand does with a link: click, tap. */
  hands: readonly string[];
  /** What then opens or grows: said with such a word, a text tells nothing. */
  opened: readonly string[];
  /** Whole texts that only invite. */
  invitations: readonly string[];
  /** Acts that are a button's name, and nothing that a photo shows. */
  idleActs: readonly string[];
  /** Words of selling: nobody sees them in a photo. */
  sales: readonly string[];
  /** Words of praise, of which one may be true of what is seen: each counts for half of those. */
  praise: readonly string[];
  /** Words for a subject or a trade rather than for a thing: several of them in a row are put there to be found. */
  subjects: readonly string[];
  /** Beginnings of a description. */
  describers: readonly string[];
  /** Colours, shapes, sizes and surfaces. */
  appearance: readonly string[];
  /** Endings of such words: "coloured", "shaped". */
  appearanceEndings: readonly string[];
  /** What an adjective may end in beside its stem. */
  inflections: readonly string[];
  /** Words for anything: they name nothing. */
  generics: readonly string[];
  /** Nouns have capitals: a text in capitals can't be written small by rule. */
  capitalNouns: boolean;
}

/** Words between spaces. */
export const words = (text: string): string[] => text.trim().split(/\s+/);

/** Phrases between commas. */
export const phrases = (text: string): string[] => text.trim().split(/\s*,\s*/);
