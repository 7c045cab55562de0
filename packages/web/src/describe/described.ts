// A photo's words in the language that is written in: those that are shown, and how they are saved.
import type { Language, SetPlaces, SlotId, Words } from '@dusky-otter/core/contract';
import { applyToPhoto } from '@dusky-otter/core/edits';
import { placementIn, wordsIn } from '@dusky-otter/core/plan';
import { isSpoken, NO_WORDS, placementSaid } from '@dusky-otter/core/words';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { api } from '../api/client.ts';
import { useSetPlaces, useSite, type Row } from '../server/hooks.ts';
import { keys } from '../server/keys.ts';
import { useSending } from '../server/state.ts';
import { saveSpotIn, saveSpotWords, saveWords } from '../editing/edits.ts';

export interface Described {
  /** The photo with the words of that language. */
  row: Row;
  language: Language;
  /** Nothing of them is known yet. */
  reading: boolean;
  save: (words: Partial<Words>, how?: { done?: string; began?: number }) => void;
}

/** Words of a spot: the photo's, but for what is said otherwise there. */
function inPlace(row: Row, setPlaces: SetPlaces, slot: SlotId): Pick<Described, 'row' | 'save'> {
  return {
    row: { ...row, words: wordsIn(row, slot) },
    save: (words, { done = '' } = {}) => saveSpotWords(row, setPlaces, slot, words, done),
  };
}

/**
 * The same in one of the site's further languages. Who made a picture and where it leads hang on none.
 * @param spoken the photo with its words in that language
 */
function inPlaceOf(
  row: Row,
  spoken: Row,
  setPlaces: SetPlaces,
  slot: SlotId,
  language: Language,
): Pick<Described, 'row' | 'save'> {
  const here = placementSaid(placementIn(row, slot), language);
  return {
    row: { ...spoken, words: { ...spoken.words, ...here.words } },
    save: (words, { done = '' } = {}) => {
      const said = Object.entries(words);
      const [texts, rest] = [said.filter(([f]) => isSpoken(f)), said.filter(([f]) => !isSpoken(f))];
      if (rest.length > 0) saveSpotWords(row, setPlaces, slot, Object.fromEntries(rest), done);
      if (texts.length > 0) saveSpotIn(row, setPlaces, slot, language, Object.fromEntries(texts), done);
    },
  };
}

/**
 * @param language one of the site's
 * @param place a place that the photo stands in, for words of its own there; null for its words everywhere
 */
export function useDescribed(
  row: Row,
  setId: number,
  language: Language,
  place: SlotId | null = null,
): Described {
  const setPlaces = useSetPlaces();
  const main = useSite()?.languages[0] ?? language;
  const isMain = language === main;
  const { data: other } = useQuery({
    queryKey: keys.wordsIn(setId, row.id, language, row.version),
    queryFn: () => api.wordsIn(setId, row.id, language),
    enabled: !isMain,
    placeholderData: (before) => before,
  });
  const pending = useSending(
    useShallow(({ commands }) =>
      (commands.get(row.id) ?? []).filter((c) => c.kind === 'words' && c.language === language),
    ),
  );
  return useMemo(() => {
    if (place !== null && isMain) return { language, reading: false, ...inPlace(row, setPlaces, place) };
    let shown = row;
    if (!isMain) {
      shown = { ...row, words: { ...(other ?? NO_WORDS) } };
      for (const command of pending) shown = { ...shown, ...applyToPhoto(shown, command).change };
      // What a photo is there for doesn't hang on a language.
      shown = { ...shown, words: { ...shown.words, role: row.words.role } };
    }
    const reading = !isMain && other === undefined;
    if (place !== null && !isMain)
      return { language, reading, ...inPlaceOf(row, shown, setPlaces, place, language) };
    return {
      row: shown,
      language,
      reading,
      save: (words, how = {}) => {
        const { role, ...texts } = words;
        if (role !== undefined && !isMain) saveWords(row, { role }, how);
        if (isMain) saveWords(row, words, how);
        else if (Object.keys(texts).length > 0) saveWords(shown, texts, { ...how, language });
      },
    };
  }, [row, isMain, other, pending, language, place, setPlaces]);
}
