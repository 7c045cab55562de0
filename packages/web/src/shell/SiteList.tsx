// The first screen: the sites with their sets, how far each has come, and places to begin new ones.
import { useQuery } from '@tanstack/react-query';
import type { SetSummary } from '@dusky-otter/core/contract';
import { useEffect, useState } from 'react';
import { api } from '../api/client.ts';
import { notifyFailure } from '../screen/screen.ts';
import { keys } from '../server/keys.ts';
import { client } from '../server/state.ts';
import { FirstDrop } from './FirstDrop.tsx';
import { DemoButton, FirstRun } from './FirstRun.tsx';
import { Masthead } from './Masthead.tsx';
import { NewSite } from './NewSite.tsx';
import { Notices } from './Notices.tsx';
import { COLUMNS, nextStopOf, stopsOf } from './SetLine.tsx';
import { SiteSection } from './SiteSection.tsx';
import { STOPS } from '../screen/stops.ts';

/** What of the sets one wants to see. */
const WAYS: { id: string; name: string; holds: (set: SetSummary) => boolean }[] = [
  { id: 'all', name: 'All', holds: () => true },
  {
    id: 'open',
    name: 'To go on with',
    holds: (set) => {
      const next = nextOf(set);
      return next !== null && next !== 'hand-over' && set.photos > 0;
    },
  },
  { id: 'ready', name: 'Ready to hand over', holds: (set) => nextOf(set) === 'hand-over' },
  { id: 'out', name: 'Out', holds: (set) => set.counts !== null && nextOf(set) === null },
];

function nextOf(set: SetSummary) {
  const states = stopsOf(set);
  return states && nextStopOf(states);
}

const lastWorkedOn = (sets: readonly SetSummary[]): number | null =>
  sets.reduce<SetSummary | null>(
    (last, set) => (set.workedAt && (!last?.workedAt || set.workedAt > last.workedAt) ? set : last),
    null,
  )?.id ?? null;

export function SiteList() {
  const {
    data: sites,
    error,
    refetch,
  } = useQuery({ queryKey: keys.sites, queryFn: api.sites, staleTime: 0, refetchOnWindowFocus: true });
  const [way, setWay] = useState('all');
  useEffect(() => {
    document.title = 'Sites and sets · Dusky Otter';
  }, []);
  const read = () => void client.invalidateQueries({ queryKey: keys.sites });
  const act = (body: () => Promise<unknown>) => {
    body().then(read, notifyFailure);
  };
  const here = sites?.filter(({ archived }) => !archived) ?? [];
  const archived = sites?.filter((site) => site.archived) ?? [];
  const sets = here.flatMap((site) => site.sets.filter((set) => !set.archived));
  const { holds } = WAYS.find(({ id }) => id === way)!;
  const last = lastWorkedOn(sets);
  return (
    <FirstDrop sites={sites ? here : null} className="grid h-full grid-rows-[56px_minmax(0,1fr)]">
      <Masthead>
        <b className="truncate font-title text-[17px] font-[620] leading-tight">Sites and sets</b>
        <span className="truncate text-[12px] text-ink-2">on this machine</span>
      </Masthead>
      <main className="overflow-auto bg-sheet pb-10">
        {error && (
          <p role="alert" className="p-8">
            {error.message}{' '}
            <button className="btn ml-2" onClick={() => void refetch()}>
              Try again
            </button>
          </p>
        )}
        {sites?.length === 0 && <FirstRun onMade={read} />}
        {sites && sites.length > 0 && (
          <>
            <h1 className="sr-only">Sites and sets</h1>
            <div className="flex min-h-[48px] flex-wrap items-center gap-2 border-b border-rule px-4 py-1.5">
              <div role="group" aria-label="Show sets" className="flex flex-wrap gap-1.5">
                {WAYS.map(({ id, name, holds: has }) => (
                  <button key={id} className="chip" aria-pressed={id === way} onClick={() => setWay(id)}>
                    {name} <b className="font-semibold">{sets.filter(has).length}</b>
                  </button>
                ))}
              </div>
              <span className="ml-auto" />
              {sets.length === 0 && <DemoButton />}
              <NewSite onMade={read} />
            </div>
            <div
              aria-hidden="true"
              className={`${COLUMNS} h-[28px] gap-x-2 border-b border-rule-strong bg-paper px-4 text-[11.5px] font-[560] text-ink-2 max-[940px]:hidden`}
            >
              <span>Photos</span>
              <span>Set</span>
              {STOPS.map(({ id, name }) => (
                <span key={id} className="text-center">
                  {name}
                </span>
              ))}
              <span className="justify-self-end">Next</span>
            </div>
            {here.map((site) => (
              <SiteSection
                key={site.id}
                site={site}
                shown={site.sets.filter((set) => !set.archived && holds(set))}
                lastSet={last}
                onChange={read}
                act={act}
              />
            ))}
            {archived.length > 0 && (
              <section className="px-4 py-3 text-[13px] text-ink-2" aria-label="Sites put away">
                {archived.map((site) => (
                  <div key={site.id} className="flex items-center gap-3 py-1">
                    <span>
                      <b className="text-ink">{site.name}</b>, put away with {site.sets.length}{' '}
                      {site.sets.length === 1 ? 'set' : 'sets'}
                    </span>
                    <button
                      className="chip"
                      aria-label={`Bring back ${site.name}`}
                      onClick={() => act(() => api.archiveSite(site.id, false))}
                    >
                      Bring back
                    </button>
                  </div>
                ))}
              </section>
            )}
          </>
        )}
      </main>
      <Notices />
    </FirstDrop>
  );
}
