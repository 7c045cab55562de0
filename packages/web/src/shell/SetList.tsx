// The first screen: the site's sets, and a place to begin a new one.
import { Plus } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, viewAddress, type SiteWithSets } from '../api/client.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { TopBar } from './TopBar.tsx';

function NewSet({ siteId }: { siteId: number }) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const begin = async () => {
    try {
      const { id } = await api.newSet(siteId, name);
      await navigate(`/sets/${id}/gather`);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <button className="btn btn-main" onClick={() => setOpen(true)}>
        <Plus size={15} aria-hidden="true" /> New set
      </button>
      <Sheet
        open={open}
        onClose={() => setOpen(false)}
        title="New set"
        about="A set is a group of photos for one page."
      >
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void begin();
          }}
        >
          <label className="block font-semibold">
            Name
            <input
              className="field mt-1 text-[15px]"
              value={name}
              maxLength={200}
              placeholder="Shop, winter glazes"
              onChange={(event) => setName(event.target.value)}
              aria-describedby="new-set-problem"
            />
          </label>
          <p id="new-set-problem" role="alert" className="mt-1 min-h-5 text-rust">
            {problem}
          </p>
          <button className="btn btn-main" disabled={name.trim() === ''}>
            Begin
          </button>
        </form>
      </Sheet>
    </>
  );
}

export function SetList() {
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
  useEffect(read, []);
  return (
    <div className="grid h-full grid-rows-[48px_1fr]">
      <TopBar />
      <main className="overflow-auto bg-sheet">
        {problem && (
          <p role="alert" className="p-8">
            {problem}{' '}
            <button className="btn ml-2" onClick={read}>
              Try again
            </button>
          </p>
        )}
        {sites?.map((site) => (
          <section
            key={site.id}
            className="mx-auto max-w-[860px] px-6 py-8"
            aria-labelledby={`site-${site.id}`}
          >
            <div className="flex items-center gap-3 border-b border-rule-strong pb-3">
              <h1 id={`site-${site.id}`} className="text-[24px] font-[620]">
                {site.name}
              </h1>
              <span className="ml-auto" />
              <NewSet siteId={site.id} />
            </div>
            <ul>
              {site.sets.map((set) => (
                <li key={set.id} className="border-b border-rule">
                  <Link to={`/sets/${set.id}/gather`} className="flex items-center gap-4 py-3 hover:bg-paper">
                    <span className="grid h-[64px] w-[92px] place-items-center overflow-hidden bg-neutral">
                      {set.cover && (
                        <img src={viewAddress(set.cover, 'row')} alt="" className="max-h-full max-w-full" />
                      )}
                    </span>
                    <span className="font-title text-[16px] font-[560]">{set.name}</span>
                    <span className="ml-auto text-ink-2">
                      {set.photos} {set.photos === 1 ? 'photo' : 'photos'}
                    </span>
                  </Link>
                </li>
              ))}
              {site.sets.length === 0 && (
                <li className="py-6 text-ink-2">No set yet. A set holds the photos of one page.</li>
              )}
            </ul>
          </section>
        ))}
        {sites?.length === 0 && (
          <p className="p-8">There is no site yet. Start the application with its demo to see one.</p>
        )}
      </main>
    </div>
  );
}
