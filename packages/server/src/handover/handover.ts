// The hand-over as a ZIP: variants under speaking names, the page, its styles, a manifest and the words.
import { PassThrough, Readable } from 'node:stream';
import {
  manifestOf,
  pageMarkup,
  stylesheet,
  variantFileName,
  wordsCsv,
  type PhotoRow,
  type Policy,
  type RowVariant,
  type SlotId,
} from '@dusky-otter/core';
import yazl from 'yazl';
import { ProblemError } from '../problems.ts';
import type { Preparer } from '../prepare/prepare.ts';
import type { Vault } from '../vault/vault.ts';

export interface HandoverParts {
  site: string;
  set: string;
  policy: Policy;
  setSlots: SlotId[];
  rows: PhotoRow[];
  /** Speaking part of the file names of every photo of the set, by id. */
  names: ReadonlyMap<number, string>;
}

/** Paths of stored variants inside the hand-over. */
export const pathsIn =
  ({ names }: Pick<HandoverParts, 'names'>) =>
  (row: PhotoRow, variant: RowVariant): string => {
    const { contentHash, slot } = variant;
    if (contentHash === null) throw new ProblemError('not-ready');
    return `photos/${variantFileName(names.get(row.id)!, slot, { ...variant, contentHash })}`;
  };

/** The text files of a hand-over, by name. */
export function textFiles(parts: HandoverParts): Record<string, string> {
  const { set, rows, setSlots } = parts;
  const pathOf = pathsIn(parts);
  return {
    'index.html': pageMarkup({ title: set, rows, setSlots, urlOf: pathOf }),
    'styles.css': stylesheet(),
    'manifest.json': `${JSON.stringify(manifestOf({ ...parts, pathOf }), null, 2)}\n`,
    'words.csv': wordsCsv(rows),
  };
}

/** Stored variants with their paths; a file that two rows share under one name is written once. */
export function variantPaths(parts: Pick<HandoverParts, 'rows' | 'names'>): Map<string, RowVariant> {
  const pathOf = pathsIn(parts);
  const paths = new Map<string, RowVariant>();
  for (const row of parts.rows) {
    for (const variant of row.variants) if (variant.bytes !== null) paths.set(pathOf(row, variant), variant);
  }
  return paths;
}

/** A stored file compared with its hash: what is damaged must not reach a website. Null where it is. */
export const readVariant = async (
  vault: Vault,
  { key, format, contentHash }: RowVariant,
): Promise<Buffer | null> =>
  contentHash === null ? null : vault.verified(vault.variant(key, format), contentHash);

/**
 * Makes sure that every file of a hand-over is what was made, before a byte of it goes out: those that were changed or
 * lost on the disk are made again and waited for.
 * @throws ProblemError not-ready where one can't be made again
 */
export async function makeWhole(
  variants: Iterable<RowVariant>,
  vault: Vault,
  preparer: Preparer,
): Promise<void> {
  const lost: RowVariant[] = [];
  for (const variant of variants) if (!(await readVariant(vault, variant))) lost.push(variant);
  await preparer.remake(lost.map(({ key }) => key));
  for (const variant of lost) {
    const again = (await preparer.untilStored(variant.key)) && (await readVariant(vault, variant));
    if (again) continue;
    throw new ProblemError(
      'not-ready',
      preparer.failureOf(variant.key) ??
        'A file was changed or lost on the disk and is not made again yet. Let the versions be made, then try once more.',
    );
  }
}

/** A file's bytes as a stream that is opened when its turn comes. */
function opened(read: () => Promise<Buffer | null>, path: string) {
  return (done: (error: unknown, stream: NodeJS.ReadableStream) => void): void => {
    const nothing = Readable.from([]);
    read().then(
      (bytes) => {
        if (bytes) done(null, Readable.from([bytes]));
        else done(new Error(`The stored file for ${path} is damaged.`), nothing);
      },
      (error: unknown) => done(error, nothing),
    );
  };
}

/** The ZIP as a stream, with the large-file records of ZIP64 where they are needed. Pictures are stored as they are: they are compressed already. */
export function handoverZip(parts: HandoverParts, vault: Vault): Readable {
  const zip = new yazl.ZipFile();
  const out = new PassThrough();
  zip.on('error', (error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error))));
  zip.outputStream.pipe(out);
  for (const [name, text] of Object.entries(textFiles(parts))) zip.addBuffer(Buffer.from(text), name);
  for (const [path, variant] of variantPaths(parts)) {
    zip.addReadStreamLazy(
      path,
      { compress: false },
      opened(() => readVariant(vault, variant), path),
    );
  }
  zip.end();
  return out;
}
