// What the server is made of, and how its parts are put together.
import type { FileState } from '@dusky-otter/core';
import type { Sequelize } from 'sequelize';
import { CodecPool } from './codec/pool.ts';
import { BATCH } from './codec/process.ts';
import type { Config } from './config.ts';
import { Aftermath } from './edits/aftermath.ts';
import { Edits } from './edits/edits.ts';
import { EventHub } from './events/hub.ts';
import { TakeIn } from './gather/take-in.ts';
import { Looker } from './look/looker.ts';
import { Ledgers } from './ledger/ledgers.ts';
import { Preparer } from './prepare/prepare.ts';
import { Scrub } from './prepare/scrub.ts';
import { StoredVariants } from './prepare/stored.ts';
import { Told } from './prepare/told.ts';
import { Views } from './prepare/views.ts';
import { TextReader } from './reading/text-reader.ts';
import { reportToConsole, type Report } from './report.ts';
import { Shelf } from './sets/shelf.ts';
import { SiteBook } from './sites/site-book.ts';
import { Vault } from './vault/vault.ts';

/** Everything a route may need. */
export interface Parts {
  config: Config;
  sequelize: Sequelize;
  vault: Vault;
  pool: CodecPool;
  hub: EventHub;
  told: Told;
  stored: StoredVariants;
  sites: SiteBook;
  ledgers: Ledgers;
  preparer: Preparer;
  shelf: Shelf;
  edits: Edits;
  aftermath: Aftermath;
  takeIn: TakeIn;
  views: Views;
  looker: Looker;
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
  const stored = new StoredVariants();
  await stored.load(vault);
  const hub = new EventHub();
  const pool = new CodecPool(config.workers, config.jobs, BATCH);
  const sites = new SiteBook();
  const failures = new Map<string, string>();
  const state: FileState = {
    of: (key) => stored.bytesOf(key) ?? (failures.has(key) ? 'failed' : null),
    improved: (key) => preparer.thorough.isOver(key),
    saved: (key) => stored.savedOf(key),
  };
  const ledgers = new Ledgers(sites, state);
  const told = new Told(hub, (setId) => ledgers.all.get(setId)?.counts ?? null);
  const { idleWork } = config;
  const preparer = new Preparer({
    ...{ pool, vault, stored, hub, told, sites, ledgers, failures, report, idleWork },
  });
  const shelf = new Shelf(sites, ledgers, preparer);
  const edits = new Edits(sequelize, sites);
  const aftermath = new Aftermath(sites, ledgers, preparer, shelf, hub, told, report);
  const views = new Views(vault, pool, preparer);
  const looker = new Looker(config.jobs);
  const scrub = new Scrub(vault, preparer, views, report);
  const reader = new TextReader({
    ...{ vault, aftermath, report },
    limits: { ...config.jobs, seconds: config.jobs.seconds * ANGLES_A_PICTURE },
    hasTime: () => pool.isAtLeisure,
  });
  const takeIn = new TakeIn(sequelize, vault, pool, config.limits, preparer, () => reader.wake());
  return {
    config,
    sequelize,
    vault,
    pool,
    hub,
    told,
    stored,
    sites,
    ledgers,
    preparer,
    shelf,
    edits,
    aftermath,
    takeIn,
    views,
    looker,
    reader,
    scrub,
    report,
  };
}
