// The languages of a site's words: the first is that of its pages, each other one gives the page once more.
import type { Language, Site } from '@dusky-otter/core/contract';
import { primaryOf } from '@dusky-otter/core/html';
import { CHECKED_LANGUAGES, languageFrom, languageName, namedLanguages } from '@dusky-otter/core/words';
import { useState } from 'react';
import { edit } from '../server/state.ts';

const save = (label: string, languages: Language[]): void =>
  edit(label, [{ kind: 'site', change: { languages } }]);

export function Languages({ site }: { site: Site }) {
  const { languages } = site;
  const [typed, setTyped] = useState('');
  const found = languageFrom(typed);
  const problem =
    typed.trim() === ''
      ? null
      : found === null
        ? `“${typed.trim()}” is no language: write its name, such as German.`
        : languages.includes(found)
          ? `${languageName(found)} is there already.`
          : null;
  return (
    <section
      aria-labelledby="languages"
      className="grid grid-cols-[170px_1fr] gap-x-4 border-b border-rule px-4 py-3 max-[700px]:block"
    >
      <h2 id="languages" className="text-[14px] font-[600]">
        Languages
      </h2>
      <div>
        <ul className="grid gap-1">
          {languages.map((language, n) => (
            <li key={language} className="flex flex-wrap items-baseline gap-2">
              <b className="font-[560]">{languageName(language)}</b>
              <span className="text-[12.5px] text-ink-2">
                {n === 0
                  ? 'of the page; words are written in it first'
                  : `a page of its own, in the folder ${language}`}
                {!CHECKED_LANGUAGES.includes(primaryOf(language)) &&
                  '; of its words only what hangs on no language is checked'}
              </span>
              {n > 0 && (
                <button
                  className="chip h-[24px]"
                  onClick={() =>
                    save(
                      `${languageName(language)} taken out`,
                      languages.filter((one) => one !== language),
                    )
                  }
                >
                  Take it out
                </button>
              )}
            </li>
          ))}
        </ul>
        <form
          className="mt-2 flex flex-wrap items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (found === null || problem !== null) return;
            save(`${languageName(found)} added`, [...languages, found]);
            setTyped('');
          }}
        >
          <input
            className="field h-[28px] w-[210px] py-0"
            aria-label="Another language"
            list="named-languages"
            autoComplete="off"
            placeholder="German, French, Arabic …"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <datalist id="named-languages">
            {[...namedLanguages()]
              .filter(([, tag]) => !languages.includes(tag))
              .map(([name, tag]) => (
                <option key={tag} value={name} />
              ))}
          </datalist>
          <button className="btn h-[28px]" disabled={typed.trim() === '' || problem !== null}>
            Add
          </button>
          <span role="status" className="text-[12.5px] text-ink-2">
            {problem ??
              (found && typed.trim() !== ''
                ? `${languageName(found)}, “${found}” in pages and folders`
                : 'Words of one that is taken out are kept, and come back with it.')}
          </span>
        </form>
      </div>
    </section>
  );
}
