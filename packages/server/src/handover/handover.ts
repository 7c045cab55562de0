// The hand-over as a ZIP: variants under speaking names, the page, its styles, a manifest and the words.
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
import type { PhotoRow, PlanContext, RowVariant } from '@dusky-otter/core/contract';
import { ElementStyles, manifestOf, pageStyles, wordsCsv } from '@dusky-otter/core/markup';
import { foldersOf, packetIn, shownName } from '@dusky-otter/core/naming';
import { NO_WORDS, placementsSaid } from '@dusky-otter/core/words';
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
  const { rows, context, translations, guests } = parts;
  const pathOf = pathsIn(parts);
  // A table of words is of the set's own photos: those of others are described there.
  const told = rows.filter(({ id }) => !guests?.has(id));
  const { styles, script } = runtimeOf(parts);
  const scripted = script !== '';
  const { ofLanguage } = foldersOf(context);
  const where = { slots: context.slots, setPlaces: parts.setPlaces };
  const own = new ElementStyles();
  const pages = pagesIn(parts, scripted, own.sink);
  return {
    ...pages,
    'styles.css': `${pageStyles(context, pageFor(parts))}${styles}${own.rules}`,
    ...(scripted && { 'script.js': script }),
    'manifest.json': `${JSON.stringify(manifestOf({ ...parts, pathOf, delivered }), null, 2)}\n`,
    'words.csv': wordsCsv(told, where),
    ...Object.fromEntries(
      translations.flatMap(({ language, words }) => [
        [
          `${ofLanguage.get(language)}/words.csv`,
          wordsCsv(
            told.map((row) => ({
              ...row,
              words: { ...NO_WORDS, ...words.get(row.id), role: row.words.role },
              placements: placementsSaid(row.placements, language),
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
export type FileSource = Pick<Vault, 'variant' | 'verified' | 'madeAt'>;

/** A stored file compared with its hash: what is damaged must not reach a website. Null where it is. */
export const readVariant = async (
  vault: FileSource,
  { file, format, contentHash }: RowVariant,
): Promise<Buffer | null> =>
  contentHash === null ? null : vault.verified(vault.variant(file, format), contentHash);

/** A file as it goes out, with the words that the policy puts into it. Null where what is stored is damaged. */
export async function outgoing(
  { row, variant }: OutgoingFile,
  vault: FileSource,
  context: PlanContext,
): Promise<Buffer | null> {
  const stored = await readVariant(vault, variant);
  return stored && withPacket(stored, variant.format, packetIn(row, variant, context));
}

/** How long a hand-over waits for files that are being made, in ms; then it says what it waits for. */
const LONGEST_WAIT = 60_000;

/** Why a hand-over can't go out: which file is missing, and how many with it. */
function missingFile(missing: readonly OutgoingFile[], preparer: Preparer): ProblemError {
  const { row, variant } = missing[0]!;
  const shape = variant.shape === 'own' ? 'whole' : variant.shape;
  const which = `“${shownName(row.words, row.fileName)}” (${shape}, ${variant.width} px, ${variant.format.toUpperCase()})`;
  const others = missing.length > 1 ? ` It is one of ${missing.length} files that are missing.` : '';
  const failure = preparer.failureOf(variant.key);
  return new ProblemError(
    'not-ready',
    failure === null
      ? `A file of ${which} is still being made.${others} Let the versions be made, then try once more.`
      : `A file of ${which} is missing. ${failure}${others} Add that photo again, or hand over the others alone.`,
  );
}

/**
 * Makes sure that every file of a hand-over is there and what was made, before a byte of it goes out: those that were
 * changed or lost on the disk are made again, and waited for with those that are being made.
 * @throws ProblemError not-ready that names what is missing
 */
export async function makeWhole(
  { rows }: Pick<HandoverParts, 'rows'>,
  vault: Vault,
  preparer: Preparer,
  longest = LONGEST_WAIT,
): Promise<void> {
  const awaited: OutgoingFile[] = [];
  const lost: { key: string; hash: string }[] = [];
  for (const row of rows) {
    for (const variant of row.variants) {
      if (variant.bytes !== null && (await readVariant(vault, variant))) continue;
      if (variant.bytes !== null) lost.push({ key: variant.file, hash: row.original.hash });
      awaited.push({ row, variant });
    }
  }
  if (awaited.length === 0) return;
  await preparer.remake(lost);
  const late = AbortSignal.timeout(longest);
  const missing: OutgoingFile[] = [];
  for (const file of awaited) {
    const { row, variant } = file;
    const { key } = variant;
    const made = (await preparer.untilStored({ key, hash: row.original.hash }, late)) && preparer.get(key);
    // The quick file may stand for a thorough one that was lost.
    if (made) Object.assign(variant, made, { file: made.standIn ?? key });
    if (!made || !(await readVariant(vault, variant))) missing.push(file);
  }
  if (missing.length > 0) throw missingFile(missing, preparer);
}

/**
 * The ZIP as a stream, with the large-file records of ZIP64 where they are needed. Pictures are stored as they are:
 * they are compressed already. It goes no faster than it is taken. The same state is the same ZIP, whenever it is taken:
 * pictures carry the time at which they were made.
 * @param changedAt when what the texts are made from was changed last
 */
export function handoverZip(parts: HandoverParts, vault: FileSource, changedAt: Date): Readable {
  const zip = new ZipStream();
  const out = new PassThrough();
  const fail = (error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error)));
  const add = (bytes: Buffer, name: string, { store, date }: { store: boolean; date: Date }) =>
    new Promise<void>((done, failed) => {
      zip.entry(bytes, { name, store, date }, (error) => {
        if (error instanceof Error) failed(error);
        else done();
      });
    });
  const write = async (): Promise<void> => {
    const delivered = new Map<string, Delivered>();
    let newest = changedAt;
    for (const [path, file] of variantPaths(parts)) {
      const bytes = await outgoing(file, vault, parts.context);
      if (!bytes) throw new Error(`The stored file for ${path} is damaged.`);
      const date = await vault.madeAt(vault.variant(file.variant.file, file.variant.format));
      if (date > newest) newest = date;
      await add(bytes, path, { store: true, date });
      delivered.set(path, { bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') });
      // Who broke off the download waits for nothing more.
      if (out.destroyed) return;
      if (out.writableNeedDrain) await Promise.race([once(out, 'drain'), once(out, 'close')]);
    }
    // Behind the pictures, since the manifest says what they are as they went out.
    for (const [name, text] of Object.entries(textFiles(parts, delivered)))
      await add(Buffer.from(text), name, { store: false, date: newest });
    zip.finish();
  };
  zip.on('error', fail);
  zip.pipe(out);
  write().catch(fail);
  return out;
}
