// The codec processes: one job each at a time, watched for time and memory. Looking at new files goes before making variants.
import type { Attempt } from '@dusky-otter/core/weight';
import { RefusedError } from '../problems.ts';
import { DRAWING_SECONDS, JobWatch, type JobLimits } from './limits.ts';
import { codecProcess, lower, LOWEST } from './process.ts';
import { InterruptedError, leftOf, RenderError, type Result, type Task, type Worker } from './task.ts';
import type {
  FromWorker,
  Inspected,
  InspectJob,
  Job,
  LookJob,
  MadeVariant,
  PointsJob,
  RenderJob,
  Seen,
  ToWorker,
  ViewHashes,
  ViewsJob,
} from './protocol.ts';

/** How often running jobs are looked at, in ms: memory grows by a gigabyte in less than a second. */
const WATCH_EVERY = 100;

/** Pause before a process that did not come up is started again, in ms; it grows. */
const FIRST_PAUSE = 100;
const LONGEST_PAUSE = 30_000;

/** An output that has been made for less than this, in ms, is finished sooner than a fresh process is there. */
const WORTH_WAITING = 1_000;

/** A job that ended its process is tried once more in a fresh one: what ended it may have been somebody else. */
const TRIES = 2;

export class CodecPool {
  private readonly workers: Worker[] = [];
  private readonly waiting: Task[] = [];
  private readonly watching: NodeJS.Timeout;
  private closed = false;
  private stillborn = 0;
  /** Called when a process has nothing to do and no file waits to be looked at. */
  onIdle: () => void = () => undefined;

  /** @param behind how far its processes stand behind the server's own */
  constructor(
    count: number,
    private readonly limits: JobLimits,
    private readonly behind = 0,
  ) {
    for (let i = 0; i < count; i++) this.workers.push(this.spawn());
    this.watching = setInterval(() => this.watch(), WATCH_EVERY);
    this.watching.unref();
  }

  /**
   * Looks at a received file.
   * @param signal ends the wait when nobody wants the answer any more; a file that is being looked at is looked at whole.
   * @throws RefusedError with the reason; the signal's reason when it was given up while waiting.
   */
  async inspect(job: InspectJob, signal?: AbortSignal): Promise<Inspected> {
    const result = await this.queue(job, signal);
    if (!result || !('facts' in result)) throw new Error('The codec process answered without facts.');
    return result;
  }

  /** Makes the views of an original anew. @throws RefusedError, RenderError */
  async views(job: ViewsJob): Promise<ViewHashes> {
    const result = await this.queue(job);
    if (!result || !('bench' in result)) throw new Error('The codec process answered without views.');
    return result;
  }

  /** The file that somebody looks at. @throws RenderError; the signal's reason when it was given up while waiting */
  async look(job: LookJob, signal: AbortSignal): Promise<Seen> {
    const result = await this.queue(job, signal);
    if (!result || !('file' in result)) throw new Error('The codec process answered without a file.');
    return result;
  }

  /** What a size of a crop could be had for. @throws RenderError; the signal's reason when it was given up while waiting */
  async points(job: PointsJob, signal: AbortSignal): Promise<Attempt[]> {
    const result = await this.queue(job, signal);
    if (!Array.isArray(result)) throw new Error('The codec process answered without points.');
    return result;
  }

  /** Makes variants; resolves when all are made, or earlier when it was told to stop. @throws RenderError */
  async render(job: RenderJob, made: (variant: MadeVariant) => void): Promise<void> {
    await this.queue(job, undefined, made);
  }

  /**
   * Makes variants for which there is time, outputs one by one as `render` does.
   * @throws InterruptedError when other work came; RenderError
   */
  async improve(job: RenderJob, made: (variant: MadeVariant) => void): Promise<void> {
    await this.queue(job, undefined, made, true);
  }

  /** Outputs that nobody wants any more are not made; one that has been made for a while already is broken off. */
  drop(keys: ReadonlySet<string>): void {
    for (const { job, done } of this.waiting)
      if (job.kind === 'render') for (const { key } of job.outputs) if (keys.has(key)) done.add(key);
    for (const worker of [...this.workers]) {
      const { task } = worker;
      if (task?.job.kind !== 'render' || !task.job.outputs.some(({ key }) => keys.has(key))) continue;
      for (const { key } of task.job.outputs) if (keys.has(key)) task.done.add(key);
      if (task.patient) this.interrupt(worker, task);
      else if (keys.has(task.step) && performance.now() - task.begun > WORTH_WAITING)
        this.again(worker, task);
      else this.send(worker, { type: 'stop-soon' });
    }
  }

  /** A task goes on in a fresh process, without what it was doing. */
  private again(worker: Worker, task: Task): void {
    worker.task = null;
    worker.watch = null;
    this.waiting.unshift(task);
    this.replace(worker);
  }

  private interrupt(worker: Worker, task: Task): void {
    worker.task = null;
    worker.watch = null;
    this.replace(worker);
    task.reject(new InterruptedError('Other work came first.'));
  }

  private queue(
    job: Job,
    signal?: AbortSignal,
    made: (variant: MadeVariant) => void = () => undefined,
    patient = false,
  ): Promise<Result> {
    return new Promise((done, reject) => {
      signal?.throwIfAborted();
      const task: Task = {
        ...{ job, patient, made, resolve: done, reject },
        ...{ done: new Set(), broke: new Map(), step: '', begun: 0 },
      };
      const drop = () => {
        const at = this.waiting.indexOf(task);
        if (at < 0) return;
        this.waiting.splice(at, 1);
        reject(signal?.reason instanceof Error ? signal.reason : new Error('Given up.'));
      };
      signal?.addEventListener('abort', drop, { once: true });
      this.waiting.push(task);
      // A process in the middle of a long batch hands the rest back after its current file.
      if (job.kind !== 'render' && !this.workers.some((w) => w.ready && !w.task && !w.patient))
        this.tellOneToStop();
      this.pump();
    });
  }

  /** How many more render jobs could start right now; patient ones would make room. */
  get free(): number {
    if (this.closed) return 0;
    const ready = this.workers.filter((w) => w.ready && (!w.task || w.task.patient)).length;
    return ready - this.waiting.filter((task) => !task.patient).length;
  }

  /** How many processes have nothing to do at all. */
  get spare(): number {
    if (this.closed) return 0;
    return this.workers.filter((w) => w.ready && !w.task).length - this.waiting.length;
  }

  /** Nothing is looked at or made that somebody waits for. */
  get isAtLeisure(): boolean {
    return !this.isUrgent && this.workers.every(({ task }) => task === null || task.patient);
  }

  /** Process ids, for measuring memory. */
  get pids(): number[] {
    return this.workers.flatMap((w) => w.process.pid ?? []);
  }

  /** What a process is doing; null for one that waits, or is none of the pool's. */
  busyWith(pid: number): Job['kind'] | null {
    return this.workers.find((w) => w.process.pid === pid)?.task?.job.kind ?? null;
  }

  /** Asks every process to stop making variants after its current file. */
  stopSoon(): void {
    for (const worker of this.workers)
      if (worker.task?.job.kind === 'render') this.send(worker, { type: 'stop-soon' });
  }

  /** Ends all processes; what they were making is not kept. */
  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.watching);
    const ends = this.workers.map(
      ({ process: child }) =>
        new Promise<void>((done) => {
          if (child.exitCode !== null || child.signalCode !== null) done();
          else child.once('exit', () => done());
          child.kill('SIGKILL');
        }),
    );
    await Promise.all(ends);
    const over = new Error('The application is ending.');
    for (const { task } of this.workers) task?.reject(over);
    for (const task of this.waiting.splice(0)) task.reject(over);
  }

  private tellOneToStop(): void {
    const busy = this.workers.find((w) => w.task?.job.kind === 'render' && !w.patient);
    if (busy) this.send(busy, { type: 'stop-soon' });
  }

  private send(worker: Worker, message: ToWorker): void {
    // A process that died says so through its exit; a message that is lost with it needs no word of its own.
    worker.process.send(message, () => undefined);
  }

  private spawn(): Worker {
    const child = codecProcess('worker', this.behind);
    const worker: Worker = { process: child, ready: false, patient: false, task: null, watch: null };
    child.on('message', (message: FromWorker) => this.hear(worker, message));
    child.on('error', () => undefined);
    child.on('exit', () => this.ended(worker));
    return worker;
  }

  /** Puts a fresh process in the place of one that ended. */
  private replace(worker: Worker): void {
    const index = this.workers.indexOf(worker);
    if (index < 0 || this.closed) return;
    worker.process.kill('SIGKILL');
    // A process that never came up is started again after a pause that grows, not in a circle.
    this.stillborn = worker.ready ? 0 : this.stillborn + 1;
    worker.ready = false;
    const pause = this.stillborn === 0 ? 0 : Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** this.stillborn);
    if (pause === 0) this.workers[index] = this.spawn();
    else
      setTimeout(() => {
        if (!this.closed && this.workers[index] === worker) this.workers[index] = this.spawn();
      }, pause).unref();
  }

  private ended(worker: Worker): void {
    const { task } = worker;
    worker.task = null;
    worker.watch = null;
    this.replace(worker);
    if (!task || this.closed) return;
    const broke = (task.broke.get(task.step) ?? 0) + 1;
    task.broke.set(task.step, broke);
    if (task.patient) task.reject(new RenderError('It made the program that reads pictures end.', task.step));
    else if (broke < TRIES) {
      this.waiting.unshift(task);
      this.pump();
    } else this.giveUp(task, 'It made the program that reads pictures end, twice.');
  }

  /** Sets apart what a job could not do. */
  private giveUp(task: Task, sentence: string): void {
    if (task.job.kind === 'inspect')
      task.reject(
        new RefusedError('too-heavy', `${sentence} Export it simpler or smaller and add it again.`),
      );
    else task.reject(new RenderError(sentence, task.step === '' ? null : task.step));
  }

  private watch(): void {
    for (const worker of this.workers) {
      const excess = worker.task && worker.watch?.excess();
      if (!worker.task || !excess) continue;
      const { task } = worker;
      worker.task = null;
      worker.watch = null;
      this.replace(worker);
      this.giveUp(task, `${excess}.`);
      this.pump();
    }
  }

  private hear(worker: Worker, message: FromWorker): void {
    const task = worker.task;
    switch (message.type) {
      case 'ready':
        worker.ready = true;
        this.stillborn = 0;
        break;
      case 'drawing':
        worker.watch?.atMost(DRAWING_SECONDS);
        return;
      case 'making':
        if (task) {
          task.step = message.key;
          task.begun = performance.now();
        }
        worker.watch?.step();
        // What was dropped while another output was made.
        if (task?.done.has(message.key)) this.again(worker, task);
        return;
      case 'made':
        task?.done.add(message.variant.key);
        task?.made(message.variant);
        return;
      case 'inspected':
        task?.resolve(message.result);
        break;
      case 'views':
        task?.resolve(message.views);
        break;
      case 'looked':
        task?.resolve({ ...message.seen, file: Buffer.from(message.seen.file) });
        break;
      case 'points':
        task?.resolve(message.points);
        break;
      case 'finished':
        task?.resolve(null);
        break;
      case 'refused':
        task?.reject(new RefusedError(message.code, message.sentence));
        break;
      case 'failed':
        task?.reject(new RenderError(message.sentence, message.key));
        break;
    }
    worker.task = null;
    worker.watch = null;
    this.pump();
  }

  private pump(): void {
    if (this.closed) return;
    for (const worker of [...this.workers]) {
      if (!worker.ready || worker.task || (worker.patient && this.isUrgent)) continue;
      const task = this.nextTask();
      if (!task) {
        queueMicrotask(() => this.onIdle());
        break;
      }
      this.begin(worker, task);
    }
    this.makeRoom();
  }

  private get isUrgent(): boolean {
    return this.waiting.some((task) => !task.patient);
  }

  /** Looking goes before making, and what there is time for comes last. */
  private nextTask(): Task | undefined {
    const rank = ({ job, patient }: Task) => (patient ? 2 : job.kind === 'render' ? 1 : 0);
    const best = this.waiting.reduce<Task | undefined>(
      (first, task) => (!first || rank(task) < rank(first) ? task : first),
      undefined,
    );
    if (best) this.waiting.splice(this.waiting.indexOf(best), 1);
    return best;
  }

  /** Work that is not patient waits for nothing patient: that is given up, and fresh processes are started. */
  private makeRoom(): void {
    const urgent = this.waiting.filter((task) => !task.patient).length;
    if (urgent === 0) return;
    const coming = this.workers.filter((w) => !w.ready).length;
    const patient = this.workers.filter((w) => w.ready && w.patient);
    // Those that do nothing first.
    patient.sort((a, b) => Number(a.task !== null) - Number(b.task !== null));
    for (const worker of patient.slice(0, Math.max(0, urgent - coming))) {
      if (worker.task) this.interrupt(worker, worker.task);
      else this.replace(worker);
    }
  }

  private begin(worker: Worker, task: Task): void {
    const { pid } = worker.process;
    worker.task = task;
    worker.watch = pid === undefined ? null : new JobWatch(pid, this.limits);
    if (task.patient && !worker.patient && pid !== undefined) {
      worker.patient = true;
      lower(pid, LOWEST);
    }
    task.step = '';
    task.begun = performance.now();
    this.send(worker, { type: 'job', job: leftOf(task) });
  }
}
