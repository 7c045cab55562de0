// Colours beyond sRGB: whether a picture in Display P3 has any.
import { LINEAR } from '../difference/linear.ts';
import type { Pixels } from '../difference/opponent.ts';

/** As far outside as a rounded code may lie, in linear light. */
const ROUNDING = 0.005;

/**
 * The share of pixels, 0 to 1, whose colour sRGB can't show.
 * @param picture codes in Display P3, at least three channels
 */
export function beyondSrgb({ data, channels }: Pixels): number {
  if (channels < 3) return 0;
  let beyond = 0;
  for (let at = 0; at < data.length; at += channels) {
    const [r, g, b] = [LINEAR[data[at]!]!, LINEAR[data[at + 1]!]!, LINEAR[data[at + 2]!]!];
    // Linear P3 → linear sRGB (CSS Color 4, 17: through XYZ, both with D65).
    const red = 1.22494 * r - 0.22494 * g;
    const green = -0.042057 * r + 1.042057 * g;
    const blue = -0.019638 * r - 0.078636 * g + 1.098274 * b;
    const least = Math.min(red, green, blue);
    const most = Math.max(red, green, blue);
    if (least < -ROUNDING || most > 1 + ROUNDING) beyond += 1;
  }
  return data.length === 0 ? 0 : beyond / (data.length / channels);
}
