// Pixels beyond sRGB: Display P3 in, looked at, and out again with its profile.
import type { EncoderSettings } from '@dusky-otter/core/contract';
import { beyondSrgb } from '@dusky-otter/core/weight';
import sharp, { type Sharp } from 'sharp';
import { deepened, fromRaw, rawOf, type RawPicture } from './raw.ts';
import { uncompressedTiff } from './tiff.ts';

/** sRGB where nothing is said. */
export type Gamut = EncoderSettings['gamut'];

/** How a photo's profile is named that is in Display P3. */
export const DISPLAY_P3 = 'Display P3';

async function readProfile(): Promise<Buffer> {
  const pixel = { create: { width: 1, height: 1, channels: 3 as const, background: '#fff' } };
  const { icc } = await sharp(await sharp(pixel).withIccProfile('p3').png().toBuffer()).metadata();
  return icc!;
}

let profile: Promise<Buffer> | null = null;

/** The Display P3 profile, as the picture library brings it along; read once a process. */
export const displayP3 = (): Promise<Buffer> => (profile ??= readProfile());

/** Leaves the codes of a picture in Display P3 as they are; else they become sRGB. */
export const keptIn = (picture: Sharp, gamut: Gamut): Sharp =>
  gamut === 'p3' ? picture.keepIccProfile() : picture;

/**
 * Pixels as a sharp input that carries their profile into what is encoded; a raw input would be taken for sRGB.
 * @param bitDepth of what is to be encoded
 */
export async function inputIn(picture: RawPicture, gamut: Gamut, bitDepth: 8 | 10 = 8): Promise<Sharp> {
  const isDeep = bitDepth === 10;
  if (gamut !== 'p3') return fromRaw(isDeep ? { ...picture, data: deepened(picture) } : picture);
  const pixels = isDeep ? { ...picture, data: Buffer.from(deepened(picture).buffer) } : picture;
  const tiff = uncompressedTiff(pixels, await displayP3(), 'rgb', isDeep ? 16 : 8);
  return keptIn(sharp(tiff, { limitInputPixels: false }), gamut);
}

/** Long side in px of the sample that is looked at for colours beyond sRGB. */
const SAMPLE = 512;
/** Less than this share of a picture is noise, or a rim. */
const LEAST_SHARE = 0.001;

/** Whether a picture in Display P3 has colours that sRGB can't show. */
export async function usesWide(source: Sharp): Promise<boolean> {
  const sample = keptIn(source, 'p3')
    .resize(SAMPLE, SAMPLE, { fit: 'inside', withoutEnlargement: true, kernel: 'nearest' })
    .toColourspace('srgb');
  return beyondSrgb(await rawOf(sample)) > LEAST_SHARE;
}
