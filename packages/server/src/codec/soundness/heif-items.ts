// Where the coded pictures of a HEIF file lie (ISO/IEC 23008-12, ISO/IEC 14496-12): the items that its main picture is
// made of, and the slices in each (ISO/IEC 14496-15: units with their length before them).

import { isBeyondEnd } from './complaint.ts';

/** A part of the file that holds one item's data, and where the file says so. */
export interface ItemData {
  id: number;
  from: number;
  to: number;
  /** It lies among the properties. */
  aside: boolean;
  /** Where the offset and the length of it stand in the file, and in how many bytes each. */
  said: { offset: number; offsetBytes: number; base: number; length: number; lengthBytes: number };
}

export interface CodedPicture {
  /** In their order: one, or the tiles of a grid. */
  items: ItemData[];
  /** Tiles beside each other; 1 for one picture. */
  columns: number;
  /** A part of it is cut away before it is shown. */
  cut: boolean;
}

interface Box {
  type: string;
  from: number;
  to: number;
}

/** Boxes between two places; what does not fit ends the list. */
function boxesIn(file: Buffer, from: number, to: number): Box[] {
  const found: Box[] = [];
  for (let at = from; at + 8 <= to;) {
    let size = file.readUInt32BE(at);
    let head = 8;
    if (size === 1 && at + 16 <= to) {
      size = Number(file.readBigUInt64BE(at + 8));
      head = 16;
    } else if (size === 0) size = to - at;
    if (size < head || at + size > to) break;
    found.push({ type: file.toString('latin1', at + 4, at + 8), from: at + head, to: at + size });
    at += size;
  }
  return found;
}

const unsigned = (file: Buffer, at: number, bytes: number): number =>
  bytes === 0 ? 0 : bytes === 8 ? Number(file.readBigUInt64BE(at)) : file.readUIntBE(at, bytes);

/** Data of items that lie in one piece, in the file itself or among the properties (idat), by id (iloc). */
function locationsIn(file: Buffer, { from }: Box, idat: Box | undefined): Map<number, ItemData> {
  const version = file[from]!;
  const [sizes, more] = [file[from + 4]!, file[from + 5]!];
  const [offsetBytes, lengthBytes, baseBytes] = [sizes >> 4, sizes & 15, more >> 4];
  const indexBytes = version > 0 ? more & 15 : 0;
  const wide = version === 2 ? 4 : 2;
  let at = from + 6;
  const count = unsigned(file, at, wide);
  at += wide;
  const found = new Map<number, ItemData>();
  for (let n = 0; n < count; n++) {
    const id = unsigned(file, at, wide);
    at += wide;
    const method = version > 0 ? file.readUInt16BE(at) & 15 : 0;
    at += version > 0 ? 2 : 0;
    at += 2;
    const base = unsigned(file, at, baseBytes);
    at += baseBytes;
    const extents = file.readUInt16BE(at);
    at += 2;
    for (let e = 0; e < extents; e++) {
      at += indexBytes;
      const said = { offset: at, offsetBytes, base, length: at + offsetBytes, lengthBytes };
      // From the beginning of the file, or of that box.
      const zero = method === 0 ? 0 : (idat?.from ?? Infinity);
      const start = zero + base + unsigned(file, at, offsetBytes);
      const length = unsigned(file, at + offsetBytes, lengthBytes);
      at += offsetBytes + lengthBytes;
      if (method <= 1 && extents === 1 && start + length <= file.length)
        found.set(id, { id, from: start, to: start + length, aside: method === 1, said });
    }
  }
  return found;
}

/** Kinds of items, by id (iinf). */
function kindsIn(file: Buffer, { from, to }: Box): Map<number, string> {
  const wide = file[from] === 0 ? 2 : 4;
  const kinds = new Map<number, string>();
  for (const { type, from: at } of boxesIn(file, from + 4 + wide, to)) {
    const version = file[at]!;
    if (type !== 'infe' || version < 2) continue;
    const id = version === 2 ? file.readUInt16BE(at + 4) : file.readUInt32BE(at + 4);
    const kind = at + (version === 2 ? 8 : 10);
    kinds.set(id, file.toString('latin1', kind, kind + 4));
  }
  return kinds;
}

/** Items that another is derived from, in their order (iref, dimg). */
function sourcesOf(file: Buffer, box: Box | undefined, id: number): number[] {
  if (!box) return [];
  const wide = file[box.from] === 0 ? 2 : 4;
  for (const { type, from } of boxesIn(file, box.from + 4, box.to)) {
    if (type !== 'dimg' || unsigned(file, from, wide) !== id) continue;
    const count = file.readUInt16BE(from + wide);
    return Array.from({ length: count }, (_, n) => unsigned(file, from + wide + 2 + n * wide, wide));
  }
  return [];
}

/** The pictures that the main one is made of; null where it is made in a way that is not looked through. */
export function codedPicture(file: Buffer): CodedPicture | null {
  try {
    const meta = boxesIn(file, 0, file.length).find(({ type }) => type === 'meta');
    if (!meta) return null;
    const boxes = boxesIn(file, meta.from + 4, meta.to);
    const box = (name: string) => boxes.find(({ type }) => type === name);
    const [pitm, iloc, iinf] = [box('pitm'), box('iloc'), box('iinf')];
    if (!pitm || !iloc || !iinf) return null;
    const main = unsigned(file, pitm.from + 4, file[pitm.from] === 0 ? 2 : 4);
    const [kinds, locations] = [kindsIn(file, iinf), locationsIn(file, iloc, box('idat'))];
    const cut = file.subarray(meta.from, meta.to).includes('clap');
    const grid = kinds.get(main) === 'grid';
    const ids = grid ? sourcesOf(file, box('iref'), main) : [main];
    if (ids.length === 0 || ids.some((id) => kinds.get(id) !== 'hvc1')) return null;
    const items = ids.map((id) => locations.get(id));
    if (!items.every((item) => item !== undefined) || items.some(({ aside }) => aside)) return null;
    // A grid says how many rows and columns it has, each less one.
    const head = grid ? locations.get(main) : undefined;
    const columns = !grid ? 1 : head ? file[head.from + 3]! + 1 : 0;
    return columns > 0 && items.length % columns === 0 ? { items, columns, cut } : null;
  } catch (error) {
    // A box that points beyond the file is the decoder's to complain of.
    if (isBeyondEnd(error)) return null;
    throw error;
  }
}

/** A slice of a coded picture: the unit that holds it, behind its length. */
export interface Slice {
  from: number;
  to: number;
}

/** Types of units that hold slices (ITU-T H.265, 7.4.2.2). */
const LAST_SLICE_TYPE = 31;

/** The slices of an item whose units have their length before them in four bytes; empty where they don't. */
export function slicesOf(file: Buffer, { from, to }: Pick<ItemData, 'from' | 'to'>): Slice[] {
  const found: Slice[] = [];
  for (let at = from; at < to;) {
    if (at + 6 > to) return [];
    const length = file.readUInt32BE(at);
    if (length < 2 || at + 4 + length > to) return [];
    if (((file[at + 4]! >> 1) & 63) <= LAST_SLICE_TYPE) found.push({ from: at + 4, to: at + 4 + length });
    at += 4 + length;
  }
  return found;
}
