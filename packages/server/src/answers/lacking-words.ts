// What the photos on a set's page lack in the site's further languages.
import type { LanguageLack, Site } from '@dusky-otter/core/contract';
import { isBlank } from '@dusky-otter/core/html';
import { NO_WORDS, SPOKEN } from '@dusky-otter/core/words';
import { inParts } from '../database/in-parts.ts';
import type { Ledgers } from '../ledger/ledgers.ts';
import { placementsOf } from '../store/placements.ts';
import { setPlacesIn, type SetRow } from '../store/sets.ts';
import { wordsOfPhotos } from '../store/words.ts';

/** Photos that stand in a place that the page shows, each once. */
async function shownPhotos(set: SetRow, site: Site, ledgers: Ledgers): Promise<number[]> {
  const ledger = await ledgers.get(set.id);
  const { shown } = await setPlacesIn(set);
  const places = shown ?? site.slots.map(({ id }) => id);
  return [...new Set(places.flatMap((slot) => ledger.members(slot)))];
}

/** @returns a line for each language but the first; none where the site has one */
export async function lackingWords(set: SetRow, site: Site, ledgers: Ledgers): Promise<LanguageLack[]> {
  const [main = 'en', ...others] = site.languages;
  const lacks = others.map((language) => ({ language, photos: 0, here: 0, first: null as number | null }));
  if (lacks.length === 0) return [];
  const ids = await shownPhotos(set, site, ledgers);
  for (const part of inParts(ids)) {
    const first = await wordsOfPhotos(part, main);
    const placements = await placementsOf(set.id, part);
    for (const lack of lacks) {
      const own = await wordsOfPhotos(part, lack.language);
      for (const id of part) {
        const said = first.get(id) ?? NO_WORDS;
        // What says nothing in the first language lacks nothing in another.
        if (said.role !== 'decorative' && !isBlank(said.alt) && isBlank(own.get(id)?.alt)) {
          lack.photos += 1;
          lack.first ??= id;
        }
        lack.here += (placements.get(id) ?? []).filter(({ words, others: spoken }) =>
          SPOKEN.some((field) => !isBlank(words[field]) && isBlank(spoken?.[lack.language]?.[field])),
        ).length;
      }
    }
  }
  return lacks;
}
