// Sites as plans need them, read once and kept: a plan asks for the same places and devices thousands of times, and
// widths are found once for each object that is asked about.
import type { Site } from '@dusky-otter/core';
import type { Transaction } from 'sequelize';
import { holdSite, readSite } from './sites.ts';

export class SiteCache {
  private readonly known = new Map<number, Promise<Site>>();

  /** @throws ProblemError no-such-site */
  get(id: number): Promise<Site> {
    const before = this.known.get(id);
    if (before) return before;
    const found = readSite(id);
    this.known.set(id, found);
    // What could not be read is tried again the next time.
    found.catch(() => this.known.delete(id));
    return found;
  }

  /**
   * The site as it is until a transaction ends: what was read before where it is still that.
   * @throws ProblemError no-such-site
   */
  async held(id: number, forChange: boolean, t: Transaction): Promise<Site> {
    const version = await holdSite(id, forChange, t);
    const before = await this.known.get(id)?.catch(() => null);
    return before?.version === version ? before : readSite(id, { transaction: t });
  }

  /** After a change: the next who asks reads it anew. */
  forget(id: number): void {
    this.known.delete(id);
  }
}
