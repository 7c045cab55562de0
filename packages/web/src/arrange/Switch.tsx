// From one arrangement to another: those of this page first, in its order, the one that is open marked.
import { arrangementsIn } from '@dusky-otter/core/arrange';
import type { Arrangement, SetPage, Site } from '@dusky-otter/core/contract';
import { placesOn } from '@dusky-otter/core/plan';
import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { useCounts, useSetId } from '../server/hooks.ts';
import { some } from '../ui/some.ts';
import { KINDS } from './kinds.tsx';

interface Props {
  site: Site;
  page: SetPage;
  open: Arrangement;
}

export function Switch({ site, page, open }: Props) {
  const setId = useSetId();
  const counts = useCounts();
  const navigate = useNavigate();
  const order = placesOn(page);
  const all = arrangementsIn(site.slots);
  const here = order.flatMap((slot) => all.find(({ shortName }) => shortName === slot) ?? []);
  const others = all.filter(({ shortName }) => !order.includes(shortName));
  if (all.length < 2) return null;
  const at = here.findIndex(({ shortName }) => shortName === open.shortName);
  const item = ({ shortName, title, options }: Arrangement) => {
    const photos = counts?.places[shortName]?.photos ?? 0;
    return (
      <DropdownMenu.RadioItem key={shortName} value={shortName} className="menu-item">
        <span aria-hidden="true" className="w-4">
          {shortName === open.shortName ? '✓' : ''}
        </span>
        {title}{' '}
        <span className="ml-auto text-[12px] text-ink-2">
          {KINDS[options.kind].name.toLowerCase()}, {some(photos, 'photo', 'photos')}
        </span>
      </DropdownMenu.RadioItem>
    );
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="chip">
        {at < 0 ? 'Not on this page' : `${at + 1} of ${here.length} on this page`}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-h-[70vh] overflow-auto" align="start">
          <DropdownMenu.RadioGroup
            value={open.shortName}
            onValueChange={(name) => void navigate(`/sets/${setId}/arrange/${name}`)}
          >
            {here.map(item)}
            {here.length > 0 && others.length > 0 && (
              <DropdownMenu.Label className="px-2 pb-1 pt-2 text-[12px] text-ink-2">
                Not on this page
              </DropdownMenu.Label>
            )}
            {others.map(item)}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
