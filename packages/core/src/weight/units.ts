// Bytes in words: kB is 1000 bytes.

/** "84 kB", "3.1 MB", "950 B". */
export function bytesInWords(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 999_500) return `${Math.round(bytes / 1000)} kB`;
  const mb = bytes / 1_000_000;
  return `${mb < 10 ? mb.toFixed(mb < 2 ? 2 : 1) : mb.toFixed(1)} MB`;
}
