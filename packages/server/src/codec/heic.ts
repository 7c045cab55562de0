// HEIC, as phones save photos: decoded by libheif, compiled to WebAssembly, through its C interface.
import { readFile } from 'node:fs/promises';
import type { Size } from '@dusky-otter/core/contract';
import makeLibheif from 'libheif-js/libheif-wasm/libheif-bundle.js';
import { RefusedError } from '../problems.ts';
import { displayP3 } from './gamut.ts';
import { isGarbled, type DecodedHeif } from './soundness/heif-data.ts';
import { inventedPart } from './soundness/invented.ts';
import type { RawPicture } from './raw.ts';
import { uncompressedTiff } from './tiff.ts';

/** What is known of the main picture of a file before it is decoded. Turned as the file says. */
export interface HeicHeader extends Size {
  /** Pictures that the file holds beside each other; small previews, depth and light maps of one are not counted. */
  pictures: number;
  profile: Buffer | null;
  /** Its values are meant for screens brighter than usual (Rec. ITU-R BT.2100: PQ or HLG). */
  hdr: boolean;
}

type Libheif = ReturnType<typeof makeLibheif>;

// Values of libheif's public headers (heif_error.h, heif_image.h, heif_color.h).
const UNREADABLE = new Set([3, 4]);
const RGB = 1;
const INTERLEAVED = { 3: 10, 4: 11 } as const;
const INTERLEAVED_CHANNEL = 10;
/** Where heif_decoding_options says whether decoding is strict: behind its version, four addresses and a flag. */
const STRICT = 21;
/** Likewise whether turning and cutting are left out: behind the version. */
const AS_CODED = 1;
const NCLX = 0x6e636c78;
/** Code points of ITU-T H.273: colour primaries of Display P3, transfer characteristics PQ and HLG. */
const P3 = 12;
const HDR_TRANSFER = [16, 18];

/** Part of a picture that may be of the colour that is left where nothing was decoded: a green wall may have some. */
const INVENTED = 0.01;

/** One file in a decoder of its own: what it took of memory goes with it, for a WebAssembly heap never shrinks. */
class HeicFile {
  private readonly context: number;
  private readonly handle: number;
  /** Where functions put their errors and results. */
  private readonly error: number;
  private readonly out: number;

  /** @throws RefusedError where it holds nothing that can be read; Error where it makes no sense */
  constructor(
    private readonly lib: Libheif,
    file: Uint8Array,
  ) {
    this.error = lib._malloc(16);
    this.out = lib._malloc(16);
    const bytes = lib._malloc(file.length);
    lib.HEAPU8.set(file, bytes);
    this.context = lib._heif_context_alloc();
    lib._heif_context_read_from_memory_without_copy(this.error, this.context, bytes, file.length, 0);
    this.check();
    lib._heif_context_get_primary_image_handle(this.error, this.context, this.out);
    this.check();
    this.handle = this.word(this.out);
  }

  private word(address: number): number {
    return this.lib.HEAP32[address >> 2]!;
  }

  /** Functions leave a heif_error where they were told: code, detail, and an address of English words. */
  private check(): void {
    const code = this.word(this.error);
    if (code === 0) return;
    if (UNREADABLE.has(code)) throw new RefusedError('unsupported-heic');
    throw new Error(`libheif: ${code}.${this.word(this.error + 4)}`);
  }

  async header(): Promise<HeicHeader> {
    const { lib, handle } = this;
    const size = {
      width: lib._heif_image_handle_get_width(handle),
      height: lib._heif_image_handle_get_height(handle),
    };
    const pictures = lib._heif_context_get_number_of_top_level_images(this.context);
    const length = lib._heif_image_handle_get_raw_color_profile_size(handle);
    if (length > 0) {
      const at = lib._malloc(length);
      lib._heif_image_handle_get_raw_color_profile(this.error, handle, at);
      this.check();
      return { ...size, pictures, profile: this.copied(at, length), hdr: false };
    }
    const { primaries, transfer } = this.nclx();
    const profile = primaries === P3 ? await displayP3() : null;
    return { ...size, pictures, profile, hdr: HDR_TRANSFER.includes(transfer) };
  }

  /** Without turning and cutting. */
  codedSize(): Size {
    return {
      width: this.lib._heif_image_handle_get_ispe_width(this.handle),
      height: this.lib._heif_image_handle_get_ispe_height(this.handle),
    };
  }

  /** Colour by code points; zeros where the file has none. */
  private nclx(): { primaries: number; transfer: number } {
    const { lib, handle } = this;
    if (lib._heif_image_handle_get_color_profile_type(handle) >>> 0 !== NCLX)
      return { primaries: 0, transfer: 0 };
    lib._heif_image_handle_get_nclx_color_profile(this.error, handle, this.out);
    this.check();
    // heif_color_profile_nclx: version, then primaries and transfer characteristics as words.
    const at = this.word(this.out);
    return { primaries: this.word(at + 4), transfer: this.word(at + 8) };
  }

  private copied(address: number, length: number): Buffer {
    return Buffer.from(this.lib.HEAPU8.slice(address, address + length));
  }

  /**
   * The pixels in rows without gaps, 8 bits a channel.
   * @param how `strict`: what the decoder complains of is an error, otherwise it shows what it can; `coded`: as it
   *   lies in the file, not turned and not cut
   */
  pixels(
    { width, height }: Size,
    { strict, coded = false }: { strict: boolean; coded?: boolean },
  ): Pick<RawPicture, 'data' | 'channels'> {
    const { lib, handle } = this;
    const channels = lib._heif_image_handle_has_alpha_channel(handle) ? 4 : 3;
    const options = lib._heif_decoding_options_alloc();
    lib.HEAPU8[options + STRICT] = Number(strict);
    lib.HEAPU8[options + AS_CODED] = Number(coded);
    lib._heif_decode_image(this.error, handle, this.out, RGB, INTERLEAVED[channels], options);
    this.check();
    const image = this.word(this.out);
    const plane = lib._heif_image_get_plane_readonly2(image, INTERLEAVED_CHANNEL, this.out);
    const stride = this.word(this.out);
    const row = width * channels;
    const size = {
      width: lib._heif_image_get_width(image, INTERLEAVED_CHANNEL),
      height: lib._heif_image_get_height(image, INTERLEAVED_CHANNEL),
    };
    if (plane === 0 || size.width !== width || size.height !== height || stride < row)
      throw new Error('libheif: the picture has another size than its header says.');
    const data = Buffer.allocUnsafe(row * height);
    for (let y = 0; y < height; y++)
      data.set(lib.HEAPU8.subarray(plane + y * stride, plane + y * stride + row), y * row);
    return { data, channels };
  }
}

const opened = async (path: string): Promise<HeicFile> => new HeicFile(makeLibheif(), await readFile(path));

/** @throws RefusedError, Error where the file can't be read */
export const heicHeader = async (path: string): Promise<HeicHeader> => (await opened(path)).header();

/**
 * The main picture of a file, upright, as an uncompressed TIFF with its profile: what every reader of pictures takes.
 * @param lenient shows what there is, also where a part of it is missing
 * @throws RefusedError, Error where it can't be read
 */
export async function heicAsTiff(path: string, lenient = false): Promise<Buffer> {
  const bytes = await readFile(path);
  const file = new HeicFile(makeLibheif(), bytes);
  const { width, height, profile } = await file.header();
  const picture = { width, height, ...file.pixels({ width, height }, { strict: !lenient }) };
  if (lenient) return uncompressedTiff(picture, profile);
  if (inventedPart(picture) > INVENTED || isGarbled(bytes, picture, decodedAsCoded))
    throw new Error('libheif: a part was not decoded, or is not what was coded.');
  return uncompressedTiff(picture, profile);
}

/** The main picture of a file as it is coded, as far as it can be decoded; null where it can't. */
function decodedAsCoded(bytes: Buffer): DecodedHeif | null {
  try {
    const file = new HeicFile(makeLibheif(), bytes);
    const size = file.codedSize();
    return { ...size, ...file.pixels(size, { strict: false, coded: true }) };
  } catch {
    // What was changed in it may be more than the decoder bears.
    return null;
  }
}

/** Part of the picture that can be decoded where the decoder complains, 0 to 1; 0 where nothing can. */
export async function heicShare(path: string): Promise<number> {
  try {
    const file = await opened(path);
    const { width, height } = await file.header();
    return 1 - inventedPart({ width, height, ...file.pixels({ width, height }, { strict: false }) });
  } catch {
    // Whatever is wrong with it was said when it was decoded.
    return 0;
  }
}
