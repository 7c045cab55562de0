// Which variants are stored: the database's list, held in memory, in step with the files.
import type { StoredFacts } from '@dusky-otter/core';
import { VariantModel } from '../database/models.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import { patiently } from '../database/patience.ts';
import type { Vault } from '../vault/vault.ts';

const factsOf = ({ bytes, contentHash, quality, difference }: StoredFacts): StoredFacts => ({
  bytes,
  contentHash,
  quality,
  difference,
});

export class StoredVariants {
  private readonly known = new Map<string, StoredFacts>();

  get(key: string): StoredFacts | undefined {
    return this.known.get(key);
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
      this.known.set(row.key, factsOf(row));
    }
    for (const path of files.values()) await vault.removeFile(path);
    return { rowsDropped: lost.length, filesDropped: files.size };
  }

  async add(made: MadeVariant, originalHash: string, format: string): Promise<void> {
    const facts = factsOf(made);
    await patiently(() =>
      VariantModel.upsert({ key: made.key, ...facts, originalHash, format, wantedUntil: null }),
    );
    this.known.set(made.key, facts);
  }

  get keys(): string[] {
    return [...this.known.keys()];
  }

  async forget(key: string): Promise<void> {
    await VariantModel.destroy({ where: { key } });
    this.known.delete(key);
  }
}
