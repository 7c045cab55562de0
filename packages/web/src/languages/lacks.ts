// What a set's page lacks in the site's further languages: its own texts, and the words of its photos.
import type { LanguageLack, SetPage } from '@dusky-otter/core/contract';
import { missingTexts, textsOf, type PageText } from '@dusky-otter/core/page';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { api } from '../api/client.ts';
import { pageNow } from '../editing/page.ts';
import { useCounts, useEdition, useSet, useSite } from '../server/hooks.ts';
import { some } from '../ui/some.ts';

export interface Lack extends LanguageLack {
  /** Texts of the page that nobody has written in it. */
  texts: number;
}

export interface PageTexts {
  page: SetPage;
  texts: readonly PageText[];
  /** For each language but the first. */
  lacks: readonly Lack[];
}

/** Photos are counted anew once nothing has changed for so long, ms: a set may have thousands. */
const SETTLES = 1000;

function useSettled(edition: string): string {
  const [settled, setSettled] = useState(edition);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(edition), SETTLES);
    return () => clearTimeout(timer);
  }, [edition]);
  return settled;
}

/** null until the set is read. */
export function usePageTexts(): PageTexts | null {
  const set = useSet();
  const site = useSite();
  const counts = useCounts();
  const edition = useSettled(useEdition());
  const languages = site?.languages ?? [];
  const { data } = useQuery({
    queryKey: ['languages', set?.id, edition],
    queryFn: () => api.languages(set!.id),
    enabled: set !== null && languages.length > 1,
    placeholderData: (before) => before,
  });
  return useMemo(() => {
    if (!set || !site) return null;
    const page = pageNow(set, site, counts);
    const texts = textsOf(page, site.slots);
    const missing = missingTexts(texts, site.languages);
    const lacks = site.languages.slice(1).map((language): Lack => {
      const photos = data?.languages.find((one) => one.language === language);
      return { language, photos: 0, first: null, here: 0, ...photos, texts: missing.get(language) ?? 0 };
    });
    return { page, texts, lacks };
  }, [set, site, counts, data]);
}

const LISTED = new Intl.ListFormat('en');

/** What a language lacks in words; "" for nothing. */
export const lackSaid = ({ texts, photos, here }: Omit<Lack, 'language' | 'first'>): string =>
  LISTED.format(
    [
      texts > 0 && some(texts, 'text', 'texts'),
      photos > 0 && `words of ${some(photos, 'photo', 'photos')}`,
      here > 0 && `words of ${some(here, 'photo', 'photos')} in one place`,
    ].filter((part) => part !== false),
  );
