// For tests: how far two colours are apart for the eye (CIEDE2000), from sRGB.

/** CIE L*a*b* of an sRGB colour, 8 bits a channel, white point D65 (IEC 61966-2-1; CIE 15). */
export function labOf(rgb: readonly number[]): [number, number, number] {
  const [r, g, b] = rgb.map((value) => {
    const c = value / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  const f = (t: number) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29);
  const x = f((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047);
  const y = f(0.2126729 * r + 0.7151522 * g + 0.072175 * b);
  const z = f((0.0193339 * r + 0.119192 * g + 0.9503041 * b) / 1.08883);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

const RADIANS = Math.PI / 180;

/**
 * The difference of two colours in L*a*b*.
 * G. Sharma, W. Wu, E. Dalal, "The CIEDE2000 color-difference formula", 2005, with all weights 1.
 */
export function deltaE2000(
  [l1, a1, b1]: readonly [number, number, number],
  [l2, a2, b2]: readonly [number, number, number],
): number {
  const mean = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const g = 0.5 * (1 - Math.sqrt(mean ** 7 / (mean ** 7 + 25 ** 7)));
  const [p1, p2] = [a1 * (1 + g), a2 * (1 + g)];
  const [c1, c2] = [Math.hypot(p1, b1), Math.hypot(p2, b2)];
  const hue = (a: number, b: number) => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / RADIANS + 360) % 360);
  const [h1, h2] = [hue(p1, b1), hue(p2, b2)];
  const none = c1 * c2 === 0;
  const apart = h2 - h1;
  const turn = none ? 0 : Math.abs(apart) <= 180 ? apart : apart > 180 ? apart - 360 : apart + 360;
  const dL = l2 - l1;
  const dC = c2 - c1;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * RADIANS);
  const [l, c] = [(l1 + l2) / 2, (c1 + c2) / 2];
  const h = none
    ? h1 + h2
    : Math.abs(apart) <= 180
      ? (h1 + h2) / 2
      : h1 + h2 < 360
        ? (h1 + h2 + 360) / 2
        : (h1 + h2 - 360) / 2;
  const t =
    1 -
    0.17 * Math.cos((h - 30) * RADIANS) +
    0.24 * Math.cos(2 * h * RADIANS) +
    0.32 * Math.cos((3 * h + 6) * RADIANS) -
    0.2 * Math.cos((4 * h - 63) * RADIANS);
  const sL = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2);
  const sC = 1 + 0.045 * c;
  const sH = 1 + 0.015 * c * t;
  const rT =
    -2 * Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7)) * Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * RADIANS);
  return Math.sqrt((dL / sL) ** 2 + (dC / sC) ** 2 + (dH / sH) ** 2 + rT * (dC / sC) * (dH / sH));
}
