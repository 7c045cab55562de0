// Measures visible differences off the main thread: one reference at a time, and whatever is compared with it.
import {
  DifferenceReference,
  spotsOf,
  type DifferenceMap,
  type Pixels,
  type Spot,
} from '@dusky-otter/core/difference';

export interface ToMeasure {
  /** Names the question. */
  id: number;
  /** A new reference with the density it is looked at, or null: the one before. */
  reference: { file: Blob; density: number } | null;
  file: Blob;
}

export interface Measured {
  difference: number;
  map: DifferenceMap;
  spots: Spot[];
}

export type MeasureAnswer = { id: number } & ({ measured: Measured } | { problem: string });

/** How many spots are shown, and how wide each is in px of the file. */
const SPOTS = 4;
const SPOT_SIDE = 56;

let reference: DifferenceReference | null = null;

/** Pixels as they are stored; without an alpha channel where nothing is see-through. */
async function pixelsOf(file: Blob): Promise<Pixels> {
  const picture = await createImageBitmap(file, {
    premultiplyAlpha: 'none',
    colorSpaceConversion: 'none',
  });
  const { width, height } = picture;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(picture, 0, 0);
  picture.close();
  const { data } = context.getImageData(0, 0, width, height);
  const count = width * height;
  for (let i = 0; i < count; i++) if (data[4 * i + 3] !== 255) return { width, height, channels: 4, data };
  const solid = new Uint8Array(3 * count);
  for (let i = 0; i < count; i++) {
    solid[3 * i] = data[4 * i]!;
    solid[3 * i + 1] = data[4 * i + 1]!;
    solid[3 * i + 2] = data[4 * i + 2]!;
  }
  return { width, height, channels: 3, data: solid };
}

async function measured({ reference: next, file }: ToMeasure): Promise<Measured> {
  if (next) reference = new DifferenceReference(await pixelsOf(next.file), next.density);
  if (!reference) throw new Error('There is nothing to compare with.');
  const { difference, map } = reference.look(await pixelsOf(file));
  return { difference, map, spots: spotsOf(map, SPOTS, Math.max(SPOT_SIDE, map.step * 6)) };
}

// One after the other: a question may bring the reference of those behind it.
let turn: Promise<void> = Promise.resolve();

self.onmessage = ({ data: question }: MessageEvent<ToMeasure>) => {
  turn = turn.then(async () => {
    const { id } = question;
    try {
      self.postMessage({ id, measured: await measured(question) } satisfies MeasureAnswer);
    } catch (error) {
      self.postMessage({ id, problem: String(error) } satisfies MeasureAnswer);
    }
  });
};
