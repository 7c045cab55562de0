// The languages of a site: which one is written in, and in which a photo has no words yet.
import type { Language } from '@dusky-otter/core/contract';
import { wordsMissing } from '@dusky-otter/core/markup';
import { languageName, NO_WORDS } from '@dusky-otter/core/words';
import { useQueries } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import type { Row } from '../server/hooks.ts';
import { keys } from '../server/keys.ts';

interface Props {
  row: Row;
  setId: number;
  languages: readonly Language[];
  chosen: Language;
  choose: (language: Language) => void;
}

export function LanguageChips({ row, setId, languages, chosen, choose }: Props) {
  const others = useQueries({
    queries: languages.slice(1).map((language) => ({
      queryKey: keys.wordsIn(setId, row.id, language, row.version),
      queryFn: () => api.wordsIn(setId, row.id, language),
    })),
  });
  if (languages.length < 2) return null;
  const lacks = languages.map((_, n) => {
    const words = n === 0 ? row.words : others[n - 1]!.data;
    return words !== undefined && wordsMissing({ ...NO_WORDS, ...words, role: row.words.role });
  });
  return (
    <span role="group" aria-label="Language" className="flex gap-1.5">
      {languages.map((language, n) => (
        <button
          key={language}
          className="chip"
          aria-pressed={language === chosen}
          onClick={() => choose(language)}
        >
          {languageName(language)}
          {lacks[n] && ', missing'}
        </button>
      ))}
    </span>
  );
}
