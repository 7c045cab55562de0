// Words and links of all pictures of a rotating hero in one go: two fields a picture, from one to the next by Tab.
import type { Arrangement, Words } from '@dusky-otter/core/contract';
import { linkProblem } from '@dusky-otter/core/html';
import { shownName } from '@dusky-otter/core/naming';
import { placementIn } from '@dusky-otter/core/plan';
import { useDraft } from '../screen/draft.ts';
import { useSetPlaces, type Row } from '../server/hooks.ts';
import { placeHere } from '../editing/placing.ts';
import { TextLine } from '../ui/TextLine.tsx';
import { Thumb } from './Thumb.tsx';

/** A title and what stands below it, as one text: its first line, and the rest. */
const asText = ({ title = '', caption = '' }: Partial<Pick<Words, 'title' | 'caption'>>): string =>
  caption === '' ? title : `${title}\n${caption}`;

function fromText(text: string): Pick<Words, 'title' | 'caption'> {
  const [title = '', ...rest] = text.split('\n');
  return { title: title.trim(), caption: rest.join(' ').replace(/\s+/g, ' ').trim() };
}

function Picture({ arrangement, row }: { arrangement: Arrangement; row: Row }) {
  const setPlaces = useSetPlaces();
  const { shortName } = arrangement;
  const here = placementIn(row, shortName);
  const name = shownName(row.words, row.fileName);
  const saved = asText({ ...row.words, ...here.words });
  const draft = useDraft(saved, row.version, (text, began) => {
    const others = Object.entries(here.words).filter(([part]) => part !== 'title' && part !== 'caption');
    const said = Object.entries(fromText(text)).filter(([part, now]) => now !== row.words[part as 'title']);
    // What is said as elsewhere follows what is said elsewhere.
    const words = Object.fromEntries([...others, ...said]) as Partial<Words>;
    placeHere(row, setPlaces, { slot: shortName, words }, 'words', began);
  });
  return (
    <div className="grid grid-cols-[46px_minmax(0,1fr)] gap-x-2 gap-y-1.5 border-t border-rule pt-2">
      <Thumb row={row} />
      <label className="grid gap-1 text-[12px] text-ink-2">
        <span className="truncate">Words of {name}</span>
        <textarea
          className="field h-[76px] text-[13.5px] text-ink"
          maxLength={1500}
          value={draft.text}
          onChange={(event) => draft.change(event.target.value)}
          onBlur={draft.flush}
        />
      </label>
      <span />
      <TextLine
        label={`${name} leads to`}
        most={2000}
        mono
        saved={here.link}
        version={row.version}
        problemOf={linkProblem}
        save={(link, began) => placeHere(row, setPlaces, { slot: shortName, link }, 'link', began)}
      />
    </div>
  );
}

export function HeroWords({ arrangement, rows }: { arrangement: Arrangement; rows: readonly Row[] }) {
  if (rows.length === 0) return null;
  return (
    <section className="grid gap-2 border-t border-rule-strong pt-3" aria-labelledby="hero-words">
      <h2 id="hero-words" className="font-title text-[14px] font-[600]">
        Words and links here
      </h2>
      <p className="text-[12.5px] text-ink-2">
        The first line is the title. They hold in this arrangement alone.
      </p>
      {rows.map((row) => (
        <Picture key={row.id} arrangement={arrangement} row={row} />
      ))}
    </section>
  );
}
