// The hand-over as a ZIP: variants under speaking names, the page, its styles, a manifest and the words.
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
import {
  manifestOf,
  NO_WORDS,
  packetIn,
  pageStyles,
  wordsCsv,
  type PhotoRow,
  type PlanContext,
  type RowVariant,
} from '@dusky-otter/core';
import ZipStream from 'zip-stream';
import { ProblemError } from '../problems.ts';
import type { Preparer } from '../prepare/prepare.ts';
import type { Vault } from '../vault/vault.ts';
import { withPacket } from './metadata/packet.ts';
import { pageFor, pagesIn } from './pages.ts';
import { pathsIn, type HandoverParts } from './parts.ts';
import { runtimeOf } from './runtime.ts';

/** A file as it went out. */
export interface Delivered {
  bytes: number;
  sha256: string;
}

/**
 * The text files of a hand-over, by name.
 * @param delivered pictures as they went out, by path; where one is not there, what is stored is said of it
 */
export function textFiles(
  parts: HandoverParts,
  delivered: ReadonlyMap<string, Delivered> = new Map(),
): Record<string, string> {
  const { rows, context, translations } = parts;
  const pathOf = pathsIn(parts);
  const { styles, script } = runtimeOf(parts);
  const scripted = script !== '';
  const where = { slots: context.slots, setSlots: parts.setSlots };
  return {
    ...pagesIn(parts, scripted),
    'styles.css': `${pageStyles(context, pageFor(parts))}${styles}`,
    ...(scripted && { 'script.js': script }),
    'manifest.json': `${JSON.stringify(manifestOf({ ...parts, pathOf, delivered }), null, 2)}\n`,
    'words.csv': wordsCsv(rows, where),
    ...Object.fromEntries(
      translations.flatMap(({ language, words }) => [
        [
          `${language}/words.csv`,
          wordsCsv(
            rows.map((row) => ({
              ...row,
              words: { ...NO_WORDS, ...words.get(row.id), role: row.words.role },
            })),
            where,
          ),
        ],
      ]),
    ),
  };
}

/** A stored variant and the photo whose words it carries. */
export interface OutgoingFile {
  row: PhotoRow;
  variant: RowVariant;
}

/** Stored variants with their paths; a file that two rows share under one name is written once. */
export function variantPaths(
  parts: Pick<HandoverParts, 'rows' | 'names' | 'context'>,
): Map<string, OutgoingFile> {
  const pathOf = pathsIn(parts);
  const paths = new Map<string, OutgoingFile>();
  for (const row of parts.rows) {
    for (const variant of row.variants)
      if (variant.bytes !== null) paths.set(pathOf(row, variant), { row, variant });
  }
  return paths;
}

/** What a hand-over asks of the vault. */
export type Shelf = Pick<Vault, 'variant' | 'verified'>;

/** A stored file compared with its hash: what is damaged must not reach a website. Null where it is. */
export const readVariant = async (
  vault: Shelf,
  { file, format, contentHash }: RowVariant,
): Promise<Buffer | null> =>
  contentHash === null ? null : vault.verified(vault.variant(file, format), contentHash);

/** A file as it goes out, with the words that the policy puts into it. Null where what is stored is damaged. */
export async function outgoing(
  { row, variant }: OutgoingFile,
  vault: Shelf,
  context: PlanContext,
): Promise<Buffer | null> {
  const stored = await readVariant(vault, variant);
  return stored && withPacket(stored, variant.format, packetIn(row, variant, context));
}

/**
 * Makes sure that every file of a hand-over is what was made, before a byte of it goes out: those that were changed or
 * lost on the disk are made again and waited for.
 * @throws ProblemError not-ready where one can't be made again
 */
export async function makeWhole(
  { rows }: Pick<HandoverParts, 'rows'>,
  vault: Vault,
  preparer: Preparer,
): Promise<void> {
  const lost: { variant: RowVariant; hash: string }[] = [];
  for (const { variants, original } of rows) {
    for (const variant of variants) {
      if (variant.bytes !== null && !(await readVariant(vault, variant)))
        lost.push({ variant, hash: original.hash });
    }
  }
  await preparer.remake(lost.map(({ variant, hash }) => ({ key: variant.file, hash })));
  for (const { variant, hash } of lost) {
    const { key } = variant;
    const again = (await preparer.untilStored({ key, hash })) && preparer.get(key);
    // The quick file may stand for a thorough one that was lost.
    if (again) Object.assign(variant, again, { file: again.thorough ?? key });
    if (again && (await readVariant(vault, variant))) continue;
    throw new ProblemError(
      'not-ready',
      preparer.failureOf(variant.key) ??
        'A file was changed or lost on the disk and is not made again yet. Let the versions be made, then try once more.',
    );
  }
}

/**
 * The ZIP as a stream, with the large-file records of ZIP64 where they are needed. Pictures are stored as they are:
 * they are compressed already. It goes no faster than it is taken.
 */
export function handoverZip(parts: HandoverParts, vault: Shelf): Readable {
  const zip = new ZipStream();
  const out = new PassThrough();
  const fail = (error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error)));
  const add = (bytes: Buffer, name: string, store: boolean) =>
    new Promise<void>((done, failed) => {
      zip.entry(bytes, { name, store }, (error) => {
        if (error instanceof Error) failed(error);
        else done();
      });
    });
  const write = async (): Promise<void> => {
    const delivered = new Map<string, Delivered>();
    for (const [path, file] of variantPaths(parts)) {
      const bytes = await outgoing(file, vault, parts.context);
      if (!bytes) throw new Error(`The stored file for ${path} is damaged.`);
      await add(bytes, path, true);
      delivered.set(path, { bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') });
      // Who broke off the download waits for nothing more.
      if (out.destroyed) return;
      if (out.writableNeedDrain) await Promise.race([once(out, 'drain'), once(out, 'close')]);
    }
    // Behind the pictures, since the manifest says what they are as they went out.
    for (const [name, text] of Object.entries(textFiles(parts, delivered)))
      await add(Buffer.from(text), name, false);
    zip.finish();
  };
  zip.on('error', fail);
  zip.pipe(out);
  write().catch(fail);
  return out;
}
