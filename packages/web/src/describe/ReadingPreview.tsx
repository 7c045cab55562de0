// The page of a set as it is heard, place by place.
import { slotsOf } from '@dusky-otter/core/plan';
import { slotsIn, standable } from '@dusky-otter/core/slots';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useList, useRows, useSet, useSetId, useSetPlaces, useSite } from '../server/hooks.ts';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { ReadAloud } from './ReadAloud.tsx';
import { Head } from '../ui/Head.tsx';

/** Photos that are read in one go. */
const READ = 100;

export function ReadingPreview() {
  const setId = useSetId();
  const set = useSet();
  const site = useSite();
  const setPlaces = useSetPlaces();
  const navigate = useNavigate();
  const list = useList('all', 0, READ - 1);
  const rows = useRows(list.ids.slice(0, READ));
  const [chosen, setChosen] = useState<string | null>(null);
  useBenchKeys({ Escape: () => void navigate(`/sets/${setId}/describe`) });
  const places = site
    ? standable(site.slots).filter((slot) =>
        rows.some((row) => slotsIn(site, slotsOf(row, setPlaces)).includes(slot)),
      )
    : [];
  const place = places.find(({ id }) => id === chosen);
  const versions = rows.map(({ id, version }) => `${id}.${version}`).join();
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title="How the page is heard">
        <div role="group" aria-label="Place" className="flex flex-wrap gap-1.5">
          <button className="chip" aria-pressed={!place} onClick={() => setChosen(null)}>
            All places
          </button>
          {places.map(({ id, name }) => (
            <button key={id} className="chip" aria-pressed={place?.id === id} onClick={() => setChosen(id)}>
              {name}
            </button>
          ))}
        </div>
        <span className="ml-auto" />
        <Link to={`/sets/${setId}/describe`} className="btn btn-main">
          Back to the table
        </Link>
      </Head>
      <div className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[760px] p-4">
          {rows.length > 0 ? (
            <ReadAloud
              setId={setId}
              photos={rows.map(({ id }) => id)}
              whole={!place}
              slot={place?.id}
              here={-1}
              version={versions}
              language={site?.languages[0] ?? 'en'}
              about={`${set?.name ?? ''}, ${list.total > READ ? `the first ${READ} of ${list.total} photos` : 'all photos'}, as a screen reader goes through it`}
            />
          ) : (
            <p className="p-4 text-ink-2">
              {list.reading ? 'Reading…' : 'There is no photo in the set yet.'}
            </p>
          )}
        </div>
      </div>
    </main>
  );
}
