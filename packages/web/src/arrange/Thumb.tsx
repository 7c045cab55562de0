// A small picture of a photo as its frame turns it.
import type { Photo } from '@dusky-otter/core/contract';
import { frameSpace } from '@dusky-otter/core/geometry';
import { stageFor } from '../ui/stage.ts';
import { TurnedView } from '../ui/CropPicture.tsx';

const ROOM = { width: 46, height: 38 };

export function Thumb({ row }: { row: Pick<Photo, 'original' | 'frame'> }) {
  const { width, height } = stageFor(frameSpace(row.original, row.frame), ROOM);
  return (
    <span className="grid h-[38px] w-[46px] shrink-0 place-items-center bg-neutral">
      <span className="relative block overflow-hidden" style={{ width, height }}>
        <TurnedView photo={row} size="row" />
      </span>
    </span>
  );
}
