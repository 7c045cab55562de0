// Sites as plans need them, read once and kept: a plan asks for the same places and devices thousands of times, and
// widths are found once for each object that is asked about.
import type { Site } from '@dusky-otter/core/contract';
import type { Transaction } from 'sequelize';
import { holdSite, readSite } from './sites.ts';

export class SiteCache {
  private readonly asked = new Map<number, Promise<Site>>();
  /** Those of them that have been read. */
  private readonly known = new Map<number, Site>();

  /** @throws ProblemError no-such-site */
  get(id: number): Promise<Site> {
    const before = this.asked.get(id);
    if (before) return before;
    const found = readSite(id);
    this.asked.set(id, found);
    found.then(
      (site) => {
        // Forgotten while it was read, it may be another one by now.
        if (this.asked.get(id) === found) this.known.set(id, site);
      },
      // What could not be read is tried again the next time.
      () => {
        if (this.asked.get(id) === found) this.forget(id);
      },
    );
    return found;
  }

  /**
   * The site as it is until a transaction ends: what was read before where it is still that. Nothing that others read is
   * waited for: they may wait for a connection, and this one has one.
   * @throws ProblemError no-such-site
   */
  async held(id: number, forChange: boolean, t: Transaction): Promise<Site> {
    const version = await holdSite(id, forChange, t);
    const before = this.known.get(id);
    return before?.version === version ? before : readSite(id, { transaction: t });
  }

  /** After a change: the next who asks reads it anew. */
  forget(id: number): void {
    this.asked.delete(id);
    this.known.delete(id);
  }
}
