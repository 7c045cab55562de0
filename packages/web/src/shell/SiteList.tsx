// The first screen: the sites with their sets, and places to begin new ones.
import { Plus } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { SetSummary } from '@dusky-otter/core';
import { api, viewAddress, type SiteWithSets } from '../api/client.ts';
import { StateTag } from '../ui/marks.tsx';
import { DemoButton, FirstRun } from './FirstRun.tsx';
import { Masthead } from './Masthead.tsx';
import { NameSheet } from './NameSheet.tsx';
import { NewSite } from './NewSite.tsx';

function SetLine({ set }: { set: SetSummary }) {
  const picture = (
    <span className="grid h-[64px] w-[92px] shrink-0 place-items-center overflow-hidden bg-neutral">
      {set.cover && <img src={viewAddress(set.cover, 'row')} alt="" className="max-h-full max-w-full" />}
    </span>
  );
  const name = <span className="font-title text-[16px] font-[560]">{set.name}</span>;
  if (set.problem !== null) {
    return (
      <div className="flex items-center gap-4 py-3">
        {picture}
        <span className="grid gap-1">
          {name}
          <StateTag state="stop">{set.problem}</StateTag>
        </span>
      </div>
    );
  }
  return (
    <Link to={`/sets/${set.id}/gather`} className="flex items-center gap-4 py-3 hover:bg-paper">
      {picture}
      {name}
      <span className="ml-auto whitespace-nowrap text-ink-2">
        {set.photos} {set.photos === 1 ? 'photo' : 'photos'}
      </span>
    </Link>
  );
}

function SiteSection({ site, onChange }: { site: SiteWithSets; onChange: () => void }) {
  const [asking, setAsking] = useState<'set' | 'name' | null>(null);
  const navigate = useNavigate();
  return (
    <div className="mx-auto max-w-[860px] px-6 pt-8 max-[700px]:px-3">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule-strong pb-3">
        <h2 className="text-[22px] font-[620]">{site.name}</h2>
        <button className="chip" onClick={() => setAsking('name')} aria-label={`Rename ${site.name}`}>
          Rename
        </button>
        <button className="btn btn-main ml-auto" onClick={() => setAsking('set')}>
          <Plus size={15} aria-hidden="true" /> New set
        </button>
      </div>
      <ul>
        {site.sets.map((set) => (
          <li key={set.id} className="border-b border-rule">
            <SetLine set={set} />
          </li>
        ))}
        {site.sets.length === 0 && (
          <li className="py-6 text-ink-2">
            No set yet. A set holds the photos of one page: begin one, and drop them there.
          </li>
        )}
      </ul>
      <NameSheet
        open={asking === 'set'}
        onClose={() => setAsking(null)}
        title="New set"
        about="A set is a group of photos for one page."
        example="Shop, winter glazes"
        action="Begin"
        onName={async (name) => {
          const { id } = await api.newSet(site.id, name);
          await navigate(`/sets/${id}/gather`);
        }}
      />
      <NameSheet
        key={site.name}
        open={asking === 'name'}
        onClose={() => setAsking(null)}
        title="Rename the site"
        about="The name stands over its sets, and in the manifest of what goes out."
        example="Gullmoor Pottery"
        action="Rename"
        name={site.name}
        onName={async (name) => {
          await api.renameSite(site.id, name);
          onChange();
        }}
      />
    </div>
  );
}

export function SiteList() {
  const [sites, setSites] = useState<SiteWithSets[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const read = () => {
    api.sites().then(
      (found) => {
        setProblem(null);
        setSites(found);
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  useEffect(() => {
    document.title = 'Sites and sets · Dusky Otter';
    read();
  }, []);
  const hasSets = sites?.some((site) => site.sets.length > 0);
  return (
    <div className="grid h-full grid-rows-[56px_minmax(0,1fr)]">
      <Masthead>
        <b className="truncate font-title text-[17px] font-[620] leading-tight">Sites and sets</b>
        <span className="truncate text-[12px] text-ink-2">on this machine</span>
      </Masthead>
      <main className="overflow-auto bg-sheet pb-10">
        {problem && (
          <p role="alert" className="p-8">
            {problem}{' '}
            <button className="btn ml-2" onClick={read}>
              Try again
            </button>
          </p>
        )}
        {sites?.length === 0 && <FirstRun onMade={read} />}
        {sites && sites.length > 0 && (
          <>
            <h1 className="sr-only">Sites and sets</h1>
            {sites.map((site) => (
              <SiteSection key={site.id} site={site} onChange={read} />
            ))}
            <div className="mx-auto flex max-w-[860px] flex-wrap items-center gap-3 px-6 pt-10 max-[700px]:px-3">
              <NewSite onMade={read} />
              {!hasSets && <DemoButton />}
            </div>
          </>
        )}
      </main>
    </div>
  );
}
