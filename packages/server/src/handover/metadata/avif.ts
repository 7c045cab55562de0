// An XMP packet in an AVIF: an item of type "mime" that describes the picture (ISO/IEC 23008-12, annex C; boxes of
// ISO/IEC 14496-12: meta, iinf, iloc, iref).
import { u16, u32 } from './bytes.ts';

interface Box {
  type: string;
  /** With its head of 8 bytes. */
  bytes: Buffer;
}

const box = (type: string, ...parts: Buffer[]): Buffer => {
  const size = parts.reduce((sum, part) => sum + part.length, 8);
  return Buffer.concat([u32(size), Buffer.from(type, 'latin1'), ...parts]);
};

/** Boxes one after the other. @throws Error where their sizes don't add up */
function boxesIn(bytes: Buffer): Box[] {
  const boxes: Box[] = [];
  for (let at = 0; at < bytes.length;) {
    const size = bytes.readUInt32BE(at) || bytes.length - at;
    if (size < 8 || at + size > bytes.length)
      throw new Error('The boxes of this AVIF are not as they should be.');
    boxes.push({ type: bytes.toString('latin1', at + 4, at + 8), bytes: bytes.subarray(at, at + size) });
    at += size;
  }
  return boxes;
}

/** Where an item's bytes are, counted from the start of the file, or inside its idat box (method 1). */
interface Location {
  id: number;
  method: number;
  extents: { offset: number; length: number }[];
}

function readLocations(iloc: Buffer): Location[] {
  const version = iloc.readUInt8(8);
  const sizes = iloc.readUInt16BE(12);
  const [offsetSize, lengthSize, baseSize] = [sizes >> 12, (sizes >> 8) & 15, (sizes >> 4) & 15];
  const indexSize = version > 0 ? sizes & 15 : 0;
  let at = 14;
  const next = (size: number): number => {
    if (size === 0) return 0;
    const value = size === 8 ? Number(iloc.readBigUInt64BE(at)) : iloc.readUIntBE(at, size);
    at += size;
    return value;
  };
  const wide = version === 2 ? 4 : 2;
  return Array.from({ length: next(wide) }, () => {
    const id = next(wide);
    const method = version > 0 ? next(2) & 15 : 0;
    // Data are in this file.
    next(2);
    const base = next(baseSize);
    const extents = Array.from({ length: next(2) }, () => {
      next(indexSize);
      return { offset: base + next(offsetSize), length: next(lengthSize) };
    });
    return { id, method, extents };
  });
}

/** Version 1 with offsets and lengths of 4 bytes, whatever it was before. */
const writeLocations = (locations: readonly Location[]): Buffer =>
  box(
    'iloc',
    Buffer.from([1, 0, 0, 0, 0x44, 0]),
    u16(locations.length),
    ...locations.flatMap(({ id, method, extents }) => [
      ...[u16(id), u16(method), u16(0), u16(extents.length)],
      ...extents.flatMap(({ offset, length }) => [u32(offset), u32(length)]),
    ]),
  );

/** Adds a "mime" entry (version 2 of infe) to the list of items. */
function withItem(iinf: Buffer, id: number): Buffer {
  const wide = iinf.readUInt8(8) === 0 ? 2 : 4;
  const count = iinf.readUIntBE(12, wide) + 1;
  const type = Buffer.from('mime\0application/rdf+xml\0', 'latin1');
  const item = box('infe', Buffer.from([2, 0, 0, 0]), u16(id), u16(0), type);
  const head = iinf.subarray(8, 12);
  return box('iinf', head, wide === 2 ? u16(count) : u32(count), iinf.subarray(12 + wide), item);
}

/** Adds that the item describes the picture. */
function withReference(iref: Buffer | undefined, from: number, to: number): Buffer {
  const wide = iref && iref.readUInt8(8) === 1 ? u32 : u16;
  const reference = box('cdsc', wide(from), u16(1), wide(to));
  return iref ? box('iref', iref.subarray(8), reference) : box('iref', Buffer.from([0, 0, 0, 0]), reference);
}

/**
 * The packet stands behind everything else; what the file's own items point at moves by as much as the list of them grew.
 * @throws Error where the file is not built as an AVIF is
 */
export function packetIntoAvif(file: Buffer, packet: Buffer): Buffer {
  const boxes = boxesIn(file);
  const meta = boxes.find(({ type }) => type === 'meta')?.bytes;
  const inside = meta ? boxesIn(meta.subarray(12)) : [];
  const find = (type: string) => inside.find((one) => one.type === type)?.bytes;
  const [iinf, iloc, pitm] = [find('iinf'), find('iloc'), find('pitm')];
  if (!meta || !iinf || !iloc || !pitm) throw new Error('This AVIF lacks the list of its items.');
  const locations = readLocations(iloc);
  const id = Math.max(...locations.map((one) => one.id)) + 1;
  const primary = pitm.readUInt8(8) === 0 ? pitm.readUInt16BE(12) : pitm.readUInt32BE(12);
  const metaEnd = boxes
    .slice(0, boxes.findIndex(({ type }) => type === 'meta') + 1)
    .reduce((sum, b) => sum + b.bytes.length, 0);

  const metaWith = (grown: number): Buffer => {
    const moved = locations.map((one) => ({
      ...one,
      extents: one.extents.map(({ offset, length }) => ({
        offset: one.method === 0 && offset >= metaEnd ? offset + grown : offset,
        length,
      })),
    }));
    const own = { id, method: 0, extents: [{ offset: file.length + grown + 8, length: packet.length }] };
    const rest = inside
      .filter(({ type }) => !['iinf', 'iloc', 'iref'].includes(type))
      .map(({ bytes }) => bytes);
    return box(
      'meta',
      meta.subarray(8, 12),
      ...rest,
      writeLocations([...moved, own]),
      withItem(iinf, id),
      withReference(find('iref'), id, primary),
    );
  };
  // Its length hangs on no offset: once it is known how far things move, it is written with that.
  const grown = metaWith(0).length - meta.length;
  const whole = boxes.map(({ type, bytes }) => (type === 'meta' ? metaWith(grown) : bytes));
  return Buffer.concat([...whole, box('mdat', packet)]);
}
