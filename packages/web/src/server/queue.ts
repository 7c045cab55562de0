// Edits on their way to the server: one after the other for each set, sent again while the server is away, kept over a
// reload, and never dropped: what the server refuses is told, what another window was in the way of waits for a choice.
import type { Mutation, MutationCache, QueryClient } from '@tanstack/react-query';
import type { EditAnswer } from '@dusky-otter/core/contract';
import type { SentEdit } from '@dusky-otter/core/edits';
import { ApiError, sentenceOf } from '../api/client.ts';

/** An edit with the set it was made in. */
export interface QueuedEdit extends SentEdit {
  setId: number;
  /** Newest edit that there was when its window opened the set. */
  since: number;
}

/** Where edits are kept that no answer has come for: the browser's storage. */
export interface Keeping {
  getItem: (key: string) => string | null;
  setItem: (key: string, value: string) => void;
  removeItem: (key: string) => void;
  /** Every key there is. */
  keys: () => string[];
}

export interface QueueParts {
  client: QueryClient;
  /** This window. */
  window: string;
  send: (edit: QueuedEdit) => Promise<EditAnswer>;
  keeping: Keeping;
  /** Whether a window is open at the moment. */
  isOpen: (window: string) => Promise<boolean>;
  answered: (edit: QueuedEdit, answer: EditAnswer) => void;
  /** The server says that the edit can't be: it will not be sent again. */
  refused: (edit: QueuedEdit, error: ApiError) => void;
  /** Another window changed the same: the edit waits until `settle`. */
  met: (edit: QueuedEdit, error: ApiError) => void;
  /** Which edits are pending, in their order; why nothing can be saved at the moment, or null. */
  changed: (pending: readonly QueuedEdit[], trouble: string | null) => void;
  /** How long to wait before an edit is sent again, in ms, by how often that was done. */
  pause?: (times: number) => number;
}

const PREFIX = 'dusky-otter/edits/';
const KIND = ['edit'];

/** The server, or its database, is not there at the moment: what is to be saved waits. */
export const isAway = (error: unknown): boolean =>
  error instanceof ApiError && (error.problem.status === 0 || error.problem.status >= 502);

/** The server stumbled: the same edit may come through the next time, but must not hold up the others for ever. */
const stumbled = (error: unknown): boolean => error instanceof ApiError && error.problem.status >= 500;
const MOST_STUMBLES = 4;
/** How long an edit stays in the browser's memory once it has its answer, in ms. */
const KEPT_MS = 1_000;

const pauseOf = (times: number): number => Math.min(8000, 500 * 2 ** times);

type EditMutation = Mutation<EditAnswer, Error, QueuedEdit>;

export class EditQueue {
  /** Edits that another window was in the way of: kept like those that are pending. */
  private readonly waiting = new Map<string, QueuedEdit>();
  private trouble: string | null = null;
  private readonly stop: () => void;
  private closed = false;

  constructor(private readonly parts: QueueParts) {
    this.stop = this.cache.subscribe(() => this.note());
  }

  private get cache(): MutationCache {
    return this.parts.client.getMutationCache();
  }

  /** Nothing is sent or told any more; what had no answer stays kept, and is sent after the next start. */
  close(): void {
    this.closed = true;
    this.stop();
    for (const mutation of this.cache.findAll({ mutationKey: KIND })) mutation.destroy();
  }

  private get mutations(): EditMutation[] {
    return this.cache
      .findAll({ mutationKey: KIND, status: 'pending' })
      .map((mutation) => mutation as unknown as EditMutation);
  }

  /** Edits that no answer has come for, in the order in which they were made. */
  get pending(): QueuedEdit[] {
    return this.mutations.flatMap(({ state }) => (state.variables ? [state.variables] : []));
  }

  /** Makes an edit: it is shown and kept at once, and sent when those before it have been answered. */
  add(edit: QueuedEdit): Promise<void> {
    const { send, answered, pause = pauseOf } = this.parts;
    const mutation = this.cache.build<EditAnswer, Error, QueuedEdit, unknown>(this.parts.client, {
      mutationKey: KIND,
      // Edits of one set follow each other; a refused one lets the next go on.
      scope: { id: `set-${edit.setId}` },
      // What it came back with is in place before it counts as done: the state before it would be drawn in between.
      mutationFn: async (sent) => {
        const come = await send(sent);
        answered(sent, come);
        return come;
      },
      // The server is on this machine: whether there is a network says nothing.
      networkMode: 'always',
      retry: (times, error) => !this.closed && (isAway(error) || (stumbled(error) && times < MOST_STUMBLES)),
      retryDelay: (times, error) => {
        this.said(error);
        return pause(times);
      },
      // While an edit waits it is looked at again each time this is over: not all the time.
      gcTime: KEPT_MS,
    });
    const answer = mutation.execute(edit);
    // At once, and not when listeners are told: the page may be about to go.
    this.note();
    return answer.then(
      () => this.said(null),
      (error: unknown) => this.failed(edit, error),
    );
  }

  private failed(edit: QueuedEdit, error: unknown): void {
    if (this.closed) return;
    const problem = error instanceof ApiError ? error : new ApiError(internal(error));
    if (problem.problem.code === 'stale') {
      this.waiting.set(edit.token, edit);
      this.parts.met(edit, problem);
    } else {
      this.parts.refused(edit, problem);
    }
    this.said(null);
  }

  /** An editor has chosen what becomes of an edit that another window was in the way of. */
  settle(tokens: readonly string[]): void {
    for (const token of tokens) this.waiting.delete(token);
    this.note();
  }

  /** Resolves once every edit of a set made so far has been answered. */
  async allSaved(setId: number): Promise<void> {
    const own = () => this.mutations.some(({ state }) => state.variables?.setId === setId);
    while (own()) {
      await new Promise<void>((done) => {
        const stop = this.cache.subscribe(() => {
          if (own()) return;
          stop();
          done();
        });
      });
    }
  }

  /** After a reload: what this window, or one that is gone, had not saved is sent now. */
  async takeUp(): Promise<void> {
    for (const key of this.parts.keeping.keys().filter((name) => name.startsWith(PREFIX))) {
      const window = key.slice(PREFIX.length);
      if (window !== this.parts.window && (await this.parts.isOpen(window))) continue;
      const kept = this.read(key);
      if (window !== this.parts.window) this.parts.keeping.removeItem(key);
      const known = new Set(this.pending.map(({ token }) => token));
      for (const edit of kept) if (!known.has(edit.token)) void this.add(edit);
    }
  }

  private read(key: string): QueuedEdit[] {
    try {
      const kept: unknown = JSON.parse(this.parts.keeping.getItem(key) ?? '[]');
      if (!Array.isArray(kept)) return [];
      return (kept as (QueuedEdit | null)[]).filter(
        (edit) => edit !== null && Array.isArray(edit.commands),
      ) as QueuedEdit[];
    } catch {
      // Somebody else wrote there.
      return [];
    }
  }

  private said(error: unknown): void {
    const trouble = error instanceof Error ? error.message : null;
    if (trouble === this.trouble) return;
    this.trouble = trouble;
    this.note();
  }

  /** Keeps and tells what is pending. */
  private note(): void {
    const { keeping, window, changed } = this.parts;
    const kept = [...this.waiting.values(), ...this.pending];
    const key = `${PREFIX}${window}`;
    try {
      if (kept.length > 0) keeping.setItem(key, JSON.stringify(kept));
      else keeping.removeItem(key);
    } catch {
      // The browser's storage is full or closed: edits are in memory still, and are being sent.
    }
    changed(this.pending, this.trouble);
  }
}

const internal = (error: unknown): ApiError['problem'] => ({
  type: 'about:blank#internal',
  title: 'Something went wrong here.',
  status: 500,
  detail: sentenceOf(error),
  code: 'internal',
});
