// The pictures that screens show of originals: served only as they were made, and made again where they are not.
import type { CodecPool } from '../codec/pool.ts';
import { ORIGINAL_LOST } from '../problems.ts';
import { factsOf, viewsOf, writeViews } from '../store/originals.ts';
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
    const bytes = await this.stored(hash, size);
    if (bytes || !(await factsOf(hash))) return bytes;
    await this.remake(hash);
    return this.stored(hash, size);
  }

  private async stored(hash: string, size: ViewSize): Promise<Buffer | null> {
    const views = await viewsOf(hash);
    return views && this.vault.verified(this.vault.view(hash, size), views[size]);
  }

  /** True where both files are what was made. */
  async areWhole(hash: string): Promise<boolean> {
    const views = await viewsOf(hash);
    if (!views) return (await factsOf(hash)) === null;
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
    const facts = await factsOf(hash);
    if (!facts) return;
    if (!(await this.vault.hasWhole(hash))) {
      await this.preparer.markOriginal(hash, true);
      throw new Error(ORIGINAL_LOST);
    }
    const views = await this.pool.views({
      kind: 'views',
      path: this.vault.original(hash),
      facts,
      incoming: this.vault.incoming,
      views: { row: this.vault.view(hash, 'row'), bench: this.vault.view(hash, 'bench') },
    });
    await writeViews(hash, views);
  }
}
