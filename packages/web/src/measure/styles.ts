// The stylesheets of a page under other addresses, read by a worker that can be stopped.
import { SiteError } from './site-files.ts';

/** A stylesheet, or what a style attribute says. */
export interface StyleText {
  css: string;
  /** Path of the file that it stands in, or is. */
  at: string;
  /** For which screens it is meant. */
  media: string;
  /** Declarations, and no rules. */
  part: boolean;
}

export type StylesAsked =
  | { kind: 'read'; sheets: [path: string, css: string][]; names: string[]; texts: StyleText[] }
  | { kind: 'write'; known: [path: string, data: string][] };

export type StylesTold =
  { kind: 'wanted'; paths: string[] } | { kind: 'written'; texts: string[]; breakpoints: number[] };

/** What reading the stylesheets of a page may take, ms. */
const LONGEST = 20_000;

export class StyleReader {
  private readonly worker = new Worker(new URL('./styles.worker.ts', import.meta.url), { type: 'module' });

  constructor(private readonly signal: AbortSignal) {}

  close(): void {
    this.worker.terminate();
  }

  /** @throws SiteError where it takes too long; what the signal was aborted with */
  private ask<K extends StylesTold['kind']>(
    asked: StylesAsked,
    kind: K,
  ): Promise<Extract<StylesTold, { kind: K }>> {
    const { worker, signal } = this;
    return new Promise((done, failed) => {
      const end = (act: () => void) => {
        clearTimeout(timer);
        signal.removeEventListener('abort', abort);
        act();
      };
      const abort = () => {
        worker.terminate();
        end(() => failed(signal.reason as Error));
      };
      const tooLong = () => {
        worker.terminate();
        end(() =>
          failed(
            new SiteError('The stylesheets of this page take too long to be read: it can’t be measured.'),
          ),
        );
      };
      const timer = setTimeout(tooLong, LONGEST);
      if (signal.aborted) return abort();
      signal.addEventListener('abort', abort);
      worker.onmessage = ({ data }: MessageEvent<StylesTold | null>) =>
        end(() => {
          if (data?.kind === kind) done(data as Extract<StylesTold, { kind: K }>);
          else failed(new SiteError('The stylesheets of this page can’t be read.'));
        });
      worker.onerror = () => end(() => failed(new SiteError('The stylesheets of this page can’t be read.')));
      worker.postMessage(asked);
    });
  }

  /** Files that the texts name, of those of the site. */
  async wanted(read: Omit<Extract<StylesAsked, { kind: 'read' }>, 'kind'>): Promise<string[]> {
    return (await this.ask({ kind: 'read', ...read }, 'wanted')).paths;
  }

  /** The texts that were read, with what stands for the files that they name. */
  written(known: ReadonlyMap<string, string>): Promise<Extract<StylesTold, { kind: 'written' }>> {
    return this.ask({ kind: 'write', known: [...known] }, 'written');
  }
}
