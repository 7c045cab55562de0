// What the server is made of, and how its parts are put together.
import type { Sequelize } from 'sequelize';
import { CodecPool } from './codec/pool.ts';
import type { Config } from './config.ts';
import { Edits } from './edits/edits.ts';
import { EventHub } from './events/hub.ts';
import { TakeIn } from './gather/take-in.ts';
import { Preparer } from './prepare/prepare.ts';
import { StoredVariants } from './prepare/stored.ts';
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
}

/** Opens vault, codec processes and the list of stored variants. */
export async function buildParts(config: Config, sequelize: Sequelize): Promise<Parts> {
  const vault = new Vault(config.dataDir);
  await vault.open();
  const stored = new StoredVariants();
  await stored.load(vault);
  const hub = new EventHub();
  const pool = new CodecPool(config.workers);
  const preparer = new Preparer(pool, vault, stored, hub);
  const edits = new Edits(sequelize, preparer);
  const takeIn = new TakeIn(vault, pool, config.limits, preparer);
  return { config, sequelize, vault, pool, hub, stored, preparer, edits, takeIn };
}
