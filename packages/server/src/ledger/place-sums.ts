// What the photos that stand in one place add up to, kept in step as they come, change and leave.
import type { PlaceCounts } from '@dusky-otter/core/contract';
import type { Present } from '@dusky-otter/core/readiness';

export class PlaceSums {
  photos = 0;
  private sent = 0;
  private incomplete = 0;
  private readonly open: PlaceCounts['open'] = { frame: 0, weigh: 0, describe: 0 };

  get counts(): PlaceCounts {
    const { photos, sent, incomplete, open } = this;
    return { photos, phone: { sent, complete: incomplete === 0 }, open: { ...open } };
  }

  /** A photo that stands here; -1 where it does no longer. */
  count({ open }: Pick<Present, 'open'>, by: 1 | -1): void {
    this.photos += by;
    for (const stop of ['frame', 'weigh', 'describe'] as const) if (open.has(stop)) this.open[stop] += by;
  }

  /** @param bytes that a phone is sent for one photo; null while they are not known */
  weigh(bytes: number | null, by: 1 | -1): void {
    if (bytes === null) this.incomplete += by;
    else this.sent += by * bytes;
  }
}
