// The sealed frame seen from outside: a page is put in, windows are asked for, sizes come back.
import type { Answered, Asked, Looked } from '@dusky-otter/core/contract';
import type { MeasuredPicture, ObjectFit, PictureSample } from '@dusky-otter/core/pages';
import type { AssembledPage } from './assemble.ts';
import { PICTURES } from './harmless-page.ts';
import { SiteError } from './site-files.ts';

/** Scroll bars would take room from the window that is asked for; React knows the attribute as outdated. */
export const UNSCROLLED: object = { scrolling: 'no' };

/** A page that takes longer for one window is given up; ms. */
const LONGEST_LOOK = 20_000;
/** Pictures that are never larger are marks of counters and spacers; CSS px. */
const LEAST = 8;

type Answer<K extends Answered['kind']> = Extract<Answered, { kind: K }>;

export class SealedFrame {
  private readonly waiting = new Set<(answer: Answered) => boolean>();

  constructor(private readonly element: HTMLIFrameElement) {
    window.addEventListener('message', this.hear);
  }

  private readonly hear = ({ source, data }: MessageEvent<Answered>): void => {
    if (source !== this.element.contentWindow) return;
    for (const take of this.waiting) if (take(data)) this.waiting.delete(take);
  };

  close(): void {
    window.removeEventListener('message', this.hear);
    this.waiting.clear();
  }

  private answer<K extends Answered['kind']>(
    kind: K,
    signal?: AbortSignal,
    isMeant: (answer: Answer<K>) => boolean = () => true,
  ): Promise<Answer<K>> {
    return new Promise((done, failed) => {
      const end = () => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', abort);
        this.waiting.delete(take);
      };
      const take = (answer: Answered): boolean => {
        if (answer.kind !== kind || !isMeant(answer as Answer<K>)) return false;
        end();
        done(answer as Answer<K>);
        return true;
      };
      const abort = () => {
        end();
        failed(new DOMException('Given up.', 'AbortError'));
      };
      const timer = setTimeout(() => {
        end();
        failed(new SiteError('This page takes too long to be laid out: it can’t be measured.'));
      }, LONGEST_LOOK);
      signal?.addEventListener('abort', abort);
      this.waiting.add(take);
    });
  }

  private ask(asked: Asked): void {
    this.element.contentWindow?.postMessage(asked, '*');
  }

  /** Opens an assembled page in the frame. @throws SiteError where it takes too long */
  async open({ html }: AssembledPage, signal?: AbortSignal): Promise<Answer<'ready'>> {
    // Whoever was given up meanwhile must not take the frame from the one that came after.
    signal?.throwIfAborted();
    // An address of its own each time: a frame that was opened before and answers late is told apart.
    const address = `?${crypto.randomUUID()}`;
    const opened = this.answer('open', signal, ({ opening }) => opening === address);
    this.element.src = `/measuring${address}`;
    await opened;
    const ready = this.answer('ready', signal);
    this.ask({ kind: 'page', html, pictures: PICTURES });
    const answer = await ready;
    if (answer.count < 0)
      throw new SiteError('Something in this page would act or load in it: it can’t be measured.');
    return answer;
  }

  /** The page's pictures in a window of this width. */
  async look(width: number, signal?: AbortSignal): Promise<Answer<'seen'>> {
    signal?.throwIfAborted();
    this.element.style.width = `${width}px`;
    const seen = this.answer('seen', signal);
    this.ask({ kind: 'look', window: width });
    return seen;
  }

  /** Draws numbered outlines over the page's pictures; null for none. */
  mark(labels: (string | null)[]): void {
    this.ask({ kind: 'mark', labels });
  }
}

const sampleOf = (viewport: number, { width, height, box, x, y }: Looked): PictureSample => ({
  viewport,
  width,
  height,
  box,
  x,
  y,
});

/** What was seen in all windows, by picture. Pictures that are never shown, or tiny, have no samples. */
export function picturesSeen(
  { pictures }: AssembledPage,
  seen: readonly Answer<'seen'>[],
): MeasuredPicture[] {
  const falling = [...seen].sort((a, b) => b.window - a.window);
  return pictures.map(({ name, drawing }, n) => {
    const looks = falling.flatMap(({ window, pictures: all }) => (all[n] ? [{ window, look: all[n] }] : []));
    const first = looks[0]?.look;
    const [width, height] = first?.natural ?? [0, 0];
    const large = looks.some(({ look }) => look.width >= LEAST && look.height >= LEAST);
    return {
      name,
      drawing,
      missing: width === 0 && !drawing,
      natural: width > 0 && height > 0 ? width / height : null,
      fit: (first?.fit ?? 'fill') as ObjectFit,
      floats: first?.floats ?? false,
      samples: large ? looks.map(({ window, look }) => sampleOf(window, look)).reverse() : [],
    };
  });
}
