// The pictures that screens show of originals: served only as they were made, and made again where they are not.
import { OriginalModel } from '../database/models.ts';
import type { CodecPool } from '../codec/pool.ts';
import { ORIGINAL_LOST } from '../problems.ts';
import type { Vault } from '../vault/vault.ts';
import type { Preparer } from './prepare.ts';

export type ViewSize = 'row' | 'bench';

export class Views {
  private readonly making = new Map<string, Promise<void>>();

  constructor(
    private readonly vault: Vault,
    private readonly pool: CodecPool,
    private readonly preparer: Preparer,
  ) {}

  /** A view's bytes, made anew where the file is missing or changed; null where there is no such original. */
  async read(hash: string, size: ViewSize): Promise<Buffer | null> {
    const original = await OriginalModel.findByPk(hash);
    if (!original) return null;
    const bytes =
      original.views && (await this.vault.verified(this.vault.view(hash, size), original.views[size]));
    if (bytes) return bytes;
    await this.remake(hash);
    const again = await OriginalModel.findByPk(hash);
    return (again?.views && this.vault.verified(this.vault.view(hash, size), again.views[size])) ?? null;
  }

  /** True where both files are what was made. */
  async areWhole(hash: string): Promise<boolean> {
    const original = await OriginalModel.findByPk(hash);
    if (!original) return true;
    const { views } = original;
    if (!views) return false;
    const sizes = ['row', 'bench'] as const;
    const found = await Promise.all(
      sizes.map((size) => this.vault.verified(this.vault.view(hash, size), views[size])),
    );
    return found.every((bytes) => bytes !== null);
  }

  /** Makes both views from the original, once for all who ask at the same time. */
  remake(hash: string): Promise<void> {
    const running = this.making.get(hash) ?? this.make(hash).finally(() => this.making.delete(hash));
    this.making.set(hash, running);
    return running;
  }

  private async make(hash: string): Promise<void> {
    const original = await OriginalModel.findByPk(hash);
    if (!original) return;
    if (!(await this.vault.hasWhole(hash))) {
      await this.preparer.markOriginal(hash, true);
      throw new Error(ORIGINAL_LOST);
    }
    const views = await this.pool.views({
      kind: 'views',
      path: this.vault.original(hash),
      facts: original.facts,
      incoming: this.vault.incoming,
      views: { row: this.vault.view(hash, 'row'), bench: this.vault.view(hash, 'bench') },
    });
    await original.update({ views });
  }
}
