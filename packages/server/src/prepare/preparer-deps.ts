// What those who make files work with.
import type { CodecPool } from '../codec/pool.ts';
import type { EventHub } from '../events/hub.ts';
import type { Ledgers } from '../ledger/ledgers.ts';
import type { Report } from '../report.ts';
import type { SiteCache } from '../store/site-cache.ts';
import type { Vault } from '../vault/vault.ts';
import type { StoredVariants } from '../store/stored-variants.ts';
import type { EventBatcher } from '../events/event-batcher.ts';

/** What is known of files, and whose they are. */
export interface PreparerDeps {
  pool: CodecPool;
  vault: Vault;
  stored: StoredVariants;
  hub: EventHub;
  batcher: EventBatcher;
  sites: SiteCache;
  ledgers: Ledgers;
  failures: Map<string, string>;
  report: Report;
  /** Whether smaller files are looked for while nothing else is to be made; otherwise only where it is asked for. */
  idleWork: boolean;
}
