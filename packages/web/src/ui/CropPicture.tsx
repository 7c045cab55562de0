// A crop as a picture: the view of the original, turned as its frame says, then shifted and scaled so that just the crop
// shows. It follows at once.
import type { Photo, Rect } from '@dusky-otter/core/contract';
import { frameSpace, pointInSpace } from '@dusky-otter/core/geometry';
import type { CSSProperties } from 'react';
import { viewAddress } from '../api/client.ts';

interface Props {
  photo: Pick<Photo, 'original' | 'frame'>;
  /** In the space of the frame's crops. */
  crop: Rect;
  /** CSS px on screen. */
  width: number;
  height: number;
  size?: 'row' | 'bench';
  /** Whether to draw the focal point. */
  focal?: boolean;
}

const percent = (value: number): string => `${value * 100}%`;

/** Where the upright picture lies in a box of the frame's space, and how it is turned there. */
export function turnedStyle({ original, frame }: Props['photo']): CSSProperties {
  const box = frameSpace(original, frame);
  return {
    width: percent(original.width / box.width),
    height: percent(original.height / box.height),
    left: percent((1 - original.width / box.width) / 2),
    top: percent((1 - original.height / box.height) / 2),
    // The rightmost is applied first, as in the order of the frame.
    transform: `rotate(${frame.angle + 90 * frame.turns}deg) scaleX(${frame.mirrored ? -1 : 1})`,
  };
}

/** The view of a photo as its frame turns it, in a box of the frame's space that fills its parent. */
export function TurnedView({ photo, size }: { photo: Props['photo']; size: 'row' | 'bench' }) {
  return (
    <img
      src={viewAddress(photo.original.hash, size)}
      alt=""
      draggable={false}
      className="absolute max-w-none"
      style={turnedStyle(photo)}
    />
  );
}

export function CropPicture({ photo, crop, width, height, size = 'row', focal = false }: Props) {
  const box = frameSpace(photo.original, photo.frame);
  const point = pointInSpace(photo, photo.frame.focal);
  return (
    <div
      className="relative shrink-0 overflow-hidden bg-neutral outline outline-1 -outline-offset-1 outline-black/15"
      style={{ width, height }}
    >
      <div
        className="absolute"
        style={{
          width: percent(box.width / crop.width),
          height: percent(box.height / crop.height),
          left: percent(-crop.x / crop.width),
          top: percent(-crop.y / crop.height),
        }}
      >
        <TurnedView photo={photo} size={size} />
      </div>
      {focal && (
        <span
          aria-hidden="true"
          className="absolute -m-1 size-[8px] rounded-full border-[1.5px] border-white shadow-[0_0_0_1px_rgba(0,0,0,.55)]"
          style={{
            left: percent((point.x - crop.x) / crop.width),
            top: percent((point.y - crop.y) / crop.height),
          }}
        />
      )}
    </div>
  );
}
