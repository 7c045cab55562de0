// Finds photos of the set, stops and actions by a few letters.
import { shownName } from '@dusky-otter/core';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useNavigate } from 'react-router';
import { viewAddress } from '../api/client.ts';
import { redo, undo, useWork } from '../state/store.ts';
import { STOPS } from './stops.ts';

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

export function Finder({ open, onClose, setId, chooseFiles }: Props) {
  const rows = useWork((state) => state.rows);
  const navigate = useNavigate();
  const then = (action: () => unknown) => () => {
    onClose();
    action();
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
          <Command label="Find a photo, stop or action">
            <Command.Input
              placeholder="Find a photo, stop or action"
              className="w-full border-b border-rule bg-transparent px-4 py-3 text-[15px] outline-none placeholder:text-ink-3"
            />
            <Command.List className="max-h-[56vh] overflow-auto p-1.5">
              <Command.Empty className="px-3 py-5 text-ink-2">
                Nothing of that name. Try part of a file name or of the words.
              </Command.Empty>
              <Command.Group heading="Photos" className={GROUP}>
                {rows.map((row) => (
                  <Command.Item
                    key={row.id}
                    value={`${row.fileName} ${row.words.title} ${row.words.alt} ${row.id}`}
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
                <Command.Item className={ITEM} onSelect={then(chooseFiles)}>
                  Add photos
                </Command.Item>
                <Command.Item className={ITEM} onSelect={then(() => void undo())}>
                  Undo
                </Command.Item>
                <Command.Item className={ITEM} onSelect={then(() => void redo())}>
                  Redo
                </Command.Item>
                <Command.Item className={ITEM} onSelect={then(() => navigate('/'))}>
                  All sets
                </Command.Item>
              </Command.Group>
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
