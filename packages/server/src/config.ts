// Settings from environment variables, each with its default.
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import type { JobLimits } from './codec/limits.ts';

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
  /** Time and memory of a codec job. */
  jobs: JobLimits;
  /** Looks for smaller files while nothing else is to be made; otherwise only where an editor asks. */
  idleWork: boolean;
  /** Looks for words in pictures while nothing else is to be done. */
  readText: boolean;
  /** Unpacks the demo at the first start, without being asked. */
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

const LOOPBACK = /^(?:127(?:\.\d{1,3}){3}|localhost|::1)$/;

/** @throws Error for anything that other machines could reach: there is no password yet */
function hostFrom(text: string | undefined): string {
  if (text === undefined || text === '') return '127.0.0.1';
  if (LOOPBACK.test(text)) return text;
  throw new Error(
    `HOST is “${text}”, which other machines could reach, and there are no accounts yet to keep them out. Leave it out, or set it to 127.0.0.1.`,
  );
}

/** @throws Error naming the variable that is missing or no number. */
export function configFrom(env: NodeJS.ProcessEnv): Config {
  const databaseUrl = env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL is missing. Start the application with "npm start".');
  return {
    host: hostFrom(env.HOST),
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
    jobs: {
      seconds: numberFrom(env, 'LIMIT_JOB_SECONDS', 60),
      bytes: numberFrom(env, 'LIMIT_JOB_MEGABYTES', 2000) * 1_000_000,
    },
    idleWork: env.IDLE_WORK !== '0',
    readText: env.READ_TEXT === undefined ? env.IDLE_WORK !== '0' : env.READ_TEXT !== '0',
    seedDemo: env.SEED_DEMO === '1',
  };
}
