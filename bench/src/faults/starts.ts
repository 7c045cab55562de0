// Starts on a machine that has no time, and ends that come from above.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../report.ts';
import { Rig } from '../rig.ts';
import { newSet, photo } from './store.ts';

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** Processes beside a start, which take all that they get. */
const BUSY = 12;
/** How long what was started may take to end, in ms. */
const LONGEST_END = 30_000;

/** @returns whether the application comes up all the same, and works */
export async function startsStarved(folder: string): Promise<boolean> {
  const busy = Array.from({ length: BUSY }, () =>
    spawn(process.execPath, ['-e', 'for (;;) Math.sqrt(2)'], { stdio: 'ignore' }),
  );
  try {
    const rig = await Rig.open(join(folder, 'starved'));
    const { ok } = await rig.send(await newSet(rig), 'a.jpg', await photo(1));
    await rig.end();
    return ok;
  } finally {
    for (const child of busy) child.kill('SIGKILL');
  }
}

/** Ends npm as service managers do. @returns whether nothing of what it started is left */
export async function endsWithNpm(folder: string): Promise<boolean> {
  const data = join(folder, 'by-npm');
  const child = spawn('npm', ['start'], {
    cwd: ROOT,
    env: { ...process.env, DATA_DIR: data, PORT: '0', IDLE_WORK: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  child.stdout.on('data', (text: Buffer) => (said += String(text)));
  while (!said.includes('is ready')) await pause(100);
  child.kill('SIGTERM');
  const owner = join(data, 'database/owner.process');
  for (let waited = 0; existsSync(owner) && waited < LONGEST_END; waited += 100) await pause(100);
  return !existsSync(owner) && spawnSync('pgrep', ['-f', data], { encoding: 'utf8' }).stdout.trim() === '';
}
