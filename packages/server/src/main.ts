// The only entry: configuration, database, parts, demo, listen; and a clean end.
import { buildApp } from './app.ts';
import { configFrom } from './config.ts';
import { connect } from './database/connect.ts';
import { seedDemo } from './demo/seed.ts';
import { buildParts } from './parts.ts';
import { sweep } from './prepare/sweep.ts';

const config = configFrom(process.env);
const sequelize = await connect(config.databaseUrl);
const parts = await buildParts(config, sequelize);
const app = await buildApp(parts, { log: true });

let ending = false;
async function end(): Promise<void> {
  if (ending) return;
  ending = true;
  parts.preparer.close();
  await app.close();
  await parts.pool.close();
  await sequelize.close();
  process.exit(0);
}
process.on('SIGTERM', () => void end());
process.on('SIGINT', () => void end());

if (config.seedDemo) await seedDemo(parts);
await app.listen({ host: config.host, port: config.port });
const address = app.server.address();
const port = typeof address === 'object' && address ? address.port : config.port;
console.log(`Dusky Otter is ready: http://${config.host}:${port}/`);
await parts.preparer.reconcileAll();
await sweep(parts.vault, parts.stored, (key) => parts.preparer.isWanted(key), Date.now());
