// A page and its photos as a page says them that lies deeper: in the folder of a language, or of an arrangement's pictures.
import type { Passage, PhotoRow, SetPage, Slot } from '../contract/index.ts';
import { linkFrom, type Depth } from '../html/link.ts';

const passageFrom = (passage: Passage, depth: Depth): Passage =>
  passage.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.map((run) =>
      run.link === undefined ? run : { ...run, link: linkFrom(run.link, depth) },
    ),
  }));

const everyPassage = <T>(others: Partial<Record<string, T>> | undefined, map: (said: T) => T) =>
  others && {
    others: Object.fromEntries(
      Object.entries(others).map(([language, said]) => [language, said === undefined ? said : map(said)]),
    ) as Record<string, T>,
  };

const isHere = ({ base, page }: Depth): boolean => base === '' && page === '';

/** A page whose links lead where they lead from its own folder. */
export function pageFrom(page: SetPage, depth: Depth): SetPage {
  if (isHere(depth)) return page;
  const { home } = page;
  return {
    ...page,
    home: home && { ...home, address: linkFrom(home.address, depth) },
    parts: page.parts.map((part) =>
      part.kind === 'text'
        ? {
            ...{ ...part, passage: passageFrom(part.passage, depth) },
            ...everyPassage(part.others, (passage) => passageFrom(passage, depth)),
          }
        : part,
    ),
  };
}

/** Texts between the pictures of a feed, the same way. */
export function slotFrom(slot: Slot, depth: Depth): Slot {
  const options = slot.arranged?.options;
  if (isHere(depth) || options?.kind !== 'feed') return slot;
  const between = options.between.map((part) => ({
    ...{ ...part, passage: passageFrom(part.passage, depth) },
    ...everyPassage(part.others, (said) =>
      said.passage === undefined ? said : { ...said, passage: passageFrom(said.passage, depth) },
    ),
  }));
  return { ...slot, arranged: { ...slot.arranged!, options: { ...options, between } } };
}

/** A photo whose links, its own and those of single places, lead where they lead from its page's own folder. */
export function photoFrom(row: PhotoRow, depth: Depth): PhotoRow {
  if (isHere(depth)) return row;
  const wordsFrom = <T extends { link?: string }>(words: T): T =>
    words.link === undefined ? words : { ...words, link: linkFrom(words.link, depth) };
  return {
    ...row,
    words: wordsFrom(row.words),
    placements:
      row.placements?.map((one) => ({
        ...one,
        link: linkFrom(one.link, depth),
        words: wordsFrom(one.words),
        ...(one.captions && {
          captions: Object.fromEntries(
            Object.entries(one.captions).map(([of, address]) => [of, linkFrom(address ?? '', depth)]),
          ),
        }),
      })) ?? null,
  };
}
