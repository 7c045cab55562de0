// Says what the page lacks in other languages, and leads to where that is written.
import { languageName } from '@dusky-otter/core/words';
import { Link } from 'react-router';
import { useSetId } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import { some } from '../ui/some.ts';
import { lackSaid, usePageTexts } from './lacks.ts';

/** Leads to the texts in every language; nothing where a site has one. */
export function LanguagesLink({ className = 'btn max-[1100px]:px-2' }: { className?: string }) {
  const setId = useSetId();
  const lacks = usePageTexts()?.lacks ?? [];
  if (lacks.length === 0) return null;
  const missing = lacks.filter((lack) => lackSaid(lack) !== '');
  const [only] = missing;
  const said =
    missing.length === 0
      ? 'all written'
      : missing.length === 1
        ? `${languageName(only!.language)} lacks ${lackSaid(only!)}`
        : `${some(missing.length, 'lacks', 'lack')} something`;
  return (
    <Link
      className={className}
      to={`/sets/${setId}/texts`}
      aria-label={`Languages: ${said}`}
      title={`Languages: ${said}`}
    >
      {missing.length > 0 && (
        <span aria-hidden="true" className="text-amber">
          ▲
        </span>
      )}
      Languages
    </Link>
  );
}

/** Before anything goes out: a line for each language that lacks something. */
export function LanguageLacks() {
  const setId = useSetId();
  const missing = (usePageTexts()?.lacks ?? []).filter((lack) => lackSaid(lack) !== '');
  if (missing.length === 0) return null;
  return (
    <ul className="mt-3 grid gap-1" aria-label="Languages">
      {missing.map((lack) => (
        <li key={lack.language}>
          <Link to={`/sets/${setId}/texts`} className="hover:underline">
            <StateTag state="care">
              {languageName(lack.language)} lacks {lackSaid(lack)}: the first language stands in, and is
              marked as such.
            </StateTag>
          </Link>
        </li>
      ))}
    </ul>
  );
}
