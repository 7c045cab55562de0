// A codec process of its own for what is looked at: answers don't wait for files that are being made. It comes with the
// first look and goes when nobody has looked for a while.
import { CodecPool } from '../codec/pool.ts';
import type { JobLimits } from '../codec/limits.ts';
import type { Attempt } from '@dusky-otter/core/weight';
import type { LookJob, PointsJob, Seen } from '../codec/protocol.ts';

/** How long the process waits for another look, in ms: it holds pixels. */
const PATIENCE = 120_000;
/** Weights that are remembered; those that were asked for first are forgotten first. */
const MOST_REMEMBERED = 5_000;

export class PreviewRenderer {
  private pool: CodecPool | null = null;
  private leaving: NodeJS.Timeout | null = null;
  private readonly weights = new Map<string, number>();

  constructor(private readonly limits: JobLimits) {}

  /**
   * The file that is looked at.
   * @param signal drops it while it waits: who looks on has no use for it any more
   * @throws RenderError; the signal's reason
   */
  look(job: LookJob, signal: AbortSignal): Promise<Seen> {
    return this.with((pool) => pool.look(job, signal));
  }

  /** Bytes of a file that nobody looks at, made once: the same pixels and settings weigh the same. Otherwise as `look`. */
  async weigh(job: LookJob, signal: AbortSignal): Promise<number> {
    const of = JSON.stringify({ ...job, path: null, facts: job.facts.hash });
    const bytes = this.weights.get(of) ?? (await this.look(job, signal)).file.length;
    this.weights.set(of, bytes);
    for (const first of this.weights.keys()) {
      if (this.weights.size <= MOST_REMEMBERED) break;
      this.weights.delete(first);
    }
    return bytes;
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
