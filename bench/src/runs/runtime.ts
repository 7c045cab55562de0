// What the runtime weighs that ships beside a page: each feature, and everything together.
import { readdirSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { report, ROOT } from '../report.ts';

const FOLDER = resolve(ROOT, 'packages/runtime/dist');
const files = readdirSync(FOLDER).sort();
const textOf = (names: readonly string[]): string =>
  names.map((name) => readFileSync(resolve(FOLDER, name), 'utf8')).join('\n');
const zipped = (names: readonly string[]): number => gzipSync(textOf(names), { level: 9 }).length;
const ending = (of: string) => files.filter((name) => name.endsWith(of));

await report(
  'runtime',
  'bytes of the scripts and stylesheets that ship with arrangements, everything used at once',
  files.map((file) => ({ file, bytes: textOf([file]).length, gzip: zipped([file]) })),
  {
    'script gzip bytes': zipped(ending('.js')),
    'css gzip bytes': zipped(ending('.css')),
  },
);
