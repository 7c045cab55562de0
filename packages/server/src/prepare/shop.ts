// What those who make files work with.
import type { CodecPool } from '../codec/pool.ts';
import type { EventHub } from '../events/hub.ts';
import type { Ledgers } from '../ledger/ledgers.ts';
import type { Report } from '../report.ts';
import type { SiteBook } from '../sites/site-book.ts';
import type { Vault } from '../vault/vault.ts';
import type { StoredVariants } from './stored.ts';
import type { Told } from './told.ts';

/** What is known of files, and whose they are. */
export interface Shop {
  pool: CodecPool;
  vault: Vault;
  stored: StoredVariants;
  hub: EventHub;
  told: Told;
  sites: SiteBook;
  ledgers: Ledgers;
  failures: Map<string, string>;
  report: Report;
  /** Whether smaller files are looked for while nothing else is to be made; otherwise only where it is asked for. */
  idleWork: boolean;
}
