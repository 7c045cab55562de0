// Which variants are stored: the database's list, held in memory, in step with the files.
import { VariantModel } from '../database/models.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import type { Vault } from '../vault/vault.ts';

export interface StoredVariant {
  bytes: number;
  contentHash: string;
}

export class StoredVariants {
  private readonly known = new Map<string, StoredVariant>();

  get(key: string): StoredVariant | undefined {
    return this.known.get(key);
  }

  /**
   * Reads the list and compares it with the files: a row without its file and a file without its row are
   * both left from an interrupted run, and both go, so that the subtraction starts from what is true.
   */
  async load(vault: Vault): Promise<{ rowsDropped: number; filesDropped: number }> {
    const rows = await VariantModel.findAll();
    const files = await vault.variantFiles();
    const lost = rows.filter((row) => !files.has(row.key));
    if (lost.length > 0) await VariantModel.destroy({ where: { key: lost.map((row) => row.key) } });
    this.known.clear();
    for (const row of rows) {
      if (!files.delete(row.key)) continue;
      this.known.set(row.key, { bytes: row.bytes, contentHash: row.contentHash });
    }
    for (const path of files.values()) await vault.removeFile(path);
    return { rowsDropped: lost.length, filesDropped: files.size };
  }

  async add(made: MadeVariant, originalHash: string, format: string): Promise<void> {
    await VariantModel.upsert({ ...made, originalHash, format });
    this.known.set(made.key, { bytes: made.bytes, contentHash: made.contentHash });
  }

  async forget(key: string): Promise<void> {
    await VariantModel.destroy({ where: { key } });
    this.known.delete(key);
  }
}
