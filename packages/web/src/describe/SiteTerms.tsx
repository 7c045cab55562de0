// Beside the alt text: terms of the site that this photo could carry truthfully, and those that every alt text has already.
import { carriableTerms, saysTerm, type TermSource } from '@dusky-otter/core/words';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { useRows, useSet, useSetId, useSite, useEdition, type Row } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';

const WHERE: Record<TermSource, string> = {
  title: 'in its title',
  caption: 'in its caption',
  page: 'on its page',
  neighbour: 'beside it',
};

/** @param near ids of the photos that stand beside it, itself among them */
export function SiteTerms({ row, near }: { row: Row; near: readonly number[] }) {
  const setId = useSetId();
  const set = useSet();
  const terms = useSite()?.terms ?? [];
  const beside = useRows(near.filter((id) => id !== row.id));
  const edition = useEdition();
  const { data } = useQuery({
    queryKey: ['terms', setId, terms, edition],
    queryFn: () => api.termsInEvery(setId),
    enabled: terms.length > 0,
    placeholderData: (before) => before,
  });
  if (terms.length === 0 || row.words.role === 'decorative') return null;
  const { alt, title, caption } = row.words;
  const page = set?.page;
  const could = carriableTerms(terms, alt, {
    title: [title],
    caption: [caption],
    page: [set?.name ?? '', page?.title ?? '', page?.description ?? ''],
    neighbour: beside.flatMap(({ words }) => [words.title, words.alt, words.caption]),
  });
  const everywhere = (data?.inEvery ?? []).filter((term) => saysTerm(alt, term));
  if (could.length === 0 && everywhere.length === 0) return null;
  return (
    <section aria-label="Terms of the site" className="text-[12.5px] text-ink-2">
      {could.length > 0 && (
        <p>
          It could say, where it is true:{' '}
          {could.map(({ term, where }, n) => (
            <span key={term}>
              {n > 0 && ', '}
              <b className="font-semibold text-ink">{term}</b> ({WHERE[where]})
            </span>
          ))}
          .
        </p>
      )}
      {everywhere.length > 0 && (
        <p className="mt-1">
          <StateTag state="care">
            {`${everywhere.map((term) => `“${term}”`).join(', ')} ${everywhere.length === 1 ? 'stands' : 'stand'} in every alt text of this page`}
          </StateTag>{' '}
          Said of all, it tells no photo from another.
        </p>
      )}
    </section>
  );
}
