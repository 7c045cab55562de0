// The bench of a set's page: its parts in order, the page as it goes out, and what it is called and looks like.
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { ProofPane } from '../proof/ProofPane.tsx';
import { useCounts, useEdition, useSet, useSite } from '../server/hooks.ts';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { pageNow } from '../editing/page.ts';
import { PageFields } from './PageFields.tsx';
import { PartFields } from './PartFields.tsx';
import { PageParts } from './PageParts.tsx';
import { LanguagesLink } from '../languages/LanguagesLink.tsx';
import { Head } from '../ui/Head.tsx';

export function Page() {
  const set = useSet();
  const site = useSite();
  const counts = useCounts();
  const navigate = useNavigate();
  const edition = useEdition();
  const [inHand, setInHand] = useState<number | null>(null);
  const { data } = useQuery({
    queryKey: ['pages', set?.id, set?.version],
    enabled: set !== null,
    queryFn: () => api.pages(set!.id),
    placeholderData: (before) => before,
  });
  useBenchKeys({
    Escape: () => (inHand === null ? set && void navigate(`/sets/${set.id}/arrange`) : setInHand(null)),
  });
  if (!set || !site) return <main className="bg-sheet" />;
  const entries = data?.pages ?? [];
  const page = pageNow(set, site, counts, entries);
  const part = inHand !== null && page.parts[inHand] ? inHand : null;
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title={`The page: ${page.title}`}>
        <span className="ml-auto" />
        <LanguagesLink />
        <a className="btn" href={`/preview/${set.id}/`} target="_blank" rel="noreferrer">
          Open it in a window
        </a>
        <Link className="btn btn-main" to={`/sets/${set.id}/arrange`}>
          Back to the table
        </Link>
      </Head>
      <div className="grid min-h-0 flex-1 grid-cols-[250px_minmax(0,1fr)_296px] max-[1000px]:block max-[1000px]:overflow-auto">
        <div className="flex min-h-0 flex-col border-r border-rule-strong">
          <PageParts page={page} site={site} set={set.id} entries={entries} inHand={part} take={setInHand} />
        </div>
        <ProofPane
          address={`/preview/${set.id}/?edition=${encodeURIComponent(edition)}`}
          title={page.title}
        />
        <div
          className="grid min-h-0 content-start gap-3 overflow-auto border-l border-rule-strong p-3.5"
          role="region"
          tabIndex={0}
          aria-label="What the page is"
        >
          {part !== null && (
            <PartFields key={part} page={page} n={part} set={set} site={site} close={() => setInHand(null)} />
          )}
          <PageFields
            page={page}
            set={set}
            folders={entries.filter((entry) => entry.set !== set.id).map(({ folder }) => folder)}
          />
        </div>
      </div>
    </main>
  );
}
