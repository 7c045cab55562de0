// Settings from environment variables, each with its default.
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';

export interface Config {
  host: string;
  port: number;
  /** Where originals, variants and the database live. */
  dataDir: string;
  databaseUrl: string;
  /** Built web application. */
  webDir: string;
  demoDir: string;
  /** Codec processes. */
  workers: number;
  limits: Limits;
  seedDemo: boolean;
}

export interface Limits {
  /** Bytes a file may have. */
  bytes: number;
  /** Pixels a picture may have. */
  pixels: number;
}

const root = resolve(import.meta.dirname, '../../..');

function numberFrom(env: NodeJS.ProcessEnv, name: string, fallback: number): number {
  const text = env[name];
  if (text === undefined || text === '') return fallback;
  const value = Number(text);
  if (!Number.isFinite(value) || value < 0) throw new Error(`${name} must be a number, not "${text}".`);
  return value;
}

/** @throws Error naming the variable that is missing or no number. */
export function configFrom(env: NodeJS.ProcessEnv): Config {
  const databaseUrl = env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL is missing. Start the application with "npm start".');
  return {
    host: env.HOST ?? '127.0.0.1',
    port: numberFrom(env, 'PORT', 4780),
    dataDir: resolve(env.DATA_DIR ?? resolve(root, '.data')),
    databaseUrl,
    webDir: resolve(root, 'packages/web/dist'),
    demoDir: resolve(root, 'demo'),
    workers: Math.max(1, numberFrom(env, 'CODEC_WORKERS', Math.min(4, availableParallelism()))),
    limits: {
      bytes: numberFrom(env, 'LIMIT_MEGABYTES', 60) * 1_000_000,
      pixels: numberFrom(env, 'LIMIT_MEGAPIXELS', 100) * 1_000_000,
    },
    seedDemo: env.SEED_DEMO !== '0',
  };
}
