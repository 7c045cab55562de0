// The codec processes: one job each at a time. Looking at new files goes before making variants.
import { fork, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';
import type { OriginalFacts } from '@dusky-otter/core';
import { RefusedError } from '../problems.ts';
import type { FromWorker, InspectJob, Job, MadeVariant, RenderJob, ToWorker } from './protocol.ts';

/** Always the built worker: tests run from sources, processes from what was built. */
const WORKER = resolve(import.meta.dirname, '../../dist/codec/worker.js');

/** Pixels live outside V8's heap, so V8 sees little reason to collect: workers do it themselves after a job. */
const WORKER_FLAGS = ['--expose-gc', '--max-semi-space-size=4'];

interface Task {
  job: Job;
  made: (variant: MadeVariant) => void;
  resolve: (facts: OriginalFacts | null) => void;
  reject: (error: Error) => void;
}

interface Worker {
  process: ChildProcess;
  ready: boolean;
  task: Task | null;
}

export class CodecPool {
  private readonly workers: Worker[] = [];
  private readonly waiting: Task[] = [];
  private closed = false;
  private stillborn = 0;
  /** Called when a process has nothing to do and no file waits to be looked at. */
  onIdle: () => void = () => undefined;

  constructor(count: number) {
    for (let i = 0; i < count; i++) this.workers.push(this.spawn());
  }

  /** Looks at a received file. @throws RefusedError with the reason. */
  async inspect(job: InspectJob): Promise<OriginalFacts> {
    const facts = await new Promise<OriginalFacts | null>((done, reject) => {
      this.waiting.push({ job, made: () => undefined, resolve: done, reject });
      // A process in the middle of a long batch hands the rest back after its current file.
      if (!this.workers.some((w) => w.ready && !w.task)) this.tellOneToStop();
      this.pump();
    });
    if (!facts) throw new Error('The codec process answered without facts.');
    return facts;
  }

  /** Makes variants; resolves when all are made, or earlier when it was told to stop. */
  async render(job: RenderJob, made: (variant: MadeVariant) => void): Promise<void> {
    await new Promise<OriginalFacts | null>((done, reject) => {
      this.waiting.push({ job, made, resolve: done, reject });
      this.pump();
    });
  }

  /** How many more render jobs could start right now. */
  get free(): number {
    if (this.closed) return 0;
    return this.workers.filter((w) => w.ready && !w.task).length - this.waiting.length;
  }

  /** Process ids, for measuring memory. */
  get pids(): number[] {
    return this.workers.flatMap((w) => w.process.pid ?? []);
  }

  /** Asks every process to stop making variants after its current file. */
  stopSoon(): void {
    for (const worker of this.workers)
      if (worker.task?.job.kind === 'render') this.send(worker, { type: 'stop-soon' });
  }

  /** Ends all processes; what they were making is not kept. */
  async close(): Promise<void> {
    this.closed = true;
    const ends = this.workers.map(
      ({ process: child }) =>
        new Promise<void>((done) => {
          if (child.exitCode !== null || child.signalCode !== null) done();
          else child.once('exit', () => done());
          child.kill('SIGKILL');
        }),
    );
    await Promise.all(ends);
  }

  private tellOneToStop(): void {
    const busy = this.workers.find((w) => w.task?.job.kind === 'render');
    if (busy) this.send(busy, { type: 'stop-soon' });
  }

  private send(worker: Worker, message: ToWorker): void {
    worker.process.send(message, (error) => {
      // A process that died says so through its exit; here only the message was lost.
      if (error && worker.task) this.replace(worker, 'The codec process ended while it was given work.');
    });
  }

  private spawn(): Worker {
    // Two malloc arenas: encoders otherwise spread freed memory over many and never give it back.
    const child = fork(WORKER, {
      env: { ...process.env, MALLOC_ARENA_MAX: '2' },
      execArgv: WORKER_FLAGS,
      serialization: 'advanced',
    });
    const worker: Worker = { process: child, ready: false, task: null };
    child.on('message', (message: FromWorker) => this.hear(worker, message));
    child.on('exit', () => this.replace(worker, 'The picture made the codec process crash.'));
    return worker;
  }

  private replace(worker: Worker, reason: string): void {
    const index = this.workers.indexOf(worker);
    if (index < 0 || this.closed) return;
    // A process that never came up would be started again for ever: that is a broken installation.
    this.stillborn = worker.ready ? 0 : this.stillborn + 1;
    if (this.stillborn > 4) throw new Error('The codec processes do not start. Build the server first.');
    this.workers[index] = this.spawn();
    worker.process.kill('SIGKILL');
    worker.task?.reject(worker.task.job.kind === 'inspect' ? new RefusedError('damaged') : new Error(reason));
    worker.task = null;
  }

  private hear(worker: Worker, message: FromWorker): void {
    const task = worker.task;
    switch (message.type) {
      case 'ready':
        worker.ready = true;
        break;
      case 'made':
        task?.made(message.variant);
        return;
      case 'inspected':
        task?.resolve(message.facts);
        break;
      case 'finished':
        task?.resolve(null);
        break;
      case 'refused':
        task?.reject(new RefusedError(message.code, message.sentence));
        break;
      case 'failed':
        task?.reject(new Error(message.sentence));
        break;
    }
    worker.task = null;
    this.pump();
  }

  private pump(): void {
    if (this.closed) return;
    for (const worker of this.workers) {
      if (!worker.ready || worker.task) continue;
      const next = this.waiting.findIndex((task) => task.job.kind === 'inspect');
      const [task] = this.waiting.splice(Math.max(0, next), 1);
      if (!task) {
        queueMicrotask(() => this.onIdle());
        return;
      }
      worker.task = task;
      this.send(worker, { type: 'job', job: task.job });
    }
  }
}
