// Which variants are stored: the database's list, held in memory, in step with the files.
import type { OutputFormat, StoredFacts } from '@dusky-otter/core';
import { VariantModel } from '../database/models.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import { patiently } from '../database/patience.ts';
import type { Vault } from '../vault/vault.ts';

/** A file in the vault, and the original that it was made from. */
export interface StoredFile extends StoredFacts {
  hash: string;
  format: OutputFormat;
}

const factsOf = ({ bytes, contentHash, quality, difference }: StoredFacts): StoredFacts => ({
  bytes,
  contentHash,
  quality,
  difference,
});

export class StoredVariants {
  private readonly known = new Map<string, StoredFile>();
  /** Every hash once: dozens of files are made from one original. */
  private readonly hashes = new Map<string, string>();

  get(key: string): StoredFacts | undefined {
    const file = this.known.get(key);
    return file && factsOf(file);
  }

  /** Bytes of a stored file, or undefined. */
  bytesOf(key: string): number | undefined {
    return this.known.get(key)?.bytes;
  }

  /** A stored file with what it was made from. */
  file(key: string): StoredFile | undefined {
    return this.known.get(key);
  }

  private keep(key: string, facts: StoredFacts, hash: string, format: string): void {
    const known = this.hashes.get(hash) ?? hash;
    this.hashes.set(known, known);
    this.known.set(key, { ...factsOf(facts), hash: known, format: format as OutputFormat });
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
    if (lost.length > 0) await VariantModel.destroy({ where: { key: lost.map((row) => row.key) } });
    this.known.clear();
    const gone = new Set(lost);
    for (const row of rows) {
      if (gone.has(row)) continue;
      files.delete(row.key);
      this.keep(row.key, row, row.originalHash, row.format);
    }
    for (const path of files.values()) await vault.removeFile(path);
    return { rowsDropped: lost.length, filesDropped: files.size };
  }

  async add(made: MadeVariant, originalHash: string, format: string): Promise<void> {
    const facts = factsOf(made);
    await patiently(() =>
      VariantModel.upsert({ key: made.key, ...facts, originalHash, format, wantedUntil: null }),
    );
    this.keep(made.key, facts, originalHash, format);
  }

  get all(): ReadonlyMap<string, StoredFile> {
    return this.known;
  }

  async forget(key: string): Promise<void> {
    await VariantModel.destroy({ where: { key } });
    this.known.delete(key);
  }
}
