// The texts of a page in every language of its site, beside each other.
import type { Language, Passage, PhotoSet, Site } from '@dusky-otter/core/contract';
import { isBlank, directionOf, textOfParagraph } from '@dusky-otter/core/html';
import type { PageText } from '@dusky-otter/core/page';
import { languageName } from '@dusky-otter/core/words';
import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { putPage } from '../editing/page.ts';
import { useSet, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { Head } from '../ui/Head.tsx';
import { StateTag } from '../ui/marks.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { Tick } from '../ui/Tick.tsx';
import { lackSaid, usePageTexts, type Lack } from './lacks.ts';

const PassageEditor = lazy(() => import('../editing/PassageEditor.tsx'));

const asLine = (said: string | Passage): string =>
  typeof said === 'string' ? said : said.map(textOfParagraph).join('\n');

interface CellProps {
  text: PageText;
  language: Language;
  /** Of what the text stands in: the set, or the site. */
  version: number;
  save: (said: string | Passage, began: number) => void;
}

/** A text with paragraphs: its editor comes when it is asked for. */
function PassageCell({ text, language, version, save }: CellProps) {
  const [open, setOpen] = useState(false);
  const said = (text.others[language] as Passage | undefined) ?? [];
  const label = `${languageName(language)}: ${text.what}`;
  if (!open)
    return (
      <button
        className="field min-h-[34px] w-full whitespace-pre-line text-left text-[14px]"
        onClick={() => setOpen(true)}
      >
        <span className="sr-only">{label}: </span>
        {isBlank(said) ? (
          <span className="text-ink-3">Write it…</span>
        ) : (
          <span lang={language} dir={directionOf(language)}>
            {asLine(said)}
          </span>
        )}
      </button>
    );
  return (
    <Suspense fallback={<p className="text-ink-2">Opening…</p>}>
      <PassageEditor passage={said} version={version} label={label} language={language} save={save} />
      <button className="chip mt-1 justify-self-start" onClick={() => setOpen(false)}>
        Done
      </button>
    </Suspense>
  );
}

function Cell({ text, language, version, save }: CellProps) {
  const name = languageName(language);
  if (text.most === null)
    return (
      <div className="grid gap-1 text-[12px] text-ink-2">
        {name}
        <PassageCell {...{ text, language, version, save }} />
      </div>
    );
  return (
    <TextLine
      label={name}
      most={text.most}
      saved={(text.others[language] as string | undefined) ?? ''}
      version={version}
      language={language}
      save={save}
    />
  );
}

interface RowProps {
  text: PageText;
  set: PhotoSet;
  site: Site;
}

function Row({ text, set, site }: RowProps) {
  const [main = 'en', ...others] = site.languages;
  const put = (language: Language, said: string | Passage, began: number) => {
    const change = text.put(language, said);
    const what = `${text.what.toLowerCase()} in ${languageName(language)}`;
    if ('page' in change) putPage(change.page, what, began);
    else
      edit(`${what} of ${text.of}`, [{ kind: 'slot', slot: change.slot.id, value: change.slot }], {
        site: began,
      });
  };
  return (
    <li
      className="grid gap-x-4 gap-y-1.5 border-b border-rule px-4 py-3 max-[700px]:block"
      style={{ gridTemplateColumns: `minmax(200px, 1fr) repeat(${others.length}, minmax(220px, 1fr))` }}
    >
      <div className="min-w-0 max-[700px]:mb-2">
        <p className="text-[12px] text-ink-2">
          {text.of ? `${text.of}: ${text.what.toLowerCase()}` : text.what}
        </p>
        <p lang={main} className="whitespace-pre-line break-words text-[14px]">
          {asLine(text.main)}
        </p>
      </div>
      {others.map((language) => (
        <div key={language} className="min-w-0 max-[700px]:mb-2">
          <Cell
            text={text}
            language={language}
            // Texts of places belong to the site, the others to the page.
            version={text.of ? site.version : set.version}
            save={(said, began) => put(language, said, began)}
          />
        </div>
      ))}
    </li>
  );
}

/** What a language lacks, with ways to its photos. */
function Summary({ lack, setId }: { lack: Lack; setId: number }) {
  const { language, first, photos } = lack;
  const said = lackSaid(lack);
  return (
    <li className="flex flex-wrap items-baseline gap-2">
      <StateTag state={said ? 'care' : 'ready'}>
        {languageName(language)} {said ? `lacks ${said}.` : 'lacks nothing.'}
      </StateTag>
      {first !== null && photos > 0 && (
        <Link className="chip" to={`/sets/${setId}/describe/${first}?${new URLSearchParams({ language })}`}>
          Describe the first photo in {languageName(language)}
        </Link>
      )}
    </li>
  );
}

export function Texts() {
  const set = useSet();
  const site = useSite();
  const found = usePageTexts();
  const navigate = useNavigate();
  const [missingOnly, setMissingOnly] = useState(false);
  /** Those that were missing when that was asked for: what is written stays in view. */
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set());
  useBenchKeys({ Escape: () => set && void navigate(`/sets/${set.id}/page`) });
  if (!set || !site || !found) return <main className="bg-sheet" />;
  const { texts, lacks } = found;
  const isMissing = ({ others }: PageText) => lacks.some(({ language }) => isBlank(others[language]));
  const shown = missingOnly ? texts.filter((text) => kept.has(text.id)) : texts;
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title="Texts in every language">
        <span className="ml-auto" />
        <Link className="btn" to={`/sets/${set.id}/rules`}>
          Languages of the site
        </Link>
        <Link className="btn btn-main" to={`/sets/${set.id}/page`}>
          Back to the page
        </Link>
      </Head>
      {lacks.length === 0 ? (
        <p className="p-6 text-ink-2">
          The site has one language, {languageName(site.languages[0] ?? 'en')}. Add another among its rules:
          then the page’s texts stand here beside each other, and go out as a page for each.
        </p>
      ) : (
        <>
          <div className="flex flex-wrap items-start gap-x-6 gap-y-2 border-b border-rule-strong px-4 py-2.5">
            <ul className="grid gap-1" aria-label="What is missing">
              {lacks.map((lack) => (
                <Summary key={lack.language} lack={lack} setId={set.id} />
              ))}
            </ul>
            <Tick
              className="ml-auto"
              checked={missingOnly}
              set={(on) => {
                setKept(new Set(texts.filter(isMissing).map(({ id }) => id)));
                setMissingOnly(on);
              }}
            >
              only what is missing
            </Tick>
          </div>
          <ul
            className="min-h-0 flex-1 overflow-auto"
            aria-label={`Texts of ${found.page.title}`}
            // What is wider than the window is reached by keyboard.
            tabIndex={0}
          >
            {shown.map((text) => (
              <Row key={text.id} text={text} set={set} site={site} />
            ))}
            {shown.length === 0 && <li className="p-6 text-ink-2">Nothing is missing.</li>}
          </ul>
        </>
      )}
    </main>
  );
}
