// Finds photos of the set, stops and actions by a few letters.
import { shownName } from '@dusky-otter/core/naming';
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

/** As a reader would look for it: every word that is typed, whatever case and accents, at the beginning of a word first. */
function found(value: string, search: string): number {
  const bare = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
  const text = bare(value);
  const words = bare(search).split(/\s+/).filter(Boolean);
  if (!words.every((word) => text.includes(word))) return 0;
  return words.every((word) => ` ${text}`.includes(` ${word}`)) ? 1 : 0.5;
}

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
      also: 'files save export hand over',
      act: at('hand-over', () => openSheet('download')),
    },
    {
      name: 'Places of the set',
      also: 'settings name slots',
      act: at('arrange', () => openSheet('places')),
    },
    {
      name: 'Rules for files',
      also: 'policy formats quality faithfulness density metadata names prefix settings',
      act: () => go(`/sets/${setId}/rules`),
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

export function Finder({ open, onClose: closed, setId, chooseFiles }: Props) {
  const [typed, setTyped] = useState('');
  const onClose = useCallback(() => {
    setTyped('');
    closed();
  }, [closed]);
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
          <Command label="Find a photo, stop or action" filter={found}>
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' || !isFetching) return;
                // Enter is quicker than the server: the answer is waited for.
                event.preventDefault();
                goToFirst();
              }}
              placeholder="Find a photo, stop or action"
              className="w-full border-b border-rule bg-transparent px-4 py-3 text-[15px] outline-none placeholder:text-ink-3"
            />
            <Command.List className="max-h-[56vh] overflow-auto p-1.5">
              <Command.Empty className="px-3 py-5 text-ink-2">
                Nothing of that name. Try part of a file name or of the words.
              </Command.Empty>
              <Command.Group heading="Photos" className={GROUP}>
                {(typed.trim() === '' ? [] : photos).map((row) => (
                  <Command.Item
                    key={row.id}
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
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
