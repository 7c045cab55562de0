// Lines over a crop that help the eye: thirds, and the part that a headline will cover.
import type { Rect } from '@dusky-otter/core/contract';
import { pointInSpace } from '@dusky-otter/core/geometry';
import type { Row } from '../server/hooks.ts';
import { boxOf, type Stage } from '../ui/stage.ts';

export type Headline = 'none' | 'left' | 'right' | 'below';

export interface Guides {
  thirds: boolean;
  headline: Headline;
}

/** The part of a crop that a headline takes. */
const TAKES: Record<Exclude<Headline, 'none'>, (crop: Rect) => Rect> = {
  left: ({ x, y, width, height }) => ({ x, y, width: width * 0.45, height }),
  right: ({ x, y, width, height }) => ({ x: x + width * 0.55, y, width: width * 0.45, height }),
  below: ({ x, y, width, height }) => ({ x, y: y + height * 0.6, width, height: height * 0.4 }),
};

/** The room for a headline in a crop, and whether the subject stands in it. */
export function headlineIn(row: Row, crop: Rect, headline: Headline): { room: Rect; taken: boolean } | null {
  if (headline === 'none') return null;
  const room = TAKES[headline](crop);
  const focal = pointInSpace(row, row.frame.focal);
  const taken =
    focal.x >= room.x &&
    focal.x <= room.x + room.width &&
    focal.y >= room.y &&
    focal.y <= room.y + room.height;
  return { room, taken };
}

export function GuideLines({
  row,
  crop,
  stage,
  guides,
}: {
  row: Row;
  crop: Rect;
  stage: Stage;
  guides: Guides;
}) {
  const { left, top, width, height } = boxOf(crop, stage);
  const headline = headlineIn(row, crop, guides.headline);
  return (
    <div className="pointer-events-none absolute inset-0" aria-hidden="true">
      {guides.thirds &&
        [1, 2].map((n) => (
          <div key={n}>
            <div
              className="absolute w-px bg-white/70 shadow-[0_0_0_.5px_rgba(0,0,0,.5)]"
              style={{ left: left + (width * n) / 3, top, height }}
            />
            <div
              className="absolute h-px bg-white/70 shadow-[0_0_0_.5px_rgba(0,0,0,.5)]"
              style={{ top: top + (height * n) / 3, left, width }}
            />
          </div>
        ))}
      {headline && (
        <div
          className={`absolute grid place-items-center border-2 border-dashed text-[12px] font-[650] ${headline.taken ? 'border-[#F5B8AC] bg-[#9b3223]/35 text-white' : 'border-white bg-black/25 text-white'}`}
          style={boxOf(headline.room, stage)}
        >
          {headline.taken ? '▲ The subject stands here' : 'Room for a headline'}
        </div>
      )}
    </div>
  );
}
