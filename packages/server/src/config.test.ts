// Settings from the environment: defaults, and a clear word when one makes no sense.
import { describe, expect, test } from '@jest/globals';
import { resolve } from 'node:path';
import { configFrom } from './config.ts';

const DATABASE_URL = 'mariadb://u:p@127.0.0.1:1/d';

describe('configuration', () => {
  test('has a default for everything but the database', () => {
    const config = configFrom({ DATABASE_URL });
    expect(config).toMatchObject({
      host: '127.0.0.1',
      port: 4780,
      seedDemo: false,
      idleWork: true,
      readText: true,
      jobs: { seconds: 60, bytes: 2_000_000_000 },
      limits: { bytes: 60_000_000, pixels: 100_000_000 },
    });
    expect(config.workers).toBeGreaterThanOrEqual(1);
    expect(config.workers).toBeLessThanOrEqual(4);
    expect(config.dataDir).toBe(resolve(import.meta.dirname, '../../../.data'));
  });
  test('takes what it is given', () => {
    const config = configFrom({
      DATABASE_URL,
      PORT: '0',
      DATA_DIR: '/somewhere',
      CODEC_WORKERS: '3',
      LIMIT_MEGABYTES: '5',
      LIMIT_MEGAPIXELS: '12',
      SEED_DEMO: '0',
      IDLE_WORK: '0',
    });
    expect(config).toMatchObject({
      port: 0,
      dataDir: '/somewhere',
      workers: 3,
      limits: { bytes: 5_000_000, pixels: 12_000_000 },
      seedDemo: false,
      idleWork: false,
      readText: false,
    });
  });
  test('an empty variable is as good as none; no process at all is one', () => {
    expect(configFrom({ DATABASE_URL, PORT: '', CODEC_WORKERS: '0' })).toMatchObject({
      port: 4780,
      workers: 1,
    });
  });
  test.each(['127.0.0.1', '127.0.0.2', 'localhost', '::1', ''])('listens on %j', (HOST) => {
    expect(configFrom({ DATABASE_URL, HOST }).host).toBe(HOST || '127.0.0.1');
  });
  test.each(['0.0.0.0', '::', '10.0.0.5', 'gullmoor.example', '127.0.0.1.example'])(
    'does not listen on %s, which others could reach, and says why',
    (HOST) =>
      expect(() => configFrom({ DATABASE_URL, HOST })).toThrow(/other machines could reach.*no accounts yet/),
  );
  test('names what is missing or no number', () => {
    expect(() => configFrom({})).toThrow('npm start');
    expect(() => configFrom({ DATABASE_URL, PORT: 'eighty' })).toThrow('PORT must be a number, not "eighty"');
    expect(() => configFrom({ DATABASE_URL, LIMIT_MEGABYTES: '-1' })).toThrow('LIMIT_MEGABYTES');
  });
});
