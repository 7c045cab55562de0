// Photos that are dropped or pasted on the first screen: into a set that is there, or a new one; a site is made on the way.
import type { SiteSummary } from '@dusky-otter/core/contract';
import { useState, type ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../api/client.ts';
import { gather } from '../gather/arrivals.ts';
import { DropSign } from '../gather/DropSign.tsx';
import { meant, NOTHING_THERE } from '../gather/dropped.ts';
import { usePaste } from '../gather/pasted.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { some } from '../ui/some.ts';

/** What a site and a set are called until somebody says otherwise. */
const SITE = 'My site';
const newSetName = (): string =>
  `Photos of ${new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })}`;

/** Sets that are offered of a site, those worked on last first. */
const MOST_SETS = 6;

function latest({ sets }: SiteSummary) {
  return sets
    .filter(({ archived }) => !archived)
    .sort((a, b) => ((a.workedAt ?? '') < (b.workedAt ?? '') ? 1 : -1))
    .slice(0, MOST_SETS);
}

interface Props {
  /** Sites that are worked on; null until they are read. */
  sites: readonly SiteSummary[] | null;
  className: string;
  children: ReactNode;
}

export function FirstDrop({ sites, className, children }: Props) {
  const [dropped, setDropped] = useState<File[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const into = async (findSet: () => Promise<number>, files: readonly File[]) => {
    try {
      const setId = await findSet();
      await navigate(`/sets/${setId}/gather`);
      await gather(setId, files);
    } catch (error) {
      // What was dropped is still there to be put elsewhere.
      if (sites?.length === 0) notifyFailure(error);
      else setProblem(sentenceOf(error));
    }
  };
  const newSetOf = async (siteId: number) => (await api.newSet(siteId, newSetName())).id;
  const take = (files: readonly File[]) => {
    const those = meant(files);
    setProblem(null);
    if (those.length === 0) notify(NOTHING_THERE, 'bad');
    else if (sites?.length === 0) void into(async () => newSetOf((await api.newSite(SITE)).id), those);
    else if (sites) setDropped(those);
  };
  usePaste(take);
  const { getRootProps, isDragActive } = useDropzone({
    onDrop: take,
    noClick: true,
    noKeyboard: true,
    useFsAccessApi: false,
  });
  return (
    <div {...getRootProps({ role: undefined, tabIndex: undefined })} className={className}>
      {children}
      {isDragActive && (
        <DropSign
          said={
            sites?.length === 0 ? 'Let go to begin with these photos' : 'Let go, and say where they belong'
          }
        />
      )}
      <Sheet
        open={dropped.length > 0}
        onClose={() => setDropped([])}
        title={`Where ${dropped.length === 1 ? 'does' : 'do'} ${some(dropped.length, 'file', 'files')} belong?`}
        about="A set holds the photos of one page."
      >
        <p role="alert" className="text-rust">
          {problem}
        </p>
        {sites?.map((site) => (
          <section key={site.id} className="mb-4" aria-label={site.name}>
            <h2 className="mb-1.5 text-[14px] font-semibold">{site.name}</h2>
            <div className="flex flex-wrap gap-1.5">
              {latest(site).map(({ id, name }) => (
                <button
                  key={id}
                  className="btn"
                  onClick={() => void into(() => Promise.resolve(id), dropped)}
                >
                  {name}
                </button>
              ))}
              <button className="btn btn-main" onClick={() => void into(() => newSetOf(site.id), dropped)}>
                A new set
              </button>
            </div>
          </section>
        ))}
      </Sheet>
    </div>
  );
}
