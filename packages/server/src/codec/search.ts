// Encodes a picture with the quality at which it meets its visible target: encoders and measuring for the core's search.
import {
  DifferenceReference,
  isLossy,
  jpegBeside,
  predictedOffset,
  QualitySearch,
  type EncoderSettings,
  type LossyFormat,
  type OutputFormat,
} from '@dusky-otter/core';
import type { RenderOutput } from './protocol.ts';
import { decode, encode, encodeLossless } from './encode.ts';
import { fromRaw, type RawPicture } from './source.ts';

export interface Encoded {
  file: Buffer;
  /** Quality that was found or given; null where there is none. */
  quality: number | null;
  /** Visible difference in thousandths; null where it was not measured. */
  difference: number | null;
  encodes: number;
}

/** Stored values and values of this run must be the same number: a search that begins from them must not differ. */
const thousandths = (value: number): number => Math.round(value * 1000) / 1000;

/** One size of a crop, and all that its variants have in common. */
export class SizedPicture {
  private readonly references = new Map<number, DifferenceReference>();
  private readonly found = new Map<string, { quality: number; difference: number }>();

  constructor(readonly picture: RawPicture) {}

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

  /** The outputs of this size must come with a JPEG before what begins from it. */
  async encode(output: RenderOutput, all: readonly RenderOutput[]): Promise<Encoded> {
    const { format, settings } = output;
    if (isLossy(format) && settings.target !== undefined) {
      const partner = jpegBeside(output, all);
      const near = (partner && this.found.get(partner.key)) ?? output.near;
      const encoded = await this.search(format, settings, settings.target, near);
      const { quality, difference } = encoded;
      if (quality !== null && difference !== null) this.found.set(output.key, { quality, difference });
      return encoded;
    }
    const exact = settings.lossless ?? false;
    const file = exact
      ? await encodeLossless(this.picture, format, settings)
      : await encode(fromRaw(this.picture), format, settings);
    return { file, quality: settings.quality ?? null, difference: exact ? 0 : null, encodes: 1 };
  }

  private async search(
    format: LossyFormat,
    settings: EncoderSettings,
    target: number,
    near: { quality: number; difference: number } | undefined,
  ): Promise<Encoded> {
    const { width, height } = this.picture;
    const density = settings.density ?? 1;
    const reference = this.referenceAt(density);
    const offset = predictedOffset(format, { exposure: reference.exposure, width, height, density }, near);
    const search = new QualitySearch({ format, target, offset, sure: near !== undefined });
    let best: Buffer | null = null;
    while (search.next !== null) {
      const quality = search.next;
      const file = await encode(fromRaw(this.picture), format, { ...settings, quality });
      const difference = thousandths(reference.differenceOf(await decode(file)));
      const attempt = { quality, bytes: file.length, difference };
      search.take(attempt);
      if (search.best === attempt) best = file;
    }
    const { quality, difference } = search.best!;
    return { file: best!, quality, difference, encodes: search.encodes };
  }
}

/** Smallest first, and of one size a JPEG first: the modern format's search begins from it. */
export function inOrder<T extends { width: number; height: number; format: OutputFormat }>(
  outputs: readonly T[],
): T[] {
  const rank = (output: T): number => (output.format === 'jpeg' ? 0 : 1);
  return [...outputs].sort((a, b) => a.width - b.width || a.height - b.height || rank(a) - rank(b));
}
