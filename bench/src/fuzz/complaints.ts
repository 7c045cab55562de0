// What independent decoders, from Debian's packages, say of a file: the measure of what ours should have noticed.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const COMMANDS: Record<string, (path: string) => [string, ...string[]]> = {
  jpeg: (path) => ['djpeg', '-outfile', '/dev/null', path],
  png: (path) => ['pngtopnm', path],
  webp: (path) => ['dwebp', '-quiet', path, '-o', '/dev/null'],
  'webp moving': (path) => ['webpinfo', '-quiet', path],
  gif: (path) => ['gif2rgb', '-o', '/dev/null', path],
  tiff: (path) => ['tiffcp', path, `${path}.copy`],
};

/** What the reference decoder of a kind complains of, or null: nothing, or there is none. */
export function referenceComplaint(kind: string, path: string): string | null {
  const command = COMMANDS[kind] ?? COMMANDS[kind.split(' ')[0]!];
  if (!command) return null;
  const [program, ...args] = command(path);
  if (!existsSync(`/usr/bin/${program}`)) return null;
  const { status, stderr } = spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1e8 });
  const said = stderr.trim().split('\n')[0] ?? '';
  return status === 0 && said === '' ? null : said || `status ${status}`;
}
