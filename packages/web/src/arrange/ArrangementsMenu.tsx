// At the Arrange stop: the arrangements there are, and another one.
import { arrangementsIn } from '@dusky-otter/core/arrange';
import { useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { useScreen } from '../screen/screen.ts';
import { useSet, useSetId, useSite } from '../server/hooks.ts';
import { idsUnder } from '../server/state.ts';
import { NameSheet } from '../ui/NameSheet.tsx';
import { photosOf } from '../editing/photos.ts';
import { makeArrangement } from './edits.ts';
import { KINDS } from './kinds.tsx';

export function ArrangementsMenu() {
  const setId = useSetId();
  const site = useSite();
  const set = useSet();
  const selected = useScreen((state) => state.selected);
  const navigate = useNavigate();
  const [naming, setNaming] = useState(false);
  const arrangements = arrangementsIn(site?.slots ?? []);
  const make = async (title: string) => {
    if (!site || !set || title === '') return;
    const open = selected.size === 0;
    const photos = await photosOf(setId, open ? (await idsUnder('all')).ids : [...selected]);
    const name = makeArrangement(site, set, title, {
      // Who follows the set comes along with it.
      photos: photos.filter(({ placements }) => !open || placements !== null),
      open,
    });
    void navigate(`/sets/${setId}/arrange/${name}`);
  };
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="btn">Arrangements</DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="end">
            <DropdownMenu.Item className="menu-item" onSelect={() => void navigate(`/sets/${setId}/page`)}>
              The page <span className="ml-auto text-[12px] text-ink-2">what stands on it, in order</span>
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            {arrangements.map(({ shortName, title, options }) => (
              <DropdownMenu.Item
                key={shortName}
                className="menu-item"
                onSelect={() => void navigate(`/sets/${setId}/arrange/${shortName}`)}
              >
                {title} <span className="ml-auto text-[12px] text-ink-2">{KINDS[options.kind].name}</span>
              </DropdownMenu.Item>
            ))}
            {arrangements.length > 0 && <DropdownMenu.Separator className="my-1 h-px bg-rule" />}
            <DropdownMenu.Item className="menu-item" onSelect={() => setNaming(true)}>
              {selected.size > 0 ? `A new one of the ${selected.size} selected…` : 'A new one of all photos…'}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <NameSheet
        open={naming}
        onClose={() => setNaming(false)}
        title="A new arrangement"
        about="A grid, a hero, a feed: what it is to be is said on its bench. Its title is read by people."
        example="Pots from this firing"
        action="Make it"
        onName={make}
      />
    </>
  );
}
