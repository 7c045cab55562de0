// One part of the page: what it says, or which place it is.
import { arrangementIn } from '@dusky-otter/core/arrange';
import type { Everywhere, PagePart, PhotoSet, SetPage, Site, Slot } from '@dusky-otter/core/contract';
import { ownNameOf } from '@dusky-otter/core/words';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { TextLine } from '../ui/TextLine.tsx';
import { Tick } from '../ui/Tick.tsx';
import { putEverywhere, putParts } from '../editing/page.ts';

const PassageEditor = lazy(() => import('../editing/PassageEditor.tsx'));

const NAMES = { heading: 'Heading', text: 'Text', languages: 'Links to other languages' } as const;

const WHERE: readonly { at: Everywhere['at'] | null; name: string }[] = [
  { at: null, name: 'this page alone' },
  { at: 'above', name: 'every page, above what it holds' },
  { at: 'below', name: 'every page, below what it holds' },
];

/** An arrangement may stand on the site's other pages, too, with the photos of this set. */
function OnPages({ set, site, slot }: { set: PhotoSet; site: Site; slot: Slot }) {
  const kept = site.everywhere.find((one) => one.slot === slot.id);
  const isOthers = kept !== undefined && kept.set !== set.id;
  return (
    <label className="grid gap-1">
      <span className="text-[12.5px] text-ink-2">Stands on</span>
      <select
        className="field"
        disabled={isOthers}
        value={kept?.at ?? ''}
        onChange={({ target }) => putEverywhere(site, set.id, slot, WHERE[target.selectedIndex]!.at)}
      >
        {WHERE.map(({ at, name }) => (
          <option key={name} value={at ?? ''}>
            {name}
          </option>
        ))}
      </select>
      {kept && (
        <span className="text-[12.5px] text-ink-2">
          {isOthers
            ? 'Another set puts it onto every page; here it stands with the photos of this one.'
            : 'Its photos go out with each of them: what is changed here changes every page.'}
        </span>
      )}
    </label>
  );
}

interface Props {
  page: SetPage;
  n: number;
  set: PhotoSet;
  site: Site;
  close: () => void;
}

export function PartFields({ page, n, set, site, close }: Props) {
  const part = page.parts[n]!;
  const put = (next: PagePart, what: string, began?: number) =>
    putParts(page, page.parts.with(n, next), what, began);
  const slot = part.kind === 'place' ? site.slots.find(({ id }) => id === part.slot) : undefined;
  return (
    <section className="grid gap-2.5 border-b border-rule-strong pb-3.5" aria-label="The part in hand">
      <div className="flex items-baseline gap-2">
        <h2 className="flex-1 font-title text-[14px] font-[600]">
          {part.kind === 'place' ? (slot?.name ?? 'A place') : NAMES[part.kind]}
        </h2>
        <button
          className="chip"
          onClick={() => {
            putParts(page, page.parts.toSpliced(n, 1), 'part taken out');
            close();
          }}
        >
          Take it out
        </button>
        <button className="chip" onClick={close}>
          Done
        </button>
      </div>
      {part.kind === 'heading' && (
        <TextLine
          label="What it says"
          most={200}
          saved={part.text}
          version={set.version}
          problemOf={(text) =>
            text.trim() === '' ? 'A heading says something; take it out otherwise.' : null
          }
          save={(text, began) => put({ ...part, text }, 'heading', began)}
        />
      )}
      {part.kind === 'text' && (
        <Suspense fallback={<p className="text-ink-2">Opening…</p>}>
          <PassageEditor
            passage={part.passage}
            version={set.version}
            label={`Text ${n + 1} on the page`}
            language={site.languages[0] ?? 'en'}
            save={(passage, began) => put({ ...part, passage }, 'text', began)}
          />
        </Suspense>
      )}
      {part.kind === 'languages' && (
        <p className="text-[12.5px] text-ink-2">
          {site.languages.length > 1
            ? `The page in ${site.languages.map((one) => ownNameOf(one)).join(', ')}: each leads to the same page, and so do they on further pages and on those of single pictures.`
            : 'The site has one language: nothing is shown here until the rules name another.'}
        </p>
      )}
      {part.kind === 'place' && (
        <>
          <Tick checked={part.titled} set={(titled) => put({ ...part, titled }, 'title')}>
            its title stands above it
          </Tick>
          {slot && arrangementIn(slot) && <OnPages {...{ set, site, slot }} />}
          {slot && arrangementIn(slot) ? (
            <Link className="btn justify-self-start" to={`/sets/${set.id}/arrange/${slot.id}`}>
              Open its bench
            </Link>
          ) : (
            <p className="text-[12.5px] text-ink-2">
              {slot
                ? 'The photos that stand in this place, one beside the other.'
                : 'This place is gone from the site: it shows nothing.'}
            </p>
          )}
        </>
      )}
    </section>
  );
}
