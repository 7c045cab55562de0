// A picture for trying an arrangement before any file is made for it: a view of the whole photo, cut by the browser as the
// crop will be.
import type { PhotoRow, Slot, SlotShape } from '../../contract/index.ts';
import { frameSpace, isTurned } from '../../geometry/frame.ts';
import { heightFor, ratioOf } from '../../geometry/geometry.ts';
import { cropIn, plainWidth, wordsIn } from '../../plan/plan.ts';
import { spanOf } from '../../slots/slots.ts';
import { tag } from '../../html/html.ts';
import { altOf } from '../picture.ts';
import { OWN } from '../styles.ts';
import { cssNumber } from '../../css/sizes.ts';

/** Where the window of a crop stands between the two ends that it can have, in per cent. */
const between = (at: number, length: number, all: number): string =>
  length >= all ? '50%' : `${cssNumber((at / (all - length)) * 100)}%`;

/** The ratio of a place, not that of the view, and which part of the view is shown. */
function cut(row: PhotoRow, slot: Slot, part: SlotShape): { width: number; height: number; style: string } {
  const crop = cropIn(row, slot.id, part.shape);
  const space = frameSpace(row.original, row.frame);
  const width = plainWidth(slot, part, crop);
  const height = heightFor(width, ratioOf(part.shape, crop));
  const position = isTurned(row.frame)
    ? '50% 50%'
    : `${between(crop.x, crop.width, space.width)} ${between(crop.y, crop.height, space.height)}`;
  return { width, height, style: `aspect-ratio: ${width} / ${height}; object-position: ${position}` };
}

/**
 * `<img>` with the place that the picture will take; before it the other shapes of narrower windows. A photo that is turned is
 * cut about its middle: the view shows it as it came.
 * @param view address of a picture of the whole photo
 */
export function sketchMarkup(row: PhotoRow, slot: Slot, view: string): string {
  const [widest, ...narrower] = slot.shapes as [SlotShape, ...SlotShape[]];
  const { width, height, style } = cut(row, slot, widest);
  const own = `${OWN}-sketch-${row.id}`;
  const rules = narrower.map((part) => {
    const important = cut(row, slot, part).style.replaceAll(/(?=;|$)/g, ' !important');
    return `@media (max-width: ${spanOf(part).to - 0.02}px) { .${own} { ${important} } }`;
  });
  const styles = rules.length > 0 ? `<style>${rules.join(' ')}</style>\n` : '';
  const name = rules.length > 0 ? own : null;
  const img = tag('img', { class: name, src: view, width, height, alt: altOf(wordsIn(row, slot.id)), style });
  return `${styles}${img}`;
}
