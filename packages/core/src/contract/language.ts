// What is said in several languages.

/** BCP 47, such as "en". */
export type Language = string;

/** A text in the site's further languages; where one is not there, the first language stands in. */
export type InOthers<T = string> = Partial<Record<Language, T>>;

/** What a place says on pages beside its photos. */
export interface PlaceWords {
  /** A short text under its title; "" for none. */
  note?: string;
  others?: InOthers<{ title?: string; note?: string }>;
}
