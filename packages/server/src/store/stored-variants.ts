// Which variants are stored: the database's list, held in memory, in step with the files.
import type { OutputFormat, StoredFacts } from '@dusky-otter/core/contract';
import { thoroughKey } from '@dusky-otter/core/plan';
import { VariantModel } from '../database/models.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import { inParts } from '../database/in-parts.ts';
import type { Vault } from '../vault/vault.ts';

/** A file in the vault, and the original that it was made from. */
export interface StoredFile extends StoredFacts {
  hash: string;
  format: OutputFormat;
  /** Key of a plan for which it stands, thorough or made before; null for a file of that key itself. */
  insteadOf: string | null;
}

const factsOf = ({ bytes, contentHash, quality, difference }: StoredFacts): StoredFacts => ({
  bytes,
  contentHash,
  quality,
  difference,
});

type Row = StoredFacts & Pick<StoredFile, 'hash' | 'insteadOf'> & { key: string; format: string };

export class StoredVariants {
  private readonly known = new Map<string, StoredFile>();
  /** Thorough files by the keys of plans for which they stand. */
  private readonly thorough = new Map<string, string>();
  /** Files of the pipeline's version before by the keys of plans for which they stand until they are made anew. */
  private readonly former = new Map<string, string>();
  /** Every hash once: dozens of files are made from one original. */
  private readonly hashes = new Map<string, string>();

  /** The key of the file that stands for a key of a plan: a thorough one, its own, or one that was made before. */
  standing(key: string): string | undefined {
    return this.thorough.get(key) ?? (this.known.has(key) ? key : this.former.get(key));
  }

  /** What is stored for a key of a plan. */
  get(key: string): StoredFacts | undefined {
    const standing = this.standing(key);
    if (standing === undefined) return undefined;
    return { ...factsOf(this.known.get(standing)!), ...(standing !== key && { standIn: standing }) };
  }

  /** Bytes of what is stored for a key of a plan, or undefined. */
  bytesOf(key: string): number | undefined {
    return this.known.get(this.standing(key) ?? key)?.bytes;
  }

  /** Whether a thorough file stands for a key of a plan. */
  isThorough(key: string): boolean {
    return this.thorough.has(key);
  }

  /** Whether a file stands for a key of a plan that is to be made anew. */
  isFormer(key: string): boolean {
    return this.standing(key) !== undefined && this.standing(key) === this.former.get(key);
  }

  /** Bytes by which the file that stands for a key of a plan is smaller than the one before it, while that is kept. */
  savedOf(key: string): number {
    const before = this.known.get(this.former.get(key) ?? key)?.bytes ?? 0;
    return Math.max(0, before - (this.bytesOf(key) ?? before));
  }

  /** The key of a plan that a stored file is for. */
  wishOf(key: string): string {
    return this.known.get(key)?.insteadOf ?? key;
  }

  /** A stored file by its own key, with what it was made from. */
  file(key: string): StoredFile | undefined {
    return this.known.get(key);
  }

  private keep({ key, hash, format, insteadOf, ...facts }: Row): void {
    const known = this.hashes.get(hash) ?? hash;
    this.hashes.set(known, known);
    this.known.set(key, { ...factsOf(facts), hash: known, format: format as OutputFormat, insteadOf });
    if (insteadOf !== null)
      (key === thoroughKey(insteadOf) ? this.thorough : this.former).set(insteadOf, key);
  }

  /**
   * Reads the list and compares it with the files: a row without its file and a file without its row are
   * both left from an interrupted run, and both go, so that the subtraction starts from what is true.
   */
  async load(vault: Vault): Promise<{ rowsDropped: number; filesDropped: number }> {
    const rows = await VariantModel.findAll();
    const files = await vault.variantFiles();
    const lost: VariantModel[] = [];
    for (const row of rows) {
      const path = files.get(row.key);
      // A file of another length is no longer what was made. Other changes are found by hash, when it is used.
      if (path === undefined || (await vault.sizeOf(path)) !== row.bytes) lost.push(row);
    }
    for (const keys of inParts(lost.map(({ key }) => key)))
      await VariantModel.destroy({ where: { key: keys } });
    this.known.clear();
    this.thorough.clear();
    this.former.clear();
    const gone = new Set(lost);
    for (const row of rows) {
      if (gone.has(row)) continue;
      files.delete(row.key);
      const { key, bytes, contentHash, quality, difference, originalHash: hash, format, insteadOf } = row;
      this.keep({ key, bytes, contentHash, quality, difference, hash, format, insteadOf });
    }
    for (const path of files.values()) await vault.removeFile(path);
    return { rowsDropped: lost.length, filesDropped: files.size };
  }

  /** @param insteadOf key of a plan for which it stands, where it is not its own */
  async add(made: MadeVariant, hash: string, format: string, insteadOf: string | null = null): Promise<void> {
    const { key } = made;
    const facts = factsOf(made);
    await retryOnDatabaseLoss(() =>
      VariantModel.upsert({ key, ...facts, originalHash: hash, format, unwantedSince: null, insteadOf }),
    );
    this.keep({ key, ...facts, hash, format, insteadOf });
  }

  /** Files that were made before stand for keys of plans, until they are made anew. @param pairs file → key of a plan */
  async standIn(pairs: ReadonlyMap<string, string>): Promise<void> {
    for (const [key, wish] of pairs) {
      const file = this.known.get(key);
      if (!file) continue;
      await retryOnDatabaseLoss(() =>
        VariantModel.update({ insteadOf: wish, unwantedSince: null }, { where: { key } }),
      );
      this.former.set(wish, key);
      file.insteadOf = wish;
    }
  }

  /** All files by their own keys. */
  get all(): ReadonlyMap<string, StoredFile> {
    return this.known;
  }

  async forget(key: string): Promise<void> {
    await VariantModel.destroy({ where: { key } });
    this.leave(key);
  }

  /** A file's row is gone. */
  leave(key: string): void {
    const wish = this.wishOf(key);
    if (this.thorough.get(wish) === key) this.thorough.delete(wish);
    if (this.former.get(wish) === key) this.former.delete(wish);
    this.known.delete(key);
  }
}
