// Opens the database and brings it up to date.
import { Sequelize, Transaction, type Options } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { MIGRATIONS } from './migrations.ts';
import { defineModels } from './models.ts';

/** How long one connection may take to come about, in ms. */
const PATIENCE = 30_000;

/** A database as it stands, for statements of one's own. Nothing is asked yet. */
export const openDatabase = (url: string, options: Options = {}): Sequelize =>
  new Sequelize(url, {
    dialect: 'mariadb',
    logging: false,
    // The driver's own patience is a second: on a busy machine a login takes longer.
    dialectOptions: { connectTimeout: PATIENCE },
    ...options,
  });

/** Connects, migrates forward and binds the models. @throws the driver's error when the database is not there. */
export async function connect(databaseUrl: string): Promise<Sequelize> {
  const sequelize = openDatabase(databaseUrl, {
    define: { charset: 'utf8mb4', collate: 'utf8mb4_unicode_ci' },
    pool: { max: 16, min: 0, acquire: PATIENCE },
    // Rows are locked before they are read: what is read then must be what is there now.
    isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED,
  });
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({ name, up: () => up(sequelize.getQueryInterface()) })),
    storage: new SequelizeStorage({ sequelize, modelName: 'migrations' }),
    logger: undefined,
  });
  await umzug.up();
  defineModels(sequelize);
  return sequelize;
}
