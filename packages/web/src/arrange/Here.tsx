// What is decided for one picture of an arrangement alone: where it leads, words that differ here, and a crop of its own.
import { slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { Arrangement, Words } from '@dusky-otter/core/contract';
import { captionsProblem, isFilm, linkProblem } from '@dusky-otter/core/html';
import { shownName } from '@dusky-otter/core/naming';
import { placementIn } from '@dusky-otter/core/plan';
import { languageName } from '@dusky-otter/core/words';
import { Link } from 'react-router';
import { useSetId, useSetPlaces, useSite, type Row } from '../server/hooks.ts';
import { TextLine } from '../ui/TextLine.tsx';
import { CropHere } from './CropHere.tsx';
import { placeHere } from '../editing/placing.ts';

const WORDS = [
  { part: 'title', name: 'Title here', most: 500 },
  { part: 'caption', name: 'Caption here', most: 1000 },
  { part: 'alt', name: 'Alt text here', most: 1000 },
] as const;

interface Props {
  arrangement: Arrangement;
  row: Row;
  close: () => void;
}

export function Here({ arrangement, row, close }: Props) {
  const setId = useSetId();
  const setPlaces = useSetPlaces();
  const site = useSite();
  const { shortName } = arrangement;
  const here = placementIn(row, shortName);
  const name = shownName(row.words, row.fileName);
  const { shapes } = slotsOfArrangement(arrangement).cell;
  const say = (part: keyof Words, text: string, what: string, began: number) => {
    const others = Object.fromEntries(Object.entries(here.words).filter(([name]) => name !== part));
    // What is said as elsewhere follows what is said elsewhere.
    const words = text.trim() === '' || text === row.words[part] ? others : { ...others, [part]: text };
    placeHere(row, setPlaces, { slot: shortName, words }, what, began);
  };
  return (
    <section className="grid gap-2.5 border-b border-rule-strong pb-3.5" aria-label={`${name}, here alone`}>
      <div className="flex items-baseline gap-2">
        <h2 className="min-w-0 flex-1 truncate font-title text-[14px] font-[600]">{name}, here alone</h2>
        <button className="chip" onClick={close}>
          Done
        </button>
      </div>
      <TextLine
        key={`link ${row.id}`}
        label="Leads to"
        most={2000}
        mono
        saved={here.link}
        version={row.version}
        placeholder="../shop/, https://…, or film.webm"
        problemOf={linkProblem}
        save={(link, began) => placeHere(row, setPlaces, { slot: shortName, link }, 'link', began)}
        hint="Empty: what a click does in this arrangement. A film’s file makes the picture its poster."
      />
      {WORDS.map(({ part, name: label, most }) => (
        <TextLine
          key={`${part} ${row.id}`}
          label={label}
          most={most}
          saved={here.words[part] ?? ''}
          version={row.version}
          placeholder={row.words[part] || 'as elsewhere: none'}
          save={(text, began) => say(part, text, part === 'alt' ? 'alt text' : part, began)}
        />
      ))}
      {isFilm(here.link) &&
        (site?.languages ?? []).map((language, n) => (
          <TextLine
            key={`captions ${language} ${row.id}`}
            label={`Captions of the film, ${languageName(language)}`}
            most={2000}
            mono
            saved={here.captions?.[language] ?? ''}
            version={row.version}
            placeholder="film.vtt"
            problemOf={(text) => (text.trim() === '' ? null : captionsProblem(text))}
            save={(text, began) => {
              const said = Object.entries({ ...here.captions, [language]: text.trim() });
              const captions = Object.fromEntries(said.filter(([, address]) => address));
              placeHere(row, setPlaces, { slot: shortName, captions }, 'captions', began);
            }}
            hint={n === 0 && 'A WebVTT file. The title here is the film’s title, the picture its poster.'}
          />
        ))}
      {shapes.map(
        ({ shape }) => shape !== 'own' && <CropHere key={shape} row={row} slot={shortName} shape={shape} />,
      )}
      <p className="text-[12.5px] text-ink-2">
        Everywhere:{' '}
        <Link className="underline" to={`/sets/${setId}/describe/${row.id}`}>
          its words
        </Link>
        ,{' '}
        <Link className="underline" to={`/sets/${setId}/frame/${row.id}`}>
          its frame
        </Link>
      </p>
    </section>
  );
}
