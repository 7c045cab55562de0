// Finds photos of the set, places, pages, rules, actions and ways to do a job, by the words that people use.
import { shownName } from '@dusky-otter/core/naming';
import { typedPlaces } from '@dusky-otter/core/slots';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useNavigate } from 'react-router';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { api, viewAddress } from '../api/client.ts';
import { notifyFailure, openSheet } from '../screen/screen.ts';
import { clearSelection, selectAll } from '../editing/selection.ts';
import { pausePreparation, redo, undo } from '../server/state.ts';
import { turnTheme } from './theme.ts';
import { STOPS } from '../screen/stops.ts';
import { keys } from '../server/keys.ts';
import { useSite } from '../server/hooks.ts';
import { JOBS, type Job } from './jobs.ts';
import { matchOf } from './matching.ts';

interface Props {
  open: boolean;
  onClose: () => void;
  setId: number;
  chooseFiles: () => void;
}

const ITEM =
  'flex cursor-default items-center gap-2.5 rounded-[2px] px-2.5 py-1.5 data-[selected=true]:bg-kelp-soft';
const GROUP =
  '[&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-ink-2';

/** What the rules decide, by the words that people have for it. */
const RULES = [
  { name: 'Languages', also: 'language german english french translation multilingual' },
  { name: 'Modern format', also: 'avif webp jpeg png' },
  { name: 'Faithfulness', also: 'quality compression sharp visible' },
  { name: 'Density', also: 'retina 2x high resolution screens' },
  { name: 'What goes into the files', also: 'metadata exif credit copyright gps privacy camera' },
  { name: 'File names', also: 'naming fingerprint plain urls seo' },
  { name: 'Colours', also: 'profile srgb p3 wide gamut' },
  { name: 'How a JPEG arrives', also: 'progressive baseline' },
] as const;

/** What can be done from anywhere, each by its name and by other words for it. */
function actionsOf(setId: number, go: (path: string) => void, chooseFiles: () => void) {
  const at = (stop: string, then: () => void) => () => {
    go(`/sets/${setId}/${stop}`);
    then();
  };
  return [
    { name: 'Add photos', also: 'choose files upload gather', act: chooseFiles },
    {
      name: 'Download as ZIP',
      also: 'files save export hand over publish deliver upload go live',
      act: at('hand-over', () => openSheet('download')),
    },
    {
      name: 'Places of the set',
      also: 'settings name slots set which',
      act: at('arrange', () => openSheet('places')),
    },
    {
      name: 'Rules for files',
      also: 'policy formats quality density metadata names prefix settings options',
      act: () => go(`/sets/${setId}/rules`),
    },
    ...RULES.map(({ name, also }) => ({
      name: `Rule: ${name}`,
      also,
      act: () => go(`/sets/${setId}/rules`),
    })),
    {
      name: 'The page of this set',
      also: 'parts heading text order preview publish html',
      act: () => go(`/sets/${setId}/page`),
    },
    {
      name: 'Measure a page that exists',
      also: 'html website widths places sizes',
      act: () => go(`/sets/${setId}/measure`),
    },
    {
      name: 'How the page is heard',
      also: 'read aloud preview screen reader',
      act: () => go(`/sets/${setId}/reading`),
    },
    {
      name: 'Words from a table, or as one',
      also: 'csv plan import export spreadsheet alt',
      act: at('describe', () => openSheet('table')),
    },
    {
      name: 'Texts in every language',
      also: 'translation translate german title headings description menu missing',
      act: () => go(`/sets/${setId}/texts`),
    },
    {
      name: 'A limit for the page',
      also: 'budget weight bytes total',
      act: () => go(`/sets/${setId}/limit`),
    },
    {
      name: 'Make and change places',
      also: 'slots widths budgets devices measure',
      act: () => go(`/sets/${setId}/places`),
    },
    {
      name: 'Open the bin',
      also: 'deleted photos put back empty',
      act: at('gather', () => openSheet('bin')),
    },
    { name: 'Undo', also: 'take back', act: () => void undo() },
    { name: 'Redo', also: 'do again', act: () => void redo() },
    { name: 'Select all photos shown', also: 'mark', act: selectAll },
    { name: 'Let go of the selection', also: 'deselect none', act: clearSelection },
    { name: 'Stop making versions', also: 'pause', act: () => void pausePreparation(true) },
    { name: 'Go on making versions', also: 'resume try again', act: () => void pausePreparation(false) },
    { name: 'Keys of this screen', also: 'shortcuts help', act: () => openSheet('keys') },
    { name: 'Turn to day or dusk', also: 'theme dark light', act: turnTheme },
    { name: 'Sites and sets', also: 'all sets home start', act: () => go('/') },
  ];
}

/** A job that was picked: its steps, and the way to where it begins. */
function JobSteps({ job, back, go }: { job: Job; back: () => void; go: () => void }) {
  return (
    <section className="p-4" aria-label={job.name}>
      <h2 className="mb-2 text-[17px] font-[620]">{job.name}</h2>
      <ol className="mb-4 grid list-decimal gap-1.5 pl-5">
        {job.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <div className="flex gap-2">
        <button className="btn btn-main" autoFocus onClick={go}>
          Go there
        </button>
        <button className="btn" onClick={back}>
          Back to finding
        </button>
      </div>
    </section>
  );
}

export function Finder({ open, onClose: closed, setId, chooseFiles }: Props) {
  const [typed, setTyped] = useState('');
  const [job, setJob] = useState<Job | null>(null);
  const site = useSite();
  const onClose = useCallback(() => {
    setTyped('');
    setJob(null);
    closed();
  }, [closed]);
  const { data: sites = [] } = useQuery({ queryKey: keys.sites, queryFn: api.sites, enabled: open });
  // Photos are looked for by the server: it has them all.
  const { data: photos = [], isFetching } = useQuery({
    queryKey: ['found', setId, typed],
    queryFn: () => api.found(setId, typed),
    enabled: open && typed.trim() !== '',
    placeholderData: (before) => before,
    gcTime: 0,
    staleTime: 0,
  });
  const navigate = useNavigate();
  const then = (action: () => unknown) => () => {
    onClose();
    action();
  };
  const goToFirst = () => {
    api
      .found(setId, typed)
      .then(([first]) => first && then(() => navigate(`/sets/${setId}/frame/${first.id}`))(), notifyFailure);
  };
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/45" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-30 w-[min(560px,calc(100vw-32px))] -translate-x-1/2 rounded-paper border border-edge bg-sheet"
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          {job && (
            <JobSteps
              job={job}
              back={() => setJob(null)}
              go={then(() => navigate(`/sets/${setId}/${job.at}`))}
            />
          )}
          <Command
            label="Find a photo, a place, or what you want to do"
            filter={matchOf}
            hidden={job !== null}
          >
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' || !isFetching) return;
                // Enter is quicker than the server: its answer is waited for, unless something else is meant.
                if (document.querySelector('[cmdk-item][aria-selected="true"]:not([data-photo])')) return;
                event.preventDefault();
                goToFirst();
              }}
              placeholder="Find a photo, a place, or what you want to do"
              className="w-full border-b border-rule bg-transparent px-4 py-3 text-[15px] outline-none placeholder:text-ink-3"
            />
            <Command.List className="max-h-[56vh] overflow-auto p-1.5">
              <Command.Empty className="px-3 py-5 text-ink-2">
                {isFetching
                  ? 'Looking through the photos…'
                  : 'Nothing of that name. Try part of a file name, of the words, or of what you want to do.'}
              </Command.Empty>
              <Command.Group heading="Photos" className={GROUP}>
                {(typed.trim() === '' ? [] : photos).map((row) => (
                  <Command.Item
                    key={row.id}
                    data-photo
                    value={`${typed} ${row.fileName} ${row.words.title} ${row.words.alt} ${row.id}`}
                    className={ITEM}
                    onSelect={then(() => navigate(`/sets/${setId}/frame/${row.id}`))}
                  >
                    <img
                      src={viewAddress(row.original.hash, 'row')}
                      alt=""
                      className="h-7 w-10 bg-neutral object-contain"
                    />
                    <b className="font-semibold">{shownName(row.words, row.fileName)}</b>
                    <span className="truncate text-ink-2">
                      {row.words.title ? row.fileName : row.words.alt}
                    </span>
                  </Command.Item>
                ))}
              </Command.Group>
              {typed.trim() !== '' && (
                <>
                  <Command.Group heading="Places" className={GROUP}>
                    {(site ? typedPlaces(site.slots) : []).map(({ id, name, hint }) => (
                      <Command.Item
                        key={id}
                        value={`place ${name} ${hint} ${id}`}
                        className={ITEM}
                        onSelect={then(() => navigate(`/sets/${setId}/places`, { state: { place: id } }))}
                      >
                        {name}
                        <span className="truncate text-ink-2">{hint}</span>
                      </Command.Item>
                    ))}
                  </Command.Group>
                  <Command.Group heading="Pages and sets" className={GROUP}>
                    {sites.flatMap(({ id, name, sets }) =>
                      sets
                        .filter((set) => !set.archived)
                        .map((set) => (
                          <Command.Item
                            key={set.id}
                            value={`page set ${set.name} ${name} ${set.id}`}
                            className={ITEM}
                            onSelect={then(() =>
                              navigate(`/sets/${set.id}/${set.id === setId ? 'page' : 'gather'}`),
                            )}
                          >
                            {set.name}
                            {id !== site?.id && <span className="truncate text-ink-2">{name}</span>}
                          </Command.Item>
                        )),
                    )}
                  </Command.Group>
                </>
              )}
              <Command.Group heading="Stops" className={GROUP}>
                {STOPS.map(({ id, name }) => (
                  <Command.Item
                    key={id}
                    value={`go to ${name}`}
                    className={ITEM}
                    onSelect={then(() => navigate(`/sets/${setId}/${id}`))}
                  >
                    Go to {name}
                  </Command.Item>
                ))}
              </Command.Group>
              <Command.Group heading="Actions" className={GROUP}>
                {actionsOf(setId, (path) => void navigate(path), chooseFiles).map(({ name, also, act }) => (
                  <Command.Item key={name} value={`${name} ${also}`} className={ITEM} onSelect={then(act)}>
                    {name}
                  </Command.Item>
                ))}
              </Command.Group>
              {typed.trim() !== '' && (
                <Command.Group heading="How to" className={GROUP}>
                  {JOBS.map((one) => (
                    <Command.Item
                      key={one.name}
                      value={`how to ${one.name} ${one.also}`}
                      className={ITEM}
                      onSelect={() => setJob(one)}
                    >
                      {one.name}
                    </Command.Item>
                  ))}
                </Command.Group>
              )}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
