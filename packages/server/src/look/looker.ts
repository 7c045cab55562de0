// A codec process of its own for what is looked at: answers don't wait for files that are being made. It comes with the
// first look and goes when nobody has looked for a while.
import { CodecPool } from '../codec/pool.ts';
import type { JobLimits } from '../codec/limits.ts';
import type { Attempt } from '@dusky-otter/core';
import type { LookJob, PointsJob, Seen } from '../codec/protocol.ts';

/** How long the process waits for another look, in ms: it holds pixels. */
const PATIENCE = 120_000;

export class Looker {
  private pool: CodecPool | null = null;
  private leaving: NodeJS.Timeout | null = null;

  constructor(private readonly limits: JobLimits) {}

  /**
   * The file that is looked at.
   * @param signal drops it while it waits: who looks on has no use for it any more
   * @throws RenderError; the signal's reason
   */
  look(job: LookJob, signal: AbortSignal): Promise<Seen> {
    return this.with((pool) => pool.look(job, signal));
  }

  /** What a size of a crop could be had for; as `look`. */
  points(job: PointsJob, signal: AbortSignal): Promise<Attempt[]> {
    return this.with((pool) => pool.points(job, signal));
  }

  private async with<T>(ask: (pool: CodecPool) => Promise<T>): Promise<T> {
    if (this.leaving) clearTimeout(this.leaving);
    this.pool ??= new CodecPool(1, this.limits);
    try {
      return await ask(this.pool);
    } finally {
      if (this.leaving) clearTimeout(this.leaving);
      this.leaving = setTimeout(() => void this.close(), PATIENCE);
      this.leaving.unref();
    }
  }

  async close(): Promise<void> {
    if (this.leaving) clearTimeout(this.leaving);
    this.leaving = null;
    const { pool } = this;
    this.pool = null;
    await pool?.close();
  }
}
