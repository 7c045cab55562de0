// Picture files as a broken card, a cut download or a stranger would leave them, from a seed; and a judge of what became of them.
import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { chance, type Chance } from '@dusky-otter/core/chance';
import sharp from 'sharp';

export interface SoundFile {
  kind: string;
  bytes: Buffer;
}

let count = 0;

/** Writes a file into a folder; what a codec process needs to look at it. */
export async function lookAt({ bytes }: SoundFile, folder: string) {
  const path = join(folder, String(++count));
  await writeFile(path, bytes);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const views = { row: `${path}.row`, bench: `${path}.bench` };
  return {
    kind: 'inspect' as const,
    path,
    hash,
    bytes: bytes.length,
    limitPixels: 1e8,
    incoming: folder,
    views,
  };
}

const SIDE = 260;

/** One sound file of every kind, small, so that thousands of broken ones can be looked at. */
export async function soundFiles(demo: string): Promise<SoundFile[]> {
  const photo = sharp(await sharp(join(demo, 'photos/GM_0418.JPG')).resize(SIDE).png().toBuffer());
  const wheel = await sharp(await readFile(join(demo, 'special/wheel.gif')), { animated: true })
    .resize(90)
    .gif()
    .toBuffer();
  // No encoder for it is at hand: a small one as phones make them.
  const heic = readFile(join(demo, '../packages/server/src/testing/heic/several.heic'));
  const logo = await readFile(join(demo, 'special/logo-gullmoor.svg'));
  const made: Record<string, Promise<Buffer>> = {
    jpeg: photo.clone().jpeg({ quality: 85 }).toBuffer(),
    'jpeg 4:4:4': photo.clone().jpeg({ quality: 95, chromaSubsampling: '4:4:4' }).toBuffer(),
    'jpeg progressive': photo.clone().jpeg({ progressive: true }).toBuffer(),
    'jpeg lying': photo.clone().jpeg().withMetadata({ orientation: 6 }).toBuffer(),
    png: photo.clone().png().toBuffer(),
    'png palette': photo.clone().png({ palette: true }).toBuffer(),
    'png interlaced': photo.clone().png({ progressive: true }).toBuffer(),
    webp: photo.clone().webp().toBuffer(),
    'webp lossless': photo.clone().webp({ lossless: true }).toBuffer(),
    'webp moving': sharp(wheel, { animated: true }).webp().toBuffer(),
    gif: photo.clone().gif().toBuffer(),
    'gif moving': Promise.resolve(wheel),
    tiff: photo.clone().tiff({ compression: 'deflate' }).toBuffer(),
    'tiff plain': photo.clone().tiff({ compression: 'none' }).toBuffer(),
    'tiff jpeg': photo.clone().tiff({ compression: 'jpeg' }).toBuffer(),
    avif: photo.clone().avif({ effort: 1 }).toBuffer(),
    heic,
    svg: Promise.resolve(logo),
  };
  return Promise.all(Object.entries(made).map(async ([kind, bytes]) => ({ kind, bytes: await bytes })));
}

const svg = (inner: string) =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200">${inner}</svg>`);
const levels = (count: number, each: (i: number) => string) =>
  Array.from({ length: count }, (_, i) => each(i + 1)).join('');

/**
 * What the strict decoder says to a whole file, without any shortcut on the way; null for nothing. HEIC is decoded whole
 * and at its strictest when it is looked at: what it did not say then it won't say now.
 */
export const strictComplaint = async ({ bytes, kind }: SoundFile): Promise<string | null> => {
  if (kind === 'heic') return null;
  const options = { failOn: 'warning', animated: kind.endsWith('moving') } as const;
  return sharp(bytes, options)
    .raw()
    .toBuffer()
    .then(
      () => null,
      (error: unknown) => String(error),
    );
};

/** Files that are made to keep a processor busy or to fill memory; refused, or done within the limits. */
export function heavyFiles(): SoundFile[] {
  const bomb = levels(12, (i) => `<g id="l${i}">${`<use href="#l${i - 1}"/>`.repeat(10)}</g>`);
  const tiles = levels(
    12,
    (i) =>
      `<pattern id="p${i}" width=".1" height=".1">${`<rect fill="url(#p${i - 1})" width="9" height="9"/>`.repeat(8)}</pattern>`,
  );
  const heavy: Record<string, Buffer> = {
    'svg morphology': svg(
      '<filter id="f"><feMorphology radius="240"/></filter><rect filter="url(#f)" width="200" height="200"/>',
    ),
    'svg blur': svg(
      `<filter id="f">${'<feGaussianBlur stdDeviation="200"/>'.repeat(90)}</filter><rect filter="url(#f)" width="200" height="200"/>`,
    ),
    'svg noise': svg(
      '<filter id="f"><feTurbulence numOctaves="10" baseFrequency="3"/></filter><rect filter="url(#f)" width="200" height="200"/>'.repeat(
        20,
      ),
    ),
    'svg uses': svg(`<defs><rect id="l0" width="1" height="1"/>${bomb}</defs><use href="#l12"/>`),
    'svg patterns': svg(`<defs>${tiles}</defs><rect fill="url(#p12)" width="200" height="200"/>`),
    'svg levels': svg('<g>'.repeat(50_000)),
    'svg elements': svg('<rect width="1" height="1"/>'.repeat(200_000)),
    'svg path': svg(`<path d="${'M0 0L200 200'.repeat(650_000)}"/>`),
    'svg text': svg(`<text>${'glaze '.repeat(170_000)}</text>`),
    'svg comments': Buffer.from('<!---->'.repeat(40)),
    'svg viewBox': Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1000000"><rect width="1" height="9"/></svg>',
    ),
  };
  return Object.entries(heavy).map(([kind, bytes]) => ({ kind, bytes }));
}

const noise = (length: number, { whole }: Chance) => Buffer.from(Array.from({ length }, () => whole(0, 255)));

/** One broken copy of a file. */
export function brokenCopy(bytes: Buffer, random: Chance): Buffer {
  const { whole } = random;
  const copy = Buffer.from(bytes);
  const at = whole(0, copy.length - 1);
  const length = whole(1, 64);
  switch (whole(0, 7)) {
    case 0:
      copy[at] = copy[at]! ^ (1 << whole(0, 7));
      return copy;
    case 1:
      noise(length, random).copy(copy, at);
      return copy;
    case 2:
      return copy.subarray(0, whole(1, copy.length - 1));
    case 3:
      return copy.subarray(0, copy.length - Math.min(copy.length - 1, whole(1, 400)));
    case 4:
      return Buffer.concat([copy.subarray(0, at), copy.subarray(Math.min(copy.length, at + length))]);
    case 5:
      return Buffer.concat([copy.subarray(0, at), copy.subarray(at, at + length), copy.subarray(at)]);
    case 6:
      return copy.fill(0, at, Math.min(copy.length, at + whole(1, 2000)));
    default:
      // Headers are where sizes and counts stand.
      copy[whole(0, Math.min(copy.length - 1, 200))] = whole(0, 255);
      return copy;
  }
}

/** Broken copies of all kinds in turn; the same seed brings the same files. */
export function* brokenFiles(
  sound: readonly SoundFile[],
  count: number,
  seed: number,
): Generator<SoundFile & { of: SoundFile }> {
  const random = chance(seed);
  for (let i = 0; i < count; i++) {
    const of = sound[i % sound.length]!;
    yield { kind: of.kind, of, bytes: brokenCopy(of.bytes, random) };
  }
}

/** Mean difference of two pictures of one size, in codes of 255; Infinity where sizes differ. */
export async function differenceOf(a: Buffer, b: Buffer): Promise<number> {
  const [first, second] = await Promise.all(
    [a, b].map((file) =>
      sharp(file)
        .resize(64, 64, { fit: 'inside' })
        .flatten({ background: '#888' })
        .toColourspace('srgb')
        .raw()
        .toBuffer({ resolveWithObject: true }),
    ),
  );
  if (first!.info.width !== second!.info.width || first!.info.height !== second!.info.height) return Infinity;
  let sum = 0;
  for (let i = 0; i < first!.data.length; i++) sum += Math.abs(first!.data[i]! - second!.data[i]!);
  return sum / first!.data.length;
}

/** From here on a picture is another one, and not only a little different. */
export const ANOTHER_PICTURE = 4;
