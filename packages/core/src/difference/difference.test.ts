// Visible difference: what must hold for any picture, whatever the calibration.
import { describe, expect, test } from '@jest/globals';
import { chance, type Chance } from '../chance/chance.ts';
import { bandEnergies, halve } from './bands.ts';
import { toOpponent, type Pixels } from './opponent.ts';
import { halved } from './reduce.ts';
import { DifferenceReference, visibleDifference } from './visible-difference.ts';

type Paint = (x: number, y: number) => readonly number[];

function picture(width: number, height: number, channels: Pixels['channels'], paint: Paint): Pixels {
  const data = new Uint8Array(width * height * channels);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) data.set(paint(x, y), (y * width + x) * channels);
  }
  return { data, width, height, channels };
}

const changed = (pixels: Pixels, change: (value: number, at: number) => number): Pixels => ({
  ...pixels,
  data: pixels.data.map((value, at) => Math.min(255, Math.max(0, Math.round(change(value, at))))),
});

/** Soft hills, the same for every channel layout. */
const hills: Paint = (x, y) => {
  const level = 128 + 60 * Math.sin(x / 17) * Math.cos(y / 23);
  return [level, level * 0.9, level * 0.8];
};

const noise = (luck: Chance, most: number) => (value: number) => value + luck.whole(-most, most);

describe('difference', () => {
  test('identical pictures have none, in every channel layout', () => {
    const paints: [Pixels['channels'], Paint][] = [
      [1, (x) => [x]],
      [2, (x, y) => [x, y * 3]],
      [3, hills],
      [4, (x, y) => [...hills(x, y), x * 3]],
    ];
    for (const [channels, paint] of paints) {
      const pixels = picture(70, 50, channels, paint);
      expect(visibleDifference(pixels, { ...pixels, data: pixels.data.slice() })).toBe(0);
    }
  });
  test('more of the same error is seen more', () => {
    const pixels = picture(120, 90, 3, hills);
    const reference = new DifferenceReference(pixels);
    const errors = [2, 5, 10, 20, 40].map((most) =>
      reference.differenceOf(changed(pixels, noise(chance(1), most))),
    );
    expect([...errors].sort((a, b) => a - b)).toEqual(errors);
    expect(errors[0]).toBeGreaterThan(0);
  });
  test('busy texture hides an error that stands out in a plain field', () => {
    const luck = chance(2);
    const plain = picture(128, 96, 3, () => [128, 128, 128]);
    const busy = picture(128, 96, 3, () => {
      const level = luck.whole(30, 225);
      return [level, level, level];
    });
    const [onPlain, onBusy] = [plain, busy].map((pixels) =>
      visibleDifference(pixels, changed(pixels, noise(chance(3), 12))),
    );
    expect(onPlain!).toBeGreaterThan(2 * onBusy!);
  });
  test('a small damaged region counts for much more than its share of the area', () => {
    const pixels = picture(320, 240, 3, hills);
    const spot = changed(pixels, (value, at) => {
      const [x, y] = [Math.floor(at / 3) % 320, Math.floor(at / 960)];
      return x >= 100 && x < 116 && y >= 100 && y < 116 ? value + ((x + y) % 2 ? 40 : -40) : value;
    });
    const whole = changed(
      pixels,
      (value, at) => value + ((Math.floor(at / 3) + Math.floor(at / 960)) % 2 ? 40 : -40),
    );
    const part = visibleDifference(pixels, spot);
    // A three-hundredth of the area: its root mean square is a seventeenth of the whole's.
    expect(part).toBeGreaterThan(visibleDifference(pixels, whole) / 3);
  });
  test('tiles and blotches in a plain field are seen, a drift of the whole field is not', () => {
    const plain = picture(256, 256, 3, () => [60, 70, 90]);
    /** Two codes more in every other tile of this side, or everywhere. */
    const tiled = (side: number) =>
      picture(256, 256, 3, (x, y) => {
        const more = (Math.floor(x / side) + Math.floor(y / side)) % 2 === 0 ? 2 : 0;
        return [60 + more, 70 + more, 90 + more];
      });
    const whole = picture(256, 256, 3, () => [62, 72, 92]);
    const drift = visibleDifference(plain, whole);
    expect(drift).toBeLessThan(0.7);
    for (const side of [8, 16, 32])
      expect(visibleDifference(plain, tiled(side))).toBeGreaterThan(1.5 * drift);
  });
  test('an error at the rim counts no more than in the middle, whatever the size', () => {
    for (const side of [120, 128, 129, 150]) {
      const plain = picture(side, side, 3, () => [60, 70, 90]);
      const worseAt = (from: number) =>
        visibleDifference(
          plain,
          picture(side, side, 3, (x, y) => (x === from && y === from ? [80, 90, 110] : [60, 70, 90])),
        );
      expect(worseAt(side - 1)).toBeLessThan(1.5 * worseAt(64));
    }
  });
  test('a lost colour is seen though lightness stays', () => {
    const red = picture(64, 64, 3, (x) => (x < 32 ? [190, 90, 90] : [120, 120, 120]));
    const grey = picture(64, 64, 3, (x) => (x < 32 ? [124, 124, 124] : [120, 120, 120]));
    expect(visibleDifference(red, grey)).toBeGreaterThan(3);
  });
  test('the denser the file, the less of a fine error is seen, and never more', () => {
    const pixels = picture(160, 160, 3, hills);
    const variant = changed(pixels, noise(chance(5), 15));
    const seen = [1, 1.25, 1.5, 2, 3, 4].map((density) => visibleDifference(pixels, variant, density));
    expect([...seen].sort((a, b) => b - a)).toEqual(seen);
    expect(seen[3]).toBeLessThan(0.7 * seen[0]!);
    // A broad stain is seen from farther as well.
    const stain = changed(pixels, (value, at) => value + (Math.floor(at / 3) % 160 < 80 ? 14 : 0));
    expect(visibleDifference(pixels, stain, 2)).toBeGreaterThan(0.7 * visibleDifference(pixels, stain, 1));
  });
  test('a see-through picture is judged on the worse of a white and a black page', () => {
    const solid = picture(64, 64, 4, () => [255, 255, 255, 255]);
    const veil = picture(64, 64, 4, () => [255, 255, 255, 128]);
    // White at half cover: nothing on a white page, grey on a black one.
    expect(visibleDifference(solid, veil)).toBeGreaterThan(3);
    const clear = picture(64, 64, 4, () => [10, 200, 40, 0]);
    const other = picture(64, 64, 4, () => [200, 10, 90, 0]);
    expect(visibleDifference(clear, other)).toBe(0);
  });
  test('any size works, down to one pixel', () => {
    for (const [width, height] of [
      [1, 1],
      [3, 2],
      [7, 9],
      [17, 33],
      [200, 5],
    ] as const) {
      const pixels = picture(width, height, 3, () => [100, 120, 140]);
      const reference = new DifferenceReference(pixels, 2);
      expect(reference.differenceOf(pixels)).toBe(0);
      const worse = reference.differenceOf(changed(pixels, (value) => value + 60));
      expect(worse).toBeGreaterThan(0.5);
      expect(Number.isFinite(worse)).toBe(true);
    }
  });
  test('two sizes can’t be compared', () => {
    const reference = new DifferenceReference(picture(20, 20, 3, hills));
    expect(() => reference.differenceOf(picture(20, 21, 3, hills))).toThrow('20 × 20 and 20 × 21');
  });
  test('exposure: nothing hides errors in a plain field, much does in texture', () => {
    const luck = chance(6);
    const known = (paint: Paint) => new DifferenceReference(picture(96, 96, 3, paint)).known;
    const plain = known(() => [128, 128, 128]).exposure;
    const busy = known(() => [luck.whole(0, 255), 128, 128]).exposure;
    for (const band of [0, 1, 2] as const) {
      expect(plain[band]).toBeCloseTo(0, 3);
      expect(busy[band]).toBeLessThan(plain[band]);
    }
  });
  test('colour: none in grey, more the more saturated its detail is', () => {
    const stripes = (more: number) =>
      new DifferenceReference(picture(96, 96, 3, (x) => [120 + (x % 8 < 4 ? more : 0), 120, 120])).known
        .colour;
    expect(new DifferenceReference(picture(96, 96, 1, (x, y) => [(x * y) % 256])).known.colour).toBeCloseTo(
      Math.log(1e-6),
      3,
    );
    expect(stripes(20)).toBeGreaterThan(-12);
    expect(stripes(100)).toBeGreaterThan(stripes(20) + 1);
  });
});

describe('its parts', () => {
  test('opponent planes: grey has no colour, black is 0, white is 1 less the veil', () => {
    const planes = toOpponent(picture(16, 16, 3, (x) => (x < 8 ? [0, 0, 0] : [255, 255, 255])));
    expect(planes.lightness[0]).toBeCloseTo(0, 4);
    const white = planes.lightness[12]!;
    expect(white).toBeCloseTo(Math.cbrt(1.003) - Math.cbrt(0.003), 3);
    for (const plane of [planes.greenRed, planes.blueYellow]) {
      for (const value of plane) expect(Math.abs(value)).toBeLessThan(2e-4);
    }
  });
  test('a published value: OKLab of pure red, with the veil’s offset taken away', () => {
    // B. Ottosson gives L 0.628, a 0.225, b 0.126; the veil shifts each cone's root alike.
    const { greenRed, blueYellow } = toOpponent(picture(16, 16, 3, () => [255, 0, 0]));
    expect(greenRed[0]).toBeCloseTo(0.225, 1);
    expect(blueYellow[0]).toBeCloseTo(0.126, 1);
  });
  test('a picture minus itself is nothing, and beyond the edge lies its mirror image', () => {
    const pixels = picture(21, 11, 3, hills);
    const planes = toOpponent(pixels);
    expect([planes.width, planes.height]).toEqual([32, 32]);
    expect(planes.lightness[21]).toBe(planes.lightness[20]);
    expect(planes.lightness[31]).toBe(planes.lightness[10]);
    // Eleven rows, there and back, and the first ten of them there again.
    expect(planes.lightness[31 * 32 + 5]).toBe(planes.lightness[9 * 32 + 5]);
    const nothing = toOpponent(pixels, 255, planes);
    for (const value of nothing.lightness) expect(value).toBe(0);
  });
  test('halving keeps a plain field and the mean of a slope', () => {
    expect([...halve(new Float32Array(16).fill(5), 4, 4)]).toEqual([5, 5, 5, 5]);
    const slope = Float32Array.from({ length: 64 }, (_, i) => i % 8);
    expect(halve(slope, 8, 8)[1]).toBeCloseTo(2.5, 6);
  });
  test('a wave’s energy stands in the band of its length', () => {
    const bandOf = (period: number): number => {
      const plane = Float32Array.from({ length: 128 * 128 }, (_, i) =>
        Math.sin((2 * Math.PI * (i % 128)) / period),
      );
      const energies = bandEnergies(plane, 128, 128, 0).map(
        ({ energies: grid }) => grid.reduce((a, b) => a + b, 0) / grid.length,
      );
      return energies.indexOf(Math.max(...energies));
    };
    expect([3, 7, 14, 28, 56, 128].map(bandOf)).toEqual([0, 1, 2, 3, 4, 5]);
  });
  test('pixels halved: means, odd sides, and colours by their cover', () => {
    const grey = {
      data: Uint8Array.from([0, 10, 20, 30, 40, 50]),
      width: 3,
      height: 2,
      channels: 1 as const,
    };
    expect(halved(grey)).toEqual({ data: Uint8Array.from([20, 35]), width: 2, height: 1, channels: 1 });
    const cover = {
      data: Uint8Array.from([200, 255, 0, 0, 100, 255, 9, 0]),
      width: 4,
      height: 1,
      channels: 2 as const,
    };
    expect([...halved(cover).data]).toEqual([200, 128, 100, 128]);
  });
});
