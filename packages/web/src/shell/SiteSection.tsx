// A site on the start screen: its name, its sets, and below a fold those that were put away.
import { sumOf, wordsSaid } from '../describe/Progress.tsx';
import type { SetSummary, SiteSummary } from '@dusky-otter/core/contract';
import { typedPlaces } from '@dusky-otter/core/slots';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { NameSheet } from '../ui/NameSheet.tsx';
import { some } from '../ui/some.ts';
import { SetLine } from './SetLine.tsx';

interface Props {
  site: SiteSummary;
  /** Sets that are shown, of those that are not put away. */
  shown: readonly SetSummary[];
  lastSet: number | null;
  /** Something was changed: the list is read anew. */
  onChange: () => void;
  act: (body: () => Promise<unknown>) => void;
}

type Asking = { kind: 'set' } | { kind: 'site' } | { kind: 'rename'; set: SetSummary } | null;

const PLAIN = 'text-[12.5px] text-ink-2 underline decoration-rule-strong hover:text-ink';

function Away({ sets, act }: { sets: readonly SetSummary[]; act: Props['act'] }) {
  const [open, setOpen] = useState(false);
  if (sets.length === 0) return null;
  return (
    <div className="border-b border-rule px-4 py-1.5 text-[12.5px] text-ink-2">
      {sets.length} {sets.length === 1 ? 'set' : 'sets'} put away{' '}
      <button className={PLAIN} aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Hide them' : 'Show them'}
      </button>
      {open && (
        <ul className="mt-1">
          {sets.map(({ id, name, photos }) => (
            <li key={id} className="flex items-center gap-3 py-1">
              <span className="text-ink">{name}</span> {photos} {photos === 1 ? 'photo' : 'photos'}
              <button
                className="chip ml-auto"
                aria-label={`Bring back ${name}`}
                onClick={() => act(() => api.changeSet(id, { archived: false }))}
              >
                Bring back
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

export function SiteSection({ site, shown, lastSet, onChange, act }: Props) {
  const [asking, setAsking] = useState<Asking>(null);
  const navigate = useNavigate();
  const here = site.sets.filter(({ archived }) => !archived);
  // Places are the site's, and are seen from within a set.
  const first = here[0];
  const places = typedPlaces(site.slots).length;
  const said = wordsSaid(sumOf(here.flatMap(({ counts }) => counts?.words ?? [])));
  return (
    // Sites may have one name: landmarks that can't be told apart help nobody.
    <div data-site={site.id}>
      <div className="flex min-h-[42px] flex-wrap items-baseline gap-x-3 border-b border-rule-strong px-4 pb-2 pt-3">
        <h2 className="text-[17px] font-[620]">{site.name}</h2>
        <span className="text-[12.5px] text-ink-2">
          {some(here.length, 'set', 'sets')},{' '}
          {first ? (
            <Link className="underline decoration-rule-strong hover:text-ink" to={`/sets/${first.id}/places`}>
              {some(places, 'place', 'places')}
            </Link>
          ) : (
            some(places, 'place', 'places')
          )}
          {said && `; words: ${said}`}
        </span>
        <span className="ml-auto" />
        <button
          className={PLAIN}
          onClick={() => setAsking({ kind: 'site' })}
          aria-label={`Rename ${site.name}`}
        >
          Rename
        </button>
        <button
          className={PLAIN}
          onClick={() => act(() => api.archiveSite(site.id, true))}
          aria-label={`Put away ${site.name}`}
        >
          Put away
        </button>
        <button className="btn" onClick={() => setAsking({ kind: 'set' })}>
          New set
        </button>
      </div>
      <ul>
        {shown.map((set) => (
          <li key={set.id} className="border-b border-rule">
            <SetLine
              set={set}
              last={set.id === lastSet}
              onRename={() => setAsking({ kind: 'rename', set })}
              onAway={() => act(() => api.changeSet(set.id, { archived: true }))}
            />
          </li>
        ))}
        {here.length === 0 && (
          <li className="border-b border-rule px-4 py-5 text-ink-2">
            No set yet. A set holds the photos of one page: begin one, and drop them there.
          </li>
        )}
      </ul>
      <Away sets={site.sets.filter(({ archived }) => archived)} act={act} />
      <NameSheet
        open={asking?.kind === 'set'}
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
        key={`${site.name} ${site.version}`}
        open={asking?.kind === 'site'}
        onClose={() => setAsking(null)}
        title="Rename the site"
        about="The name stands over its sets, and in the manifest of what goes out."
        example="Gullmoor Pottery"
        action="Rename"
        name={site.name}
        onName={async (name) => {
          await api.renameSite(site.id, name, site.version);
          onChange();
        }}
      />
      {asking?.kind === 'rename' && (
        <NameSheet
          open
          onClose={() => setAsking(null)}
          title="Rename the set"
          about="The name stands over its photos, and on the page that goes out."
          example="Shop, winter glazes"
          action="Rename"
          name={asking.set.name}
          onName={async (name) => {
            await api.changeSet(asking.set.id, { name });
            onChange();
          }}
        />
      )}
    </div>
  );
}
