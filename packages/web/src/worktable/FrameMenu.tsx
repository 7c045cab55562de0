// Frames of many photos at once.
import type { Frame, Photo } from '@dusky-otter/core/contract';
import { frameLaidOn, mirrorFrame, turnFrame } from '@dusky-otter/core/geometry';
import { DropdownMenu } from 'radix-ui';
import { notifyFailure, useScreen } from '../screen/screen.ts';
import { ActionMenu } from '../ui/ActionMenu.tsx';
import { confirmFocal, saveFrames } from '../editing/edits.ts';
import { photosOf } from '../editing/photos.ts';

/** What is done to the frames of all that is selected, each by its own size. */
export function FrameMenu({ ids, setId }: { ids: readonly number[]; setId: number }) {
  const copied = useScreen((state) => state.copied);
  const act = (body: (photos: readonly Photo[]) => void) => () =>
    void photosOf(setId, ids).then(body, notifyFailure);
  const frames = (what: string, frameFor: (photo: Photo) => Frame) =>
    act((photos) => saveFrames(photos, what, frameFor));
  const aim = (x: number, y: number) =>
    frames('focal point', ({ frame }) => ({ ...frame, focal: { x, y, confirmed: true } }));
  const items: [string, string, () => void][] = [
    ['Confirm the focal points', 'as they are', act(confirmFocal)],
    ['Focal point in the middle', '50 % · 50 %', aim(0.5, 0.5)],
    ['Focal point in the upper third', '50 % · 33 %', aim(0.5, 0.33)],
    [
      'Quarter turn',
      'clockwise',
      frames('quarter turn', ({ frame, original }) => turnFrame(frame, original, 1)),
    ],
    ['Mirror', 'left to right', frames('mirroring', ({ frame, original }) => mirrorFrame(frame, original))],
    [
      'Give the crops back',
      'they follow the focal point',
      frames('crops given back', ({ frame }) => ({ ...frame, crops: {} })),
    ],
  ];
  return (
    <ActionMenu
      name="Frame"
      disabled={ids.length === 0}
      actions={items.map(([name, hint, choose]) => ({ name, hint, act: choose }))}
    >
      <DropdownMenu.Separator className="my-1 h-px bg-rule" />
      <DropdownMenu.Item
        className="menu-item"
        disabled={copied === null}
        onSelect={
          copied ? frames('copied frame', ({ original }) => frameLaidOn(copied, original)) : undefined
        }
      >
        Lay on the copied frame
        <span className="ml-auto max-w-[180px] truncate text-[12px] text-ink-2">
          {copied ? `of ${copied.name}` : 'copy one at a bench'}
        </span>
      </DropdownMenu.Item>
    </ActionMenu>
  );
}
