// Memory of the server with all its processes, read from /proc while something runs.
import { readdirSync, readFileSync } from 'node:fs';
import { useOf } from '../../packages/server/dist/codec/limits.js';

/** Resident bytes that belong to a process alone, with its part of what it shares (proportional set size). */
function memoryOf(pid: number): number {
  try {
    const found = /^Pss:\s+(\d+) kB/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'));
    return Number(found?.[1] ?? 0) * 1024;
  } catch {
    // The process has just ended: it holds nothing any more.
    return 0;
  }
}

function childrenOf(pid: number): number[] {
  try {
    const own = readdirSync(`/proc/${pid}/task`).flatMap((task) =>
      readFileSync(`/proc/${pid}/task/${task}/children`, 'utf8')
        .trim()
        .split(' ')
        .filter(Boolean)
        .map(Number),
    );
    return own.flatMap((child) => [child, ...childrenOf(child)]);
  } catch {
    return [];
  }
}

/** Processor seconds (proc(5), fields 14 and 15) that each process below one has taken. */
export function processorsOf(pid: number): Map<number, number> {
  return new Map(childrenOf(pid).map((child) => [child, useOf(child)?.seconds ?? 0]));
}

export interface Peak {
  /** Bytes. */
  server: number;
  workers: number;
  database: number;
  all: number;
}

/** Watches the server and the database until `stop`, ten times a second. */
export function watchMemory(serverPid: number, databasePid: number): { stop: () => Peak } {
  const peak: Peak = { server: 0, workers: 0, database: 0, all: 0 };
  const timer = setInterval(() => {
    const server = memoryOf(serverPid);
    const workers = childrenOf(serverPid).reduce((sum, pid) => sum + memoryOf(pid), 0);
    const database = memoryOf(databasePid);
    peak.server = Math.max(peak.server, server);
    peak.workers = Math.max(peak.workers, workers);
    peak.database = Math.max(peak.database, database);
    peak.all = Math.max(peak.all, server + workers + database);
  }, 100);
  return {
    stop() {
      clearInterval(timer);
      return peak;
    },
  };
}
