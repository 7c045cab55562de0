// The hand-over as a ZIP: variants under speaking names, the page, its styles, a manifest and the words.
import { readFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
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
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { ProblemError } from '../problems.ts';
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

/** Reads a variant and compares it with its hash: a damaged file must not reach a website. */
async function readVerified(vault: Vault, variant: RowVariant): Promise<Buffer> {
  const bytes = await readFile(vault.variant(variant.key, variant.format));
  if (createHash('sha256').update(bytes).digest('hex') !== variant.contentHash) {
    throw new Error(`The stored file for ${variant.key} is damaged.`);
  }
  return bytes;
}

/** The ZIP as a stream. Pictures are stored as they are: they are compressed already. */
export function handoverZip(parts: HandoverParts, vault: Vault): Readable {
  const out = new PassThrough();
  const zip = new Zip((error, chunk, final) => {
    if (error) out.destroy(error);
    else {
      out.write(chunk);
      if (final) out.end();
    }
  });
  const write = async (): Promise<void> => {
    for (const [name, text] of Object.entries(textFiles(parts))) {
      const entry = new ZipDeflate(name, { level: 6 });
      zip.add(entry);
      entry.push(strToU8(text), true);
    }
    for (const [path, variant] of variantPaths(parts)) {
      const entry = new ZipPassThrough(path);
      zip.add(entry);
      entry.push(await readVerified(vault, variant), true);
      if (out.destroyed) return;
      if (out.writableNeedDrain) await once(out, 'drain');
    }
    zip.end();
  };
  write().catch((error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error))));
  return out;
}
