// A slow walk over everything that is stored, by hash: what a disk or a stranger changed is noticed before it is needed.
import type { OutputFormat } from '@dusky-otter/core/contract';
import { originalsBehind, variantsBehind } from '../store/variants.ts';
import type { Report } from '../report.ts';
import type { Vault } from '../vault/vault.ts';
import type { Preparer } from './prepare.ts';
import type { Views } from './views.ts';

/** One step every so many ms, of about as many bytes: a gigabyte takes ten minutes. */
const STEP_EVERY_MS = 10_000;
const STEP_BYTES = 16_000_000;

export interface Scrubbed {
  variants: number;
  views: number;
  originals: number;
}

export class Scrub {
  private timer: NodeJS.Timeout | null = null;
  private after = { variant: '', original: '' };

  constructor(
    private readonly vault: Vault,
    private readonly preparer: Preparer,
    private readonly views: Views,
    private readonly report: Report,
  ) {}

  start(): void {
    const step = async () => {
      try {
        await this.step(STEP_BYTES);
      } catch (error) {
        this.report('A step of the walk over the stored files failed; the next one goes on.', error);
      }
      if (this.timer) this.timer = setTimeout(() => void step(), STEP_EVERY_MS).unref();
    };
    this.timer = setTimeout(() => void step(), STEP_EVERY_MS).unref();
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  /** Walks over everything once. @returns what was found changed or lost, and is mended where it can be. */
  async everything(): Promise<Scrubbed> {
    this.after = { variant: '', original: '' };
    return this.step(Infinity);
  }

  private async step(bytes: number): Promise<Scrubbed> {
    const lost: { key: string; hash: string }[] = [];
    const found: Scrubbed = { variants: 0, views: 0, originals: 0 };
    let read = 0;
    const most = (count: number) => (bytes < Infinity ? count : undefined);
    const rows = await variantsBehind(this.after.variant, most(200));
    for (const row of rows) {
      if (read > bytes / 2) break;
      this.after.variant = row.key;
      read += row.bytes;
      const path = this.vault.variant(row.key, row.format as OutputFormat);
      if (!(await this.vault.verified(path, row.contentHash)))
        lost.push({ key: row.key, hash: row.originalHash });
    }
    if (rows.length === 0) this.after.variant = '';
    found.variants = lost.length;
    await this.preparer.remake(lost);
    const originals = await originalsBehind(this.after.original, most(20));
    for (const { hash, facts } of originals) {
      if (read > bytes) break;
      this.after.original = hash;
      read += facts.bytes;
      const whole = await this.vault.hasWhole(hash);
      if (!whole) found.originals += 1;
      await this.preparer.markOriginal(hash, !whole);
      if (!whole || (await this.views.areWhole(hash))) continue;
      found.views += 1;
      await this.views.remake(hash);
    }
    if (originals.length === 0) this.after.original = '';
    return found;
  }
}
