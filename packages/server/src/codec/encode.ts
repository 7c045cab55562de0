// Encoders with a variant's settings. Nothing but pixels goes into a file.
import type { BitmapFormat, EncoderSettings } from '@dusky-otter/core/contract';
import { contentOf, PALETTE } from '@dusky-otter/core/weight';
import sharp, { type Sharp } from 'sharp';
import { keptIn, type Gamut } from './gamut.ts';
import { fromRaw, rawOf, roundedOf, type RawPicture } from './raw.ts';

/** What an encoder of pictures that move is told beside a variant's settings. */
interface Motion {
  delay?: number[];
  loop?: number;
}

/** Encodes with a variant's settings; a quality must be given where one is searched for. */
export function encode(
  picture: Sharp,
  format: BitmapFormat,
  settings: EncoderSettings & Motion,
): Promise<Buffer> {
  const { quality, effort, lossless = false, delay, loop } = settings;
  // Empty where the picture does not move.
  const motion = { ...(delay && delay.length > 0 && { delay }), ...(loop !== undefined && { loop }) };
  switch (format) {
    case 'avif': {
      // Pixels of 16 bits stay so on their way: `inputIn` brings them.
      const source = settings.bitDepth === 10 ? picture.toColourspace('rgb16') : picture;
      return source
        .avif({
          ...(quality && { quality }),
          ...(effort !== undefined && { effort }),
          bitdepth: settings.bitDepth ?? 8,
          lossless,
        })
        .toBuffer();
    }
    case 'webp':
      return picture
        .webp({
          ...(quality && { quality }),
          ...(effort !== undefined && { effort }),
          ...(settings.photo && { preset: 'photo' }),
          lossless,
          smartSubsample: settings.sharpChroma ?? false,
          smartDeblock: settings.deblock ?? false,
          ...motion,
        })
        .toBuffer();
    case 'jpeg': {
      const progressive = settings.progressive ?? true;
      return picture
        .jpeg({
          ...(quality && { quality }),
          progressive,
          optimiseScans: progressive && (settings.scans ?? false),
          chromaSubsampling: settings.fullChroma ? '4:4:4' : '4:2:0',
          quantisationTable: settings.table ?? 0,
          trellisQuantisation: settings.trellis ?? false,
          overshootDeringing: settings.trellis ?? false,
        })
        .toBuffer();
    }
    case 'png':
      return picture
        .png(
          settings.palette && !lossless
            ? { palette: true, colours: PALETTE, quality: 100, dither: 1, effort: effort ?? 7 }
            : { compressionLevel: effort ?? 7 },
        )
        .toBuffer();
    case 'gif':
      return picture.gif({ ...(effort !== undefined && { effort }), ...motion }).toBuffer();
  }
}

/** The pixels of a file as they are drawn, in the colour space that they were encoded in. */
export async function decode(file: Buffer, gamut?: Gamut): Promise<RawPicture> {
  const { depth } = await sharp(file).metadata();
  return (depth === 'ushort' ? roundedOf : rawOf)(keptIn(sharp(file), gamut));
}

/** The pixels as RGB and alpha, for comparing what different files hold. */
const solid = async (picture: Sharp): Promise<Buffer> =>
  picture.toColourspace('srgb').ensureAlpha().raw().toBuffer();

/** A PNG with a palette, or null where 256 colours can't hold the picture exactly. */
async function palettePng(picture: RawPicture, effort: number): Promise<Buffer | null> {
  if (contentOf(picture).colours > PALETTE) return null;
  const file = await fromRaw(picture)
    .png({ palette: true, colours: PALETTE, quality: 100, dither: 0, compressionLevel: effort })
    .toBuffer();
  // The quantiser promises nothing: what it made is compared.
  const [before, after] = await Promise.all([solid(fromRaw(picture)), solid(sharp(file))]);
  return before.equals(after) ? file : null;
}

/** Highest efforts without loss. */
const MOST_EFFORT: Partial<Record<BitmapFormat, number>> = { png: 9, webp: 6 };

/** A picture encoded without loss, as a palette where that is allowed, exact and smaller; thoroughly at two efforts. */
export async function encodeLossless(
  picture: RawPicture,
  format: BitmapFormat,
  settings: EncoderSettings,
): Promise<Buffer> {
  const files: (Buffer | null)[] = [];
  const efforts = settings.thorough ? [settings.effort, MOST_EFFORT[format]] : [settings.effort];
  for (const effort of efforts) {
    const own = { ...settings, ...(effort !== undefined && { effort }) };
    files.push(await encode(fromRaw(picture), format, own));
    if (format === 'png' && settings.palette) files.push(await palettePng(picture, effort ?? 7));
  }
  return files.filter((file) => file !== null).reduce((a, b) => (b.length < a.length ? b : a));
}
