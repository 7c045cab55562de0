// An XMP packet in a WebP: the "XMP " chunk of an extended file (RFC 9649, 2.7).

const XMP_FLAG = 0x04;
const ALPHA_FLAG = 0x10;

function chunk(name: string, data: Buffer): Buffer {
  const head = Buffer.alloc(8);
  head.write(name, 'latin1');
  head.writeUInt32LE(data.length, 4);
  return Buffer.concat([head, data, Buffer.alloc(data.length % 2)]);
}

/** Size of a simple file: of a lossy frame (RFC 6386, 9.1), or of a lossless one (RFC 9649, 3.4), and whether it has alpha. */
function frameOf(file: Buffer): { width: number; height: number; alpha: boolean } {
  if (file.toString('latin1', 12, 16) === 'VP8L') {
    const bits = file.readUInt32LE(21);
    return {
      width: (bits & 0x3fff) + 1,
      height: ((bits >>> 14) & 0x3fff) + 1,
      alpha: (bits >>> 28) % 2 === 1,
    };
  }
  return { width: file.readUInt16LE(26) & 0x3fff, height: file.readUInt16LE(28) & 0x3fff, alpha: false };
}

/** A simple file becomes an extended one, which has room for more than pixels. */
function extended(file: Buffer): Buffer {
  const { width, height, alpha } = frameOf(file);
  const head = Buffer.alloc(10);
  head.writeUInt8(XMP_FLAG | (alpha ? ALPHA_FLAG : 0));
  head.writeUIntLE(width - 1, 4, 3);
  head.writeUIntLE(height - 1, 7, 3);
  return Buffer.concat([file.subarray(0, 12), chunk('VP8X', head), file.subarray(12)]);
}

export function packetIntoWebp(file: Buffer, packet: Buffer): Buffer {
  const whole = Buffer.concat([
    file.toString('latin1', 12, 16) === 'VP8X' ? file : extended(file),
    chunk('XMP ', packet),
  ]);
  whole.writeUInt8(whole.readUInt8(20) | XMP_FLAG, 20);
  whole.writeUInt32LE(whole.length - 8, 4);
  return whole;
}
