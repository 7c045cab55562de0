// Walks through the chunks of a WebP (RIFF container, WebP container specification): each must fit, and they must fill the file.
import type { Complaint } from './complaint.ts';
import { webpDataComplaint, type PictureChunk } from './webp-data.ts';

const HEAD = 12;
/** Bytes of an ANMF chunk before the chunks of its frame. */
const FRAME_HEAD = 16;

/** Names of the chunks between two places, or null where one reaches beyond the end. */
function chunksIn(
  file: Buffer,
  from: number,
  to: number,
): { name: string; from: number; to: number }[] | null {
  const found: { name: string; from: number; to: number }[] = [];
  for (let at = from; at < to;) {
    if (at + 8 > to) return null;
    const size = file.readUInt32LE(at + 4);
    if (at + 8 + size > to) return null;
    found.push({ name: file.toString('latin1', at, at + 4), from: at + 8, to: at + 8 + size });
    // Chunks of an odd size have a byte more.
    at += 8 + size + (size % 2);
  }
  return found;
}

/** What is wrong with a file, or null. */
export async function webpComplaint(file: Buffer): Promise<Complaint | null> {
  const found = picturesIn(file);
  return 'sentence' in found ? found : webpDataComplaint(file, found.pictures);
}

/** The pictures that a container holds, or what is wrong with it. */
function picturesIn(file: Buffer): Complaint | { pictures: PictureChunk[] } {
  const garbled: Complaint = { sentence: 'a part of its data is garbled', share: 1 };
  if (file.length < HEAD) return { ...garbled, share: 0 };
  const whole = 8 + file.readUInt32LE(4);
  if (whole > file.length) return { sentence: 'its data ends early', share: 0 };
  const chunks = chunksIn(file, HEAD, whole);
  if (!chunks) return garbled;
  const frames = chunks.filter(({ name }) => name === 'ANMF');
  const pictures = chunks.filter(({ name }) => name === 'VP8 ' || name === 'VP8L');
  const framed: PictureChunk[] = [];
  for (const { from, to } of frames) {
    const picture = chunksIn(file, from + FRAME_HEAD, to)?.find(
      ({ name }) => name === 'VP8 ' || name === 'VP8L',
    );
    if (!picture) return garbled;
    framed.push(picture);
  }
  const extended = chunks.find(({ name }) => name === 'VP8X');
  const moves = extended !== undefined && ((file[extended.from] ?? 0) & 2) !== 0;
  const complete = moves
    ? frames.length > 0 && chunks.some(({ name }) => name === 'ANIM')
    : pictures.length === 1;
  if (!complete || (!moves && frames.length > 0)) return garbled;
  return { pictures: moves ? framed : pictures };
}
