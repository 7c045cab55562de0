// One codec process: what it is started with, and its priority.
import { fork, type ChildProcess } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { constants, getPriority, setPriority } from 'node:os';
import { resolve } from 'node:path';

/** Always what was built: tests run from sources, processes from that. */
const BUILT = resolve(import.meta.dirname, '../../dist/codec');

/** Pixels live outside V8's heap, so V8 sees little reason to collect: workers do it themselves after a job. */
const WORKER_FLAGS = ['--expose-gc', '--max-semi-space-size=4'];

/** A codec process needs no secrets: it gets what finds programs, fonts and temporary files, and how it encodes. */
const PASSED_ON = ['PATH', 'HOME', 'TMPDIR', 'LANG', 'LC_ALL', 'TZ', 'SHORT_ENCODING'];

/**
 * Starts a codec process, or the one that looks for words.
 * @param behind how far it stands behind this process; set before it has a second thread, all others get it from there
 */
export function codecProcess(program: 'worker' | 'reader-process', behind: number): ChildProcess {
  const passed = PASSED_ON.flatMap((name) => {
    const value = process.env[name];
    return value === undefined ? [] : [[name, value] as const];
  });
  const child = fork(resolve(BUILT, `${program}.js`), {
    // Two malloc arenas: encoders otherwise spread freed memory over many and never give it back.
    env: { ...Object.fromEntries(passed), MALLOC_ARENA_MAX: '2' },
    execArgv: WORKER_FLAGS,
    serialization: 'advanced',
    // The reader of characters talks to itself; what became of a picture is in its answer.
    ...(program === 'reader-process' && { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] }),
  });
  if (behind > 0 && child.pid !== undefined) lower(child.pid, behind);
  return child;
}

/** How far batches stand behind the server and what somebody looks at: a third of the time where all want it. */
export const BATCH = 5;
/** Takes what others leave. */
export const LOWEST = constants.priority.PRIORITY_LOW;

/**
 * Puts a process behind this one, with all its threads: Linux holds a priority for each, and encoders have their own.
 * One that has just ended needs none.
 * @param by steps of the scheduler's scale, on which 10 lower is a tenth of the time
 */
export function lower(pid: number, by: number): void {
  const priority = Math.min(LOWEST, getPriority() + by);
  try {
    for (const thread of readdirSync(`/proc/${pid}/task`)) setPriority(Number(thread), priority);
  } catch {
    // It is gone; its end is heard.
  }
}
