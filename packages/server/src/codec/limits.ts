// What a codec job may take: processor time and memory, read from /proc while it runs. A picture that needs more is
// made to need it, or would keep everybody else waiting.
import { readFileSync } from 'node:fs';

export interface JobLimits {
  /** Processor time in seconds that one step of a job may take: looking at a file, or making one output. */
  seconds: number;
  /** Resident memory of a codec process in bytes. */
  bytes: number;
}

/** Processor time that looking at a drawing may take: it has no pixels that would need more, only what it asks for. */
export const DRAWING_SECONDS = 10;

/** Time on the clock for one second of processor time: a busy machine is slow, a job that only waits is stuck. */
const PATIENCE = 10;

/** USER_HZ of Linux, the unit of the times in /proc/PID/stat (proc(5)). */
const TICKS_A_SECOND = 100;
const PAGE = 4096;

export interface Use {
  /** Processor time of the process since it started, in seconds. */
  seconds: number;
  bytes: number;
}

/** What a process has used; null when it is gone, or the system tells nothing. */
export function useOf(pid: number): Use | null {
  try {
    // The program's name in parentheses may hold spaces: fields are counted behind it.
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    const resident = Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]);
    return {
      seconds: (Number(fields[11]) + Number(fields[12])) / TICKS_A_SECOND,
      bytes: resident * PAGE,
    };
  } catch {
    return null;
  }
}

/** Watches one job of a process. */
export class JobWatch {
  private limits: JobLimits;
  private start: number;
  private begun: number;

  constructor(
    private readonly pid: number,
    limits: JobLimits,
  ) {
    this.limits = limits;
    this.start = useOf(pid)?.seconds ?? 0;
    this.begun = performance.now();
  }

  /** It turned out that the job may take less than others. @param seconds processor time of a step */
  atMost(seconds: number): void {
    this.limits = { ...this.limits, seconds: Math.min(seconds, this.limits.seconds) };
  }

  /** A step is done: the next one has the whole time again. */
  step(): void {
    this.start = useOf(this.pid)?.seconds ?? this.start;
    this.begun = performance.now();
  }

  /** What the job has taken too much of, as a sentence's beginning, or null. */
  excess(): string | null {
    const use = useOf(this.pid);
    const { seconds, bytes } = this.limits;
    if (use && use.bytes > bytes) return `It needs more than ${Math.round(bytes / 1e6)} MB of memory`;
    const spent = use ? use.seconds - this.start : 0;
    const waited = (performance.now() - this.begun) / 1000;
    if (spent > seconds || waited > seconds * PATIENCE)
      return `It takes longer than ${Math.round(seconds)} seconds`;
    return null;
  }
}
