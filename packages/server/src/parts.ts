// What the server is made of, and how its parts are put together.
import type { Sequelize } from 'sequelize';
import { CodecPool } from './codec/pool.ts';
import type { Config } from './config.ts';
import { Edits } from './edits/edits.ts';
import { VariantModel } from './database/models.ts';
import { EventHub } from './events/hub.ts';
import { TakeIn } from './gather/take-in.ts';
import { Preparer } from './prepare/prepare.ts';
import { Scrub } from './prepare/scrub.ts';
import { StoredVariants } from './prepare/stored.ts';
import { Views } from './prepare/views.ts';
import { reportToConsole, type Report } from './report.ts';
import { Vault } from './vault/vault.ts';

/** Everything a route may need. */
export interface Parts {
  config: Config;
  sequelize: Sequelize;
  vault: Vault;
  pool: CodecPool;
  hub: EventHub;
  stored: StoredVariants;
  preparer: Preparer;
  edits: Edits;
  takeIn: TakeIn;
  views: Views;
  scrub: Scrub;
  report: Report;
  /** Whether a key's file has this format. */
  storedAs: (key: string, format: string) => Promise<boolean>;
}

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
  const pool = new CodecPool(config.workers, config.jobs);
  const preparer = new Preparer(pool, vault, stored, hub, report);
  const edits = new Edits(sequelize, preparer);
  const takeIn = new TakeIn(vault, pool, config.limits, preparer);
  const views = new Views(vault, pool, preparer);
  const scrub = new Scrub(vault, preparer, views, report);
  const storedAs = async (key: string, format: string) =>
    (await VariantModel.count({ where: { key, format } })) > 0;
  return {
    config,
    sequelize,
    vault,
    pool,
    hub,
    stored,
    preparer,
    edits,
    takeIn,
    views,
    scrub,
    report,
    storedAs,
  };
}
