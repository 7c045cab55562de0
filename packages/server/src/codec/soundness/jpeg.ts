// Walks through the entropy-coded data of a sequential JPEG (ITU-T T.81, Annex F) without making pixels. Decoders
// go on after a bad code and show something; here every block must be there, and end where the data ends.
import type { Complaint } from './complaint.ts';
import { isGarbledTable } from './jpeg-tables.ts';
import { seamIn } from './seam.ts';

const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
const DHT = 0xc4;
const DQT = 0xdb;
const DRI = 0xdd;

/** Codes up to this length are looked up at once. */
const FAST = 9;

interface Huffman {
  /** For the next `FAST` bits: length << 8 | symbol, or 0 where the code is longer. */
  fast: Uint16Array;
  /** Largest code of each length, −1 where there is none (T.81, F.2.2.3). */
  most: Int32Array;
  /** Symbol index of the smallest code minus that code, by length. */
  offset: Int32Array;
  symbols: Uint8Array;
}

function huffman(counts: Uint8Array, symbols: Uint8Array): Huffman {
  const fast = new Uint16Array(1 << FAST);
  const most = new Int32Array(17).fill(-1);
  const offset = new Int32Array(17);
  let code = 0;
  let at = 0;
  for (let length = 1; length <= 16; length++) {
    offset[length] = at - code;
    for (let i = 0; i < counts[length - 1]!; i++, code++, at++) {
      if (length > FAST) continue;
      const from = code << (FAST - length);
      fast.fill((length << 8) | symbols[at]!, from, from + (1 << (FAST - length)));
    }
    if (counts[length - 1]! > 0) most[length] = code - 1;
    code <<= 1;
  }
  return { fast, most, offset, symbols };
}

/** Bits of entropy-coded data: stuffed zeros are skipped, a marker ends it. */
class Bits {
  private held = 0;
  private count = 0;
  /** Bits that were asked for behind the end. */
  overrun = 0;

  constructor(
    private readonly file: Uint8Array,
    public at: number,
  ) {}

  private fill(): void {
    while (this.count <= 16) {
      let byte = this.file[this.at];
      if (byte === undefined || (byte === 0xff && this.file[this.at + 1] !== 0)) {
        // Decoders read zeros behind the end: so does this, and remembers it.
        this.overrun += 8;
        byte = 0;
      } else this.at += byte === 0xff ? 2 : 1;
      this.held = ((this.held << 8) | byte) & 0xffffff;
      this.count += 8;
    }
  }

  peek(length: number): number {
    this.fill();
    return (this.held >> (this.count - length)) & ((1 << length) - 1);
  }

  skip(length: number): void {
    if (this.count < length) this.fill();
    this.count -= length;
  }

  /** True once more was read than there is. */
  get spent(): boolean {
    return this.overrun > this.count;
  }

  /** Whole bytes that were fetched and not read belong to what follows. */
  get unread(): number {
    return Math.max(0, this.count - this.overrun);
  }

  /** The bits that fill the last byte are all alike: ones by the standard (T.81, F.1.2.3), zeros by some encoders. */
  get isPadded(): boolean {
    const left = this.unread;
    // What was fetched behind the end stands below as zeros.
    const bits = (this.held >> this.overrun) & ((1 << left) - 1);
    return left >= 8 || bits === 0 || bits === (1 << left) - 1;
  }

  restart(at: number): void {
    this.at = at;
    this.held = 0;
    this.count = 0;
    this.overrun = 0;
  }
}

/** The next symbol, or −1 where the bits are no code. */
function decode(bits: Bits, table: Huffman): number {
  const entry = table.fast[bits.peek(FAST)]!;
  if (entry !== 0) {
    bits.skip(entry >> 8);
    return entry & 0xff;
  }
  for (let length = FAST + 1; length <= 16; length++) {
    const code = bits.peek(length);
    if (code <= table.most[length]!) {
      bits.skip(length);
      return table.symbols[table.offset[length]! + code] ?? -1;
    }
  }
  return -1;
}

/** The largest sizes of differences and coefficients at 8 bits a sample (T.81, F.1.2.1.1 and F.1.2.2.1). */
const [MOST_DC, MOST_AC] = [11, 10];
/** Eight times the largest mean of a block at 8 bits a sample, around its middle (T.81, A.3.3). */
const MOST_MEAN = 1024;

/** A number of so many bits with its sign (T.81, F.2.2.1, EXTEND). */
function signed(bits: Bits, size: number): number {
  if (size === 0) return 0;
  const value = bits.peek(size);
  bits.skip(size);
  return value < 1 << (size - 1) ? value - (1 << size) + 1 : value;
}

/** Reads one block of 64 coefficients. @param deeper bits a sample beyond 8 @returns what its mean differs from the one before by; null at a bad code */
function block(bits: Bits, dc: Huffman, ac: Huffman, deeper: number): number | null {
  const size = decode(bits, dc);
  if (size < 0 || size > MOST_DC + deeper) return null;
  const difference = signed(bits, size);
  for (let k = 1; k < 64; k++) {
    const symbol = decode(bits, ac);
    if (symbol < 0) return null;
    const run = symbol >> 4;
    const length = symbol & 15;
    if (length === 0) {
      if (run < 15) return difference;
      k += 15;
    } else {
      if (length > MOST_AC + deeper) return null;
      k += run;
      bits.skip(length);
    }
    if (k > 63) return null;
  }
  return difference;
}

interface Component {
  id: number;
  across: number;
  down: number;
  /** Which table says in what steps its coefficients are kept. */
  table: number;
  /** Mean of the block before, in those steps. */
  mean: number;
  step: number;
  /** Of it in a unit of a scan. */
  blocks: number;
  dc?: Huffman;
  ac?: Huffman;
}

interface Frame {
  /** Bits a sample beyond 8. */
  deeper: number;
  width: number;
  height: number;
  components: Component[];
}

function readFrame(file: Uint8Array, at: number): Frame {
  const count = file[at + 5] ?? 0;
  const components = Array.from({ length: count }, (_, i) => ({
    id: file[at + 6 + 3 * i] ?? 0,
    across: (file[at + 7 + 3 * i] ?? 0) >> 4 || 1,
    down: (file[at + 7 + 3 * i] ?? 0) & 15 || 1,
    table: file[at + 8 + 3 * i] ?? 0,
    mean: 0,
    step: 1,
    blocks: 1,
  }));
  return { deeper: (file[at] ?? 8) - 8, height: word(file, at + 1), width: word(file, at + 3), components };
}

const word = (file: Uint8Array, at: number): number => ((file[at] ?? 0) << 8) | (file[at + 1] ?? 0);

/** How many units a scan has, and which blocks make up one of them (T.81, A.2). */
function unitsOf(
  frame: Frame,
  scanned: readonly Component[],
): { units: number; blocks: Component[]; columns: number } {
  const across = Math.max(...frame.components.map((c) => c.across));
  const down = Math.max(...frame.components.map((c) => c.down));
  const [only] = scanned;
  if (scanned.length === 1 && only) {
    const wide = Math.ceil((frame.width * only.across) / across / 8);
    const high = Math.ceil((frame.height * only.down) / down / 8);
    return { units: wide * high, blocks: [only], columns: wide };
  }
  const columns = Math.ceil(frame.width / (8 * across));
  const units = columns * Math.ceil(frame.height / (8 * down));
  for (const c of scanned) c.blocks = c.across * c.down;
  const blocks = scanned.flatMap((c) => Array.from({ length: c.blocks }, () => c));
  return { units, blocks, columns };
}

/**
 * Walks through one scan.
 * @returns where the data ended, or the complaint.
 */
function walkScan(
  file: Uint8Array,
  start: number,
  frame: Frame,
  scanned: Component[],
  every: number,
): number | Complaint {
  const bits = new Bits(file, start);
  const { units, blocks, columns } = unitsOf(frame, scanned);
  /** Means of each component's blocks, unit by unit. */
  const means = new Map(scanned.map((component) => [component, new Float32Array(units)]));
  for (let unit = 0; unit < units; unit++) {
    if (every > 0 && unit > 0 && unit % every === 0) {
      const marker = bits.at;
      if (
        bits.unread >= 8 ||
        !bits.isPadded ||
        file[marker] !== 0xff ||
        file[marker + 1] !== 0xd0 + ((unit / every - 1) & 7)
      )
        return { sentence: 'a part of its data is garbled', share: unit / units };
      bits.restart(marker + 2);
      for (const component of scanned) component.mean = 0;
    }
    for (const component of blocks) {
      const { dc, ac, step } = component;
      if (!dc || !ac) return { sentence: 'a table that its data needs is missing', share: 0 };
      const difference = block(bits, dc, ac, frame.deeper);
      component.mean += difference ?? 0;
      // A mean that no samples have: what it adds up from is not what was written.
      const isBeyond = Math.abs(component.mean) * step > (MOST_MEAN << frame.deeper) + step;
      if (difference === null || isBeyond)
        return { sentence: 'a part of its data is garbled', share: unit / units };
      if (bits.spent) return { sentence: 'its data ends early', share: unit / units };
      means.get(component)![unit]! += (component.mean * step) / (8 * component.blocks);
    }
  }
  if (!bits.isPadded) return { sentence: 'a part of its data is garbled', share: 1 };
  if (bits.unread >= 8 || (bits.at < file.length && file[bits.at] !== 0xff))
    return { sentence: 'there is more data than the picture has place for', share: 1 };
  for (const [{ step }, values] of means)
    if (seamIn({ columns, rows: units / columns, values, quantum: step / 8 }) !== null)
      return { sentence: 'its colours are shifted from some row on', share: 1 };
  return bits.at;
}

/** What is wrong with the file's data, or null: nothing found, or a kind that is not looked through (progressive, arithmetic). */
export function jpegComplaint(file: Uint8Array): Complaint | null {
  const tables = new Map<number, Huffman>();
  const steps = new Map<number, number>();
  let frame: Frame | null = null;
  let every = 0;
  let scans = 0;
  let at = 2;
  for (;;) {
    // Fill bytes and what stands before a marker; decoders look for the next marker as well.
    while (at < file.length && !(file[at] === 0xff && file[at + 1] !== 0 && file[at + 1] !== 0xff)) at++;
    const marker = file[at + 1];
    if (at >= file.length || marker === undefined)
      return { sentence: 'its end is missing', share: scans > 0 ? 1 : 0 };
    if (marker === EOI) return null;
    if (marker === SOI || (marker >= 0xd0 && marker <= 0xd7)) {
      at += 2;
      continue;
    }
    const length = word(file, at + 2);
    const body = at + 4;
    at += 2 + length;
    if (marker === DHT) {
      for (let p = body; p + 17 <= at;) {
        const counts = file.subarray(p + 1, p + 17);
        const total = counts.reduce((sum, n) => sum + n, 0);
        tables.set(file[p]!, huffman(counts, file.subarray(p + 17, p + 17 + total)));
        p += 17 + total;
      }
    } else if (marker === DQT) {
      for (let p = body; p < at;) {
        const long = file[p]! >> 4 !== 0;
        const numbers = file.subarray(p + 1, p + 65);
        if (!long && numbers.length === 64 && isGarbledTable(numbers))
          return { sentence: 'a table that its data needs is garbled', share: 1 };
        // The first of 64 is that of the means.
        steps.set(file[p]! & 15, long ? word(file, p + 1) : (numbers[0] ?? 1));
        p += 1 + (long ? 128 : 64);
      }
    } else if (marker === DRI) every = word(file, body);
    else if (marker === 0xc0 || marker === 0xc1) frame = readFrame(file, body);
    // Progressive, lossless and arithmetic kinds are left to the decoder.
    else if (marker >= 0xc2 && marker <= 0xcf && marker !== 0xc8 && marker !== 0xcc) return null;
    else if (marker === SOS) {
      if (!frame) return { sentence: 'its header makes no sense', share: 0 };
      const scanned: Component[] = [];
      for (let i = 0; i < (file[body] ?? 0); i++) {
        const found = frame.components.find((c) => c.id === file[body + 1 + 2 * i]);
        const which = file[body + 2 + 2 * i] ?? 0;
        const [dc, ac] = [tables.get(which >> 4), tables.get(0x10 | (which & 15))];
        const step = found && steps.get(found.table);
        if (found) scanned.push({ ...found, step: step ?? 1, ...(dc && { dc }), ...(ac && { ac }) });
      }
      // Its height comes only behind its data (DNL, T.81, B.2.5).
      if (frame.height === 0) return null;
      const end = walkScan(file, at, frame, scanned, every);
      if (typeof end !== 'number') return end;
      scans += 1;
      at = end;
    }
  }
}

/** Scans of a progressive JPEG that are there from end to end; 0 for other kinds. */
export function progressiveScans(file: Uint8Array): number {
  let scans = 0;
  let progressive = false;
  for (let at = 2; at + 4 <= file.length;) {
    if (
      file[at] !== 0xff ||
      file[at + 1] === 0 ||
      file[at + 1] === 0xff ||
      (file[at + 1]! >= 0xd0 && file[at + 1]! <= 0xd7)
    ) {
      at++;
      continue;
    }
    const marker = file[at + 1]!;
    // A scan counts once the next marker says that it is over.
    if (progressive && (marker === SOS || marker === EOI || marker === DHT)) scans += marker === DHT ? 0 : 1;
    if (marker === EOI) break;
    if (marker === 0xc2) progressive = true;
    at += 2 + word(file, at + 2);
  }
  return progressive ? Math.max(0, scans - 1) : 0;
}
