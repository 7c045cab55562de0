// Looks for words in originals, each once: while no file is to be made or looked at, in a process of its own.
import type { ChildProcess } from 'node:child_process';
import type { OriginalFacts, ShownLine } from '@dusky-otter/core/contract';
import { JobWatch, type JobLimits } from '../codec/limits.ts';
import { codecProcess, LOWEST } from '../codec/process.ts';
import type { FromReader, ReadJob } from '../codec/reader-process.ts';
import { nextUnread, unread, writeShown } from '../store/originals.ts';
import { photosOfOriginal } from '../store/photos.ts';
import type { Report } from '../report.ts';
import type { Vault } from '../vault/vault.ts';

/** How often it is looked whether there is time for what is to be read, in ms. */
const LOOK_EVERY = 1_500;
const WATCH_EVERY = 200;
/** How long the process waits for another picture, in ms: it holds the data of two languages. */
const PATIENCE = 60_000;

export interface ReaderParts {
  vault: Vault;
  /** More is known of photos than before. */
  known: (photoIds: readonly number[]) => Promise<void>;
  limits: JobLimits;
  report: Report;
  /** True while nothing goes before it. */
  hasTime: () => boolean;
}

export class TextReader {
  private child: ChildProcess | null = null;
  private timer: NodeJS.Timeout | null = null;
  private leaving: NodeJS.Timeout | null = null;
  private reading = false;
  /** False once everything is read, until another original comes. */
  private mayHave = true;
  private closed = false;
  /** Originals that somebody waits for: read before all others, whatever else is to be done. */
  private readonly asked = new Set<string>();

  constructor(private readonly parts: ReaderParts) {}

  /** Begins to look whether there is something to read. */
  start(): void {
    this.timer = setInterval(() => void this.look(), LOOK_EVERY);
    this.timer.unref();
  }

  /** An original has come that nobody has read. */
  wake(): void {
    this.mayHave = true;
  }

  /** Reads one original as soon as the one in hand is read. */
  readNow(hash: string): void {
    this.asked.add(hash);
    void this.look();
  }

  close(): void {
    this.closed = true;
    if (this.timer) clearInterval(this.timer);
    this.end();
  }

  private isClosed(): boolean {
    return this.closed;
  }

  private end(): void {
    if (this.leaving) clearTimeout(this.leaving);
    this.leaving = null;
    this.child?.kill('SIGKILL');
    this.child = null;
  }

  private async look(): Promise<void> {
    const isFree = this.asked.size > 0 || (this.mayHave && this.parts.hasTime());
    if (this.reading || this.closed || !isFree) return;
    this.reading = true;
    const [asked] = this.asked;
    let failed = false;
    // What comes while it is looked is looked for again.
    this.mayHave = false;
    try {
      const original = asked === undefined ? await nextUnread() : await unread(asked);
      if (asked !== undefined) this.asked.delete(asked);
      if (!original) return;
      this.mayHave = true;
      await this.readOne(original, asked !== undefined);
    } catch (error) {
      failed = true;
      this.mayHave = true;
      if (!this.isClosed()) this.parts.report('Words in a picture could not be looked for.', error);
    } finally {
      this.reading = false;
    }
    // What was asked for meanwhile waits for no clock; a store that fails is asked again by the clock alone.
    if (this.asked.size > 0 && !failed) void this.look();
  }

  /** @param tells also that nothing was found: somebody waits to hear it */
  private async readOne(
    { hash, facts }: { hash: string; facts: OriginalFacts },
    tells: boolean,
  ): Promise<void> {
    const found = await this.ask({ path: this.parts.vault.original(hash), facts });
    if (this.isClosed()) return;
    // What can't be read is not tried again and again: it shows no words that anybody knows of.
    if ('failed' in found)
      this.parts.report(`No words could be looked for in ${hash}: ${found.failed}`, null);
    const lines: ShownLine[] = 'lines' in found ? found.lines : [];
    await writeShown(hash, lines);
    if (lines.length === 0 && !tells) return;
    await this.parts.known(await photosOfOriginal(hash));
  }

  /** Asks the process about a picture, within the limits of every job. */
  private ask(job: ReadJob): Promise<FromReader> {
    if (this.leaving) clearTimeout(this.leaving);
    const child = (this.child ??= codecProcess('reader-process', LOWEST));
    const watch = child.pid === undefined ? null : new JobWatch(child.pid, this.parts.limits);
    return new Promise((done) => {
      const watching = setInterval(() => {
        const excess = watch?.excess();
        if (excess) settle({ failed: `${excess}.` }, true);
      }, WATCH_EVERY);
      const settle = (answer: FromReader, over = false) => {
        clearInterval(watching);
        child.off('message', hear);
        child.off('exit', gone);
        if (over) this.end();
        else {
          this.leaving = setTimeout(() => this.end(), PATIENCE);
          this.leaving.unref();
        }
        done(answer);
      };
      const hear = (answer: FromReader) => settle(answer);
      const gone = () => settle({ failed: 'The process that reads ended.' }, true);
      child.on('message', hear);
      child.once('exit', gone);
      child.send(job, () => undefined);
    });
  }
}
