// A picture that has a size and nothing else: it lays a page out as the real one would, in a few bytes.

const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

function base64(bytes: readonly number[]): string {
  let text = '';
  for (let n = 0; n < bytes.length; n += 3) {
    const [a = 0, b, c] = bytes.slice(n, n + 3);
    text += BASE64[a >> 2]! + BASE64[((a & 3) << 4) | ((b ?? 0) >> 4)]!;
    text += b === undefined ? '=' : BASE64[((b & 15) << 2) | ((c ?? 0) >> 6)]!;
    text += c === undefined ? '=' : BASE64[c & 63]!;
  }
  return text;
}

/**
 * A transparent GIF89a whose screen is width × height px, with one pixel of picture in it, as a data address.
 * @param width 1 to 65,535, whole. @param height likewise
 */
export function placeholder(width: number, height: number): string {
  const side = (value: number) => [value & 255, (value >> 8) & 255];
  const bytes = [
    ...[71, 73, 70, 56, 57, 97],
    ...side(width),
    ...side(height),
    // A table of two colours, the first of them transparent.
    ...[0x80, 0, 0, 255, 255, 255, 0, 0, 0],
    ...[0x21, 0xf9, 4, 1, 0, 0, 0, 0],
    ...[0x2c, 0, 0, 0, 0, 1, 0, 1, 0, 0],
    ...[2, 2, 0x44, 1, 0, 0x3b],
  ];
  return `data:image/gif;base64,${base64(bytes)}`;
}
