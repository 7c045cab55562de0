// A crop as a picture: the view of the original, shifted and scaled so that just the crop shows. It follows at once.
import type { OriginalFacts, Rect } from '@dusky-otter/core';
import { viewAddress } from '../api/client.ts';

interface Props {
  original: OriginalFacts;
  crop: Rect;
  /** CSS px on screen. */
  width: number;
  height: number;
  size?: 'row' | 'bench';
  /** Where to draw the focal point, as fractions of the original; left out: none. */
  focal?: { x: number; y: number };
}

const percent = (value: number): string => `${value * 100}%`;

export function CropPicture({ original, crop, width, height, size = 'row', focal }: Props) {
  return (
    <div
      className="relative shrink-0 overflow-hidden bg-neutral outline outline-1 -outline-offset-1 outline-black/15"
      style={{ width, height }}
    >
      <img
        src={viewAddress(original.hash, size)}
        alt=""
        draggable={false}
        className="absolute max-w-none"
        style={{
          width: percent(original.width / crop.width),
          height: percent(original.height / crop.height),
          left: percent(-crop.x / crop.width),
          top: percent(-crop.y / crop.height),
        }}
      />
      {focal && (
        <span
          aria-hidden="true"
          className="absolute -m-1 size-[8px] rounded-full border-[1.5px] border-white shadow-[0_0_0_1px_rgba(0,0,0,.55)]"
          style={{
            left: percent((focal.x * original.width - crop.x) / crop.width),
            top: percent((focal.y * original.height - crop.y) / crop.height),
          }}
        />
      )}
    </div>
  );
}
