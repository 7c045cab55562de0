// Processes named in files: a number alone may long be somebody else's, so the time it started at is kept beside it.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

/**
 * When a process started, in clock ticks since boot (proc(5), field 22), or null when it is gone.
 * @param {number} pid
 */
function startOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    // One that has ended and waits for its parent is gone.
    return fields[0] === 'Z' ? null : (fields[19] ?? null);
  } catch {
    return null;
  }
}

/**
 * Whether a process is the one that it was.
 * @param {number} pid @param {string | null} start
 */
const isStill = (pid, start) => start !== null && startOf(pid) === start;

/** @param {number} pid @returns {number} the process that started it; 0 where that is not known */
function parentOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]);
  } catch {
    return 0;
  }
}

/** How often it is looked whether those who started this process live, in ms. */
const LOOK_EVERY = 500;

/**
 * Calls once npm, or the shell that it starts scripts with, is gone: whoever ends npm (service managers, containers) means
 * what runs below it, and the shell passes no signal on. A process that was started without npm waits for nobody.
 * @param {() => void} act
 */
export function whenNpmIsGone(act) {
  if (process.env.npm_lifecycle_event === undefined) return;
  const above = [process.ppid, parentOf(process.ppid)]
    .filter((pid) => pid > 1)
    .map((pid) => ({ pid, start: startOf(pid) }));
  const looking = setInterval(() => {
    if (above.every(({ pid, start }) => isStill(pid, start))) return;
    clearInterval(looking);
    act();
  }, LOOK_EVERY);
  looking.unref();
}

/** @param {string} file @param {number} pid */
export function remember(file, pid) {
  writeFileSync(file, `${pid} ${startOf(pid) ?? 'gone'}\n`, { mode: 0o600 });
}

/** @param {string} file @returns {number | null} the process that was remembered, if it still lives and is the same */
export function remembered(file) {
  if (!existsSync(file)) return null;
  const [pid, start] = readFileSync(file, 'utf8').trim().split(' ');
  return isStill(Number(pid), start ?? null) ? Number(pid) : null;
}

/** @param {number} ms */
export const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/**
 * Ends a process that an earlier start left behind: by asking, and after `patience` ms by force.
 * @param {string} file where it was remembered @param {number} patience
 */
export async function endRemembered(file, patience) {
  const pid = remembered(file);
  if (pid !== null) {
    process.kill(pid, 'SIGTERM');
    for (let waited = 0; remembered(file) !== null; waited += 50) {
      if (waited === patience) process.kill(pid, 'SIGKILL');
      await pause(50);
    }
  }
  rmSync(file, { force: true });
}

/**
 * Claims a folder for this process, whoever else tries at the same moment.
 * @param {string} file
 * @returns {number | null} null where it is ours now, or the living process that has it
 */
export function claim(file) {
  for (;;) {
    try {
      writeFileSync(file, `${process.pid} ${startOf(process.pid)}\n`, { flag: 'wx', mode: 0o600 });
      return null;
    } catch (error) {
      if (/** @type {{ code?: string }} */ (error).code !== 'EEXIST') throw error;
      const owner = remembered(file);
      if (owner !== null) return owner === process.pid ? null : owner;
      rmSync(file, { force: true });
    }
  }
}
