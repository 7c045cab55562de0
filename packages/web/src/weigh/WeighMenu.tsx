// What is decided on the files of many photos at once, wherever they stand.
import { FORMAT_NAMES, slotsOf, TARGET_NAMES, TARGETS, type Photo } from '@dusky-otter/core';
import { DropdownMenu } from 'radix-ui';
import { notifyFailure } from '../screen/screen.ts';
import { useSetSlots } from '../server/hooks.ts';
import { photosOf } from '../worktable/photos.ts';
import { decide, giveBack, type Change } from './decide.ts';

export function WeighMenu({ ids, setId }: { ids: readonly number[]; setId: number }) {
  const setSlots = useSetSlots();
  const places = (photo: Photo) => slotsOf(photo, setSlots);
  const act = (body: (photos: readonly Photo[]) => void) => () =>
    void photosOf(setId, ids).then(body, notifyFailure);
  const decided = (what: string, change: Change) => act((photos) => decide(photos, places, what, change));
  const items: [string, string, () => void][] = [
    ...TARGET_NAMES.map((target): [string, string, () => void] => [
      `Target: ${target}`,
      `difference up to ${TARGETS[target]}`,
      decided('target', { target, pinned: undefined }),
    ]),
    ...(['avif', 'webp'] as const).map((format): [string, string, () => void] => [
      `Format: ${FORMAT_NAMES[format]}`,
      'beside the one every browser reads',
      decided('format', { format }),
    ]),
    ['Without loss', 'every pixel as it is', decided('loss', { lossless: true, pinned: undefined })],
    [
      'Animations as stills',
      'their first frame',
      act((photos) =>
        decide(
          photos.filter(({ original }) => original.frames > 1),
          places,
          'movement',
          { still: true },
        ),
      ),
    ],
    ['Give all back', 'as the site says', act((photos) => giveBack(photos, places))],
  ];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={ids.length === 0}>
        Weigh
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          {items.map(([name, hint, choose]) => (
            <DropdownMenu.Item key={name} className="menu-item" onSelect={choose}>
              {name} <span className="ml-auto text-[12px] text-ink-2">{hint}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
