// Encodes a picture with the quality at which it meets its visible target: encoders and measuring for the core's search.
import type { EncoderSettings } from '@dusky-otter/core/contract';
import { DifferenceReference } from '@dusky-otter/core/difference';
import {
  isLossy,
  pointQualities,
  settingsFor,
  ThoroughSearch,
  VariantSearch,
  type Attempt,
  type LossyFormat,
} from '@dusky-otter/core/weight';
import type { BitmapOutput } from './protocol.ts';
import { decode, encode, encodeLossless } from './encode.ts';
import { inputIn, type Gamut } from './gamut.ts';
import type { RawPicture } from './raw.ts';
import { shortened } from './short-way.ts';

export interface Encoded {
  file: Buffer;
  /** Quality that was found or given; null where there is none. */
  quality: number | null;
  /** Visible difference in thousandths; null where it was not measured. */
  difference: number | null;
  encodes: number;
}

/** What is stored, said and compared with the target is the same number. */
const thousandths = (value: number): number => Math.round(value * 1000) / 1000;

/** One size of a crop, and all that its variants have in common. */
export class SizedPicture {
  private readonly references = new Map<number, DifferenceReference>();

  /** @param gamut of the pixels: what is encoded says so, and is compared in it */
  constructor(
    readonly picture: RawPicture,
    private readonly gamut?: Gamut,
  ) {}

  /** A file of these pixels. */
  private async made(
    format: BitmapOutput['format'],
    settings: Parameters<typeof encode>[2],
  ): Promise<Buffer> {
    const input = await inputIn(this.picture, this.gamut, settings.bitDepth);
    return encode(input, format, shortened(format, settings));
  }

  private async differenceOf(file: Buffer, density: number): Promise<number> {
    return thousandths(this.referenceAt(density).differenceOf(await decode(file, this.gamut)));
  }

  hasSize(width: number, height: number): boolean {
    return this.picture.width === width && this.picture.height === height;
  }

  private referenceAt(density: number): DifferenceReference {
    let reference = this.references.get(density);
    if (!reference) {
      reference = new DifferenceReference(this.picture, density);
      this.references.set(density, reference);
    }
    return reference;
  }

  /** @param alive told before each encode of a search */
  async encode(
    { format, settings }: Pick<BitmapOutput, 'format' | 'settings'>,
    alive: () => void = () => undefined,
  ): Promise<Encoded> {
    if (isLossy(format) && settings.target !== undefined)
      return this.search(format, settings, settings.target, alive);
    if (isLossy(format) && settings.quality !== undefined && settings.density !== undefined)
      return this.pinned(format, settings, settings.quality, settings.density);
    const exact = settings.lossless ?? false;
    const file = exact
      ? await encodeLossless(this.picture, format, settings)
      : await this.made(format, settings);
    return { file, quality: settings.quality ?? null, difference: exact ? 0 : null, encodes: 1 };
  }

  /** A quality that an editor chose: nothing is searched, but it is told what it does. */
  private async pinned(
    format: LossyFormat,
    settings: EncoderSettings,
    quality: number,
    density: number,
  ): Promise<Encoded> {
    const file = await this.made(format, settings);
    const difference = await this.differenceOf(file, density);
    return { file, quality, difference, encodes: 1 };
  }

  /** What it could be had for: bytes and difference at qualities from where nobody sees anything to where everybody does. */
  async points(format: LossyFormat, density: number): Promise<Attempt[]> {
    const { width, height } = this.picture;
    const { known } = this.referenceAt(density);
    const points: Attempt[] = [];
    const photograph = { kind: 'photograph', lossless: false } as const;
    for (const quality of pointQualities(format, { ...known, width, height, density })) {
      const settings = settingsFor(format, photograph, {
        target: 0,
        density,
        pixels: width * height,
        pinned: quality,
      });
      const { file, difference } = await this.pinned(format, settings, quality, density);
      points.push({ quality, bytes: file.length, difference: difference! });
    }
    return points;
  }

  private async search(
    format: LossyFormat,
    settings: EncoderSettings,
    target: number,
    alive: () => void,
  ): Promise<Encoded> {
    const { width, height } = this.picture;
    const density = settings.density ?? 1;
    const Search = settings.thorough ? ThoroughSearch : VariantSearch;
    const search = new Search(format, target, {
      ...this.referenceAt(density).known,
      width,
      height,
      density,
    });
    let best: Buffer | null = null;
    for (let trial = search.next; trial; trial = search.next) {
      alive();
      const file = await this.made(format, { ...settings, ...trial });
      const difference = await this.differenceOf(file, density);
      const attempt = { ...trial, bytes: file.length, difference };
      search.take(attempt);
      if (search.best === attempt) best = file;
    }
    const { quality, difference } = search.best!;
    return { file: best!, quality, difference, encodes: search.attempts.length };
  }
}
