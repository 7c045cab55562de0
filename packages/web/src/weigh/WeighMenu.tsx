// What is decided on the files of many photos at once, wherever they stand.
import type { Photo } from '@dusky-otter/core/contract';
import { slotsOf } from '@dusky-otter/core/plan';
import { FORMAT_NAMES, TARGET_NAMES, TARGETS } from '@dusky-otter/core/weight';
import { notifyFailure } from '../screen/screen.ts';
import { useSetPlaces } from '../server/hooks.ts';
import { ActionMenu, type Action } from '../ui/ActionMenu.tsx';
import { photosOf } from '../editing/photos.ts';
import { decide, giveBack, type Change } from './decide.ts';

export function WeighMenu({ ids, setId }: { ids: readonly number[]; setId: number }) {
  const setPlaces = useSetPlaces();
  const places = (photo: Photo) => slotsOf(photo, setPlaces);
  const act = (body: (photos: readonly Photo[]) => void) => () =>
    void photosOf(setId, ids).then(body, notifyFailure);
  const decided = (what: string, change: Change) => act((photos) => decide(photos, places, what, change));
  const item = (name: string, hint: string, choose: () => void): Action => ({ name, hint, act: choose });
  const items = [
    ...TARGET_NAMES.map((target) =>
      item(
        `Target: ${target}`,
        `difference up to ${TARGETS[target]}`,
        decided('target', { target, pinned: undefined }),
      ),
    ),
    ...(['avif', 'webp'] as const).map((format) =>
      item(
        `Format: ${FORMAT_NAMES[format]}`,
        'beside the one every browser reads',
        decided('format', { format }),
      ),
    ),
    item('Without loss', 'every pixel as it is', decided('loss', { lossless: true, pinned: undefined })),
    item(
      'Animations as stills',
      'their first frame',
      act((photos) => {
        const moving = photos.filter(({ original }) => original.frames > 1);
        decide(moving, places, 'movement', { still: true });
      }),
    ),
    item(
      'Give all back',
      'as the site says',
      act((photos) => giveBack(photos, places)),
    ),
  ];
  return <ActionMenu name="Weigh" disabled={ids.length === 0} actions={items} />;
}
