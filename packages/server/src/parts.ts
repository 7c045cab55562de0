// What the server is made of, and how its parts are put together.
import type { FileState } from '@dusky-otter/core/readiness';
import type { Sequelize } from 'sequelize';
import { CodecPool } from './codec/pool.ts';
import { BATCH } from './codec/process.ts';
import type { Config } from './config.ts';
import { AfterCommit } from './after/after-commit.ts';
import { Changes } from './changes/changes.ts';
import type { Effects } from './changes/effects.ts';
import { settleAside } from './changes/dropping.ts';
import { Edits } from './changes/edits.ts';
import { EventHub } from './events/hub.ts';
import { TakeIn } from './gather/take-in.ts';
import { PreviewRenderer } from './look/preview-renderer.ts';
import { Ledgers } from './ledger/ledgers.ts';
import { Preparer } from './prepare/prepare.ts';
import { Scrub } from './prepare/scrub.ts';
import { StoredVariants } from './store/stored-variants.ts';
import { EventBatcher } from './events/event-batcher.ts';
import { Views } from './prepare/views.ts';
import { TextReader } from './reading/text-reader.ts';
import { reportToConsole, type Report } from './report.ts';
import { SetQueries } from './answers/set-queries.ts';
import { SiteCache } from './store/site-cache.ts';
import { Vault } from './vault/vault.ts';

/** Everything a route may need. */
export interface Parts {
  config: Config;
  sequelize: Sequelize;
  vault: Vault;
  pool: CodecPool;
  hub: EventHub;
  batcher: EventBatcher;
  stored: StoredVariants;
  sites: SiteCache;
  ledgers: Ledgers;
  preparer: Preparer;
  queries: SetQueries;
  changes: Changes;
  /** What follows from a change, for whoever changed something without one. */
  settle: (effects: Effects) => Promise<void>;
  edits: Edits;
  takeIn: TakeIn;
  views: Views;
  previews: PreviewRenderer;
  reader: TextReader;
  scrub: Scrub;
  report: Report;
}

/** A picture is read several times, each as long as any other step may take. */
const ANGLES_A_PICTURE = 5;

/** Opens vault, codec processes and the list of stored variants. */
export async function buildParts(
  config: Config,
  sequelize: Sequelize,
  report: Report = reportToConsole,
): Promise<Parts> {
  const vault = new Vault(config.dataDir);
  await vault.open();
  await settleAside(vault, await vault.setAsides());
  const stored = new StoredVariants();
  await stored.load(vault);
  const hub = new EventHub();
  const pool = new CodecPool(config.workers, config.jobs, BATCH);
  const sites = new SiteCache();
  const failures = new Map<string, string>();
  const state: FileState = {
    of: (key) => stored.bytesOf(key) ?? (failures.has(key) ? 'failed' : null),
    improved: (key) => preparer.thorough.isOver(key),
    saved: (key) => stored.savedOf(key),
  };
  const ledgers = new Ledgers(sites, state);
  const batcher = new EventBatcher(hub, (setId) => ledgers.all.get(setId)?.counts ?? null);
  const { idleWork } = config;
  const preparer = new Preparer({
    ...{ pool, vault, stored, hub, batcher, sites, ledgers, failures, report, idleWork },
  });
  const queries = new SetQueries(sites, ledgers, preparer);
  const after = new AfterCommit({
    ...{ sites, ledgers, preparer, stored, vault, hub, batcher, report },
    arrived: () => reader.wake(),
  });
  const settle = (effects: Effects) => after.settle(effects);
  const changes = new Changes(sequelize, sites, settle);
  const edits = new Edits(changes);
  const views = new Views(vault, pool, preparer);
  const previews = new PreviewRenderer(config.jobs);
  const scrub = new Scrub(vault, preparer, views, report);
  const reader = new TextReader({
    ...{ vault, report },
    known: (photoIds) => after.known(photoIds),
    limits: { ...config.jobs, seconds: config.jobs.seconds * ANGLES_A_PICTURE },
    hasTime: () => pool.isAtLeisure,
  });
  const takeIn = new TakeIn(changes, vault, pool, config.limits, preparer);
  return {
    config,
    sequelize,
    vault,
    pool,
    hub,
    batcher,
    stored,
    sites,
    ledgers,
    preparer,
    queries,
    changes,
    settle,
    edits,
    takeIn,
    views,
    previews,
    reader,
    scrub,
    report,
  };
}
