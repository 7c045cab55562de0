// A picture for trying an arrangement before any file is made for it: a view of the whole photo, cut by the browser as the
// crop will be.
import type { PhotoRow, Slot } from '../../contract/index.ts';
import { frameSpace, isTurned } from '../../geometry/frame.ts';
import { heightFor, ratioOf } from '../../geometry/geometry.ts';
import { cropIn, plainWidth, wordsIn } from '../../plan/plan.ts';
import { tag } from '../html.ts';
import { altOf } from '../picture.ts';
import { cssNumber } from '../../css/sizes.ts';

/** Where the window of a crop stands between the two ends that it can have, in per cent. */
const between = (at: number, length: number, all: number): string =>
  length >= all ? '50%' : `${cssNumber((at / (all - length)) * 100)}%`;

/**
 * `<img>` with the place that the picture will take. A photo that is turned is cut about its middle: the view shows it as
 * it came.
 * @param view address of a picture of the whole photo
 */
export function sketchMarkup(row: PhotoRow, slot: Slot, view: string): string {
  const part = slot.shapes[0]!;
  const crop = cropIn(row, slot.id, part.shape);
  const space = frameSpace(row.original, row.frame);
  const width = plainWidth(slot, part, crop);
  const position = isTurned(row.frame)
    ? '50% 50%'
    : `${between(crop.x, crop.width, space.width)} ${between(crop.y, crop.height, space.height)}`;
  return tag('img', {
    src: view,
    width,
    height: heightFor(width, ratioOf(part.shape, crop)),
    alt: altOf(wordsIn(row, slot.id)),
    // The ratio of the place, not that of the view.
    style: `aspect-ratio: ${width} / ${heightFor(width, ratioOf(part.shape, crop))}; object-position: ${position}`,
  });
}
