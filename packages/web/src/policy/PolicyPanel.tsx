// A site's rules for its files: what each choice gives to visitors, and what it makes of this set before it is applied.
import type { Policy, Site } from '@dusky-otter/core/contract';
import { addressUnder, prefixProblem } from '@dusky-otter/core/html';
import { wholePolicy } from '@dusky-otter/core/weight';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api/client.ts';
import { notify } from '../screen/screen.ts';
import { useSetId, useSite } from '../server/hooks.ts';
import { allSaved, edit } from '../server/state.ts';
import { Languages } from './Languages.tsx';
import { Terms } from './Terms.tsx';
import { Forecast } from './Forecast.tsx';
import {
  ARRIVAL_CHOICES,
  COLOUR_CHOICES,
  DENSITY_CHOICES,
  METADATA_CHOICES,
  MODERN_CHOICES,
  NAMING_CHOICES,
  TARGET_CHOICES,
  THOROUGH_CHOICES,
} from './said.ts';
import { Head } from '../ui/Head.tsx';

interface RuleProps<T> {
  name: string;
  choices: readonly { value: T; name: string; hint: string }[];
  chosen: T;
  saved: T;
  choose: (value: T) => void;
}

/** One rule: its choices as they are said, the one that holds now marked. */
function Rule<T>({ name, choices, chosen, saved, choose }: RuleProps<T>) {
  return (
    <fieldset className="grid grid-cols-[170px_1fr] gap-x-4 border-b border-rule px-4 py-3 max-[700px]:block">
      <legend className="float-left w-[170px] font-title text-[14px] font-[600]">{name}</legend>
      <div>
        {choices.map((one) => (
          <label key={String(one.value)} className="flex items-baseline gap-2 py-1">
            <input
              type="radio"
              name={name}
              className="accent-kelp"
              checked={one.value === chosen}
              onChange={() => choose(one.value)}
            />
            <span className={`shrink-0 ${one.value === chosen ? 'font-[650]' : ''}`}>{one.name}</span>
            <span className="text-[12.5px] text-ink-2">{one.hint}</span>
            {one.value === saved && chosen !== saved && (
              <span className="ml-auto whitespace-nowrap text-[12px] text-ink-2">now</span>
            )}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Screen({ site, setId }: { site: Site; setId: number }) {
  const policy = wholePolicy(site.policy);
  const [draft, setDraft] = useState<Partial<Required<Policy>>>({});
  const rules = { ...policy, ...draft };
  const put = (part: Partial<Required<Policy>>) => setDraft((before) => ({ ...before, ...part }));
  const { prefix } = rules;
  const problem = prefixProblem(prefix.trim());
  const isChanged = JSON.stringify(rules) !== JSON.stringify(policy);
  const asked: Policy = { ...rules, prefix: prefix.trim() };
  // The address and the names change no byte of a picture.
  const weighed: Policy = {
    ...asked,
    prefix: policy.prefix,
    naming: policy.naming,
    thorough: policy.thorough,
  };
  const { data, error, isFetching } = useQuery({
    queryKey: ['forecast', setId, weighed, policy],
    queryFn: async ({ signal }) => {
      await allSaved();
      return api.forecast(setId, weighed, signal);
    },
    enabled: isChanged && problem === null,
    staleTime: 60_000,
    placeholderData: (before) => before,
  });
  const apply = () => {
    edit('rules of the site', [{ kind: 'site', change: { policy: asked } }]);
    notify('The rules hold for all sets of the site. Undo takes them back.');
    setDraft({});
  };
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet max-[900px]:overflow-auto">
      <Head title="Rules">
        <span className="truncate text-ink-2">for the files of {site.name}, in all its sets</span>
        <Link className="btn ml-auto" to={`/sets/${setId}/weigh`}>
          Back to the table
        </Link>
      </Head>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_372px] max-[900px]:block max-[900px]:flex-none">
        <div className="min-h-0 overflow-auto" role="region" tabIndex={0} aria-label="Policy">
          <Rule
            name="Faithfulness"
            choices={TARGET_CHOICES}
            chosen={rules.target}
            saved={policy.target}
            choose={(target) => put({ target })}
          />
          <Rule
            name="Modern format"
            choices={MODERN_CHOICES}
            chosen={rules.modern}
            saved={policy.modern}
            choose={(modern) => put({ modern })}
          />
          <Rule
            name="Density"
            choices={DENSITY_CHOICES}
            chosen={rules.density}
            saved={policy.density}
            choose={(density) => put({ density })}
          />
          <Rule
            name="Smaller files"
            choices={THOROUGH_CHOICES}
            chosen={rules.thorough}
            saved={policy.thorough}
            choose={(thorough) => put({ thorough })}
          />
          <Rule
            name="What goes into the files"
            choices={METADATA_CHOICES}
            chosen={rules.metadata}
            saved={policy.metadata}
            choose={(metadata) => put({ metadata })}
          />
          <Rule
            name="How a JPEG arrives"
            choices={ARRIVAL_CHOICES}
            chosen={rules.progressive}
            saved={policy.progressive}
            choose={(progressive) => put({ progressive })}
          />
          <Rule
            name="Colours"
            choices={COLOUR_CHOICES}
            chosen={rules.wideColours}
            saved={policy.wideColours}
            choose={(wideColours) => put({ wideColours })}
          />
          <Rule
            name="File names"
            choices={NAMING_CHOICES}
            chosen={rules.naming}
            saved={policy.naming}
            choose={(naming) => put({ naming })}
          />
          <div className="grid grid-cols-[170px_1fr] gap-x-4 border-b border-rule px-4 py-3 max-[700px]:block">
            <h2 className="text-[14px] font-[600]">What stands on the page</h2>
            <p className="max-w-[62ch] text-[12.5px] text-ink-2">
              The words of Describe: alt text, caption, and the credit where a photo has one. A name that a
              file brings is asked about first, and stands nowhere until you say so.
            </p>
          </div>
          <div className="grid grid-cols-[170px_1fr] gap-x-4 px-4 py-3 max-[700px]:block">
            <label htmlFor="prefix" className="font-title text-[14px] font-[600]">
              Where files lie
            </label>
            <div>
              <input
                id="prefix"
                className="field font-figure"
                spellCheck={false}
                maxLength={500}
                placeholder="beside the page; or /media/, or https://…"
                aria-invalid={problem !== null || undefined}
                value={prefix}
                onChange={(event) => put({ prefix: event.target.value })}
              />
              <p className={`pt-1 text-[12px] ${problem ? 'text-rust' : 'text-ink-2'}`} role="status">
                {problem ?? (
                  <>
                    In copied markup:{' '}
                    <span className="font-figure">
                      {addressUnder(
                        prefix.trim(),
                        rules.naming === 'plain'
                          ? 'photos/marbled-bowl-grid-1x1-720w.jpg'
                          : 'photos/marbled-bowl-grid-720w.3fa91c2e.jpg',
                      )}
                    </span>
                  </>
                )}
              </p>
            </div>
          </div>
          <Languages site={site} />
          <Terms site={site} />
        </div>
        <div
          className="min-h-0 overflow-auto border-l border-rule-strong px-4 py-3 max-[900px]:border-l-0"
          role="region"
          tabIndex={0}
          aria-label="What it makes of this set"
          aria-busy={isFetching}
        >
          <h2 className="font-title text-[14px] font-[600]">What it makes of this set</h2>
          {!isChanged ? (
            <p className="mt-1 text-[12.5px] text-ink-2">
              These rules hold. Choose another one, and this says what the set would weigh before anything is
              made.
            </p>
          ) : (
            <>
              {error ? (
                <p className="mt-1 text-rust" role="alert">
                  {error.message}
                </p>
              ) : data ? (
                <Forecast forecast={data} what="This set sends" />
              ) : (
                <p className="mt-1 text-[12.5px] text-ink-2">Making a few files to see what they weigh…</p>
              )}
              {isFetching && data && <p className="text-[12px] text-ink-2">Looking again…</p>}
              <div className="mt-3 flex gap-2">
                <button className="btn btn-main" disabled={problem !== null} onClick={apply}>
                  Let these rules hold
                </button>
                <button className="btn" onClick={() => setDraft({})}>
                  Leave them as they were
                </button>
              </div>
            </>
          )}
        </div>
      </div>
    </main>
  );
}

export function PolicyPanel() {
  const site = useSite();
  const setId = useSetId();
  if (!site) return <main className="bg-sheet p-8 text-ink-2">Opening the rules…</main>;
  return <Screen key={site.id} site={site} setId={setId} />;
}
