// Places in words: their shapes, and the hint that stands beside their names elsewhere.
import type { ShapeId, Slot } from '@dusky-otter/core/contract';
import { tallestSaid, widthText, withoutHeight } from '@dusky-otter/core/slots';

const MOST_HINT = 120;

export const shapeSaid = (shape: ShapeId): string => (shape === 'own' ? 'its own' : shape);

/** "3:1 from 700 px, 4:5 below". */
export const shapesSaid = ({ shapes }: Pick<Slot, 'shapes'>): string =>
  shapes
    .map(({ shape, from }, n) =>
      shapes.length === 1
        ? shapeSaid(shape)
        : from > 0
          ? `${shapeSaid(shape)} from ${from} px`
          : `${shapeSaid(shape)} below${n > 1 ? ' that' : ''}`,
    )
    .join(', ');

export function hintFor(slot: Slot): string {
  const whole = slot.shapes[0]?.shape === 'own' ? 'whole photo' : shapesSaid(slot);
  const { text } = withoutHeight(widthText(slot));
  const hint = [whole, text, slot.tallest && tallestSaid(slot.tallest)].filter(Boolean).join(', ');
  return hint.length > MOST_HINT ? `${hint.slice(0, MOST_HINT - 1)}…` : hint;
}
