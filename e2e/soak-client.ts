// A window without a screen, for the soak: the real queue, cache and events of the web application, over HTTP.
import { QueryClient } from '@tanstack/react-query';
import type {
  EditAnswer,
  PhotoPage,
  SentPhoto,
  SetEvent,
  SetHeader,
} from '../packages/core/src/contract/index.ts';
import type { Command } from '../packages/core/src/edits/index.ts';
import { ApiError, type Looking } from '../packages/web/src/api/client.ts';
import { keys } from '../packages/web/src/server/keys.ts';
import { Live } from '../packages/web/src/server/live.ts';
import { EditQueue, type QueuedEdit } from '../packages/web/src/server/queue.ts';

async function call<T>(address: string, method: string, path: string, body?: object): Promise<T> {
  const response = await fetch(`${address}${path}`, {
    method,
    ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const answer: unknown = await response.json();
  if (!response.ok) throw new ApiError(answer as ApiError['problem']);
  return answer as T;
}

export class SoakClient {
  readonly client = new QueryClient({
    defaultOptions: { queries: { staleTime: Infinity, gcTime: Infinity } },
  });
  private readonly live: Live;
  private readonly queue: EditQueue;
  private readonly storage = new Map<string, string>();
  private since = 0;
  private lastEvent: string | undefined;
  private line: AbortController | null = null;
  private heard: Promise<unknown> = Promise.resolve();
  readonly counts = { answered: 0, refused: 0, met: 0, undone: 0, blocked: 0, resets: 0 };

  constructor(
    private readonly address: string,
    readonly setId: number,
    readonly name: string,
    /** What becomes of an edit that another window was in the way of: whether it is sent again. */
    private readonly insists: () => boolean,
  ) {
    this.live = new Live(this.client, setId, (ids) => this.read(`ids=${ids.join()}`));
    this.queue = new EditQueue({
      client: this.client,
      window: name,
      send: ({ setId: id, ...edit }) => call<EditAnswer>(address, 'POST', `/api/sets/${id}/edits`, edit),
      keeping: {
        getItem: (key) => this.storage.get(key) ?? null,
        setItem: (key, value) => void this.storage.set(key, value),
        removeItem: (key) => void this.storage.delete(key),
        keys: () => [...this.storage.keys()],
      },
      isOpen: () => Promise.resolve(true),
      answered: (_, answer) => {
        this.counts.answered += 1;
        this.take(answer);
      },
      refused: () => {
        this.counts.refused += 1;
      },
      met: (edit, { problem }) => this.choose(edit, problem.photos ?? []),
      changed: () => undefined,
      pause: () => 20,
    });
  }

  private async read(query: string): Promise<SentPhoto[]> {
    const path = `/api/sets/${this.setId}/photos?${query}`;
    return (await call<PhotoPage>(this.address, 'GET', path)).photos;
  }

  private take(answer: EditAnswer): void {
    this.live.put(answer.photos);
    this.client.setQueryData<SetHeader>(
      keys.set(this.setId),
      (before) =>
        before && { ...before, set: answer.set.version >= before.set.version ? answer.set : before.set },
    );
  }

  private choose(edit: QueuedEdit, photos: SentPhoto[]): void {
    this.counts.met += 1;
    this.live.put(photos);
    this.queue.settle([edit.token]);
    if (this.insists()) void this.edit(edit.label, edit.commands);
  }

  /** Reads everything, as a window does that opens the set. */
  async open(): Promise<void> {
    const header = await call<SetHeader>(this.address, 'GET', `/api/sets/${this.setId}`);
    this.since = header.newestEdit;
    this.client.setQueryData(keys.set(this.setId), header);
    await this.readAll();
    await this.listen();
  }

  async readAll(): Promise<void> {
    for (const filter of ['all', 'bin'])
      for (let from = 0; ; from += 200) {
        const photos = await this.read(`filter=${filter}&from=${from}&count=200`);
        this.live.put(photos);
        if (photos.length < 200) break;
      }
  }

  /** Listens, from where it left off where it had listened before. Resolves when the line is open. */
  async listen(): Promise<void> {
    this.line = new AbortController();
    const response = await fetch(`${this.address}/api/events?sets=${this.setId}`, {
      signal: this.line.signal,
      ...(this.lastEvent !== undefined && { headers: { 'last-event-id': this.lastEvent } }),
    });
    this.heard = this.hearAll(response.body!).catch(() => undefined);
  }

  private async hearAll(body: ReadableStream<Uint8Array>): Promise<void> {
    let text = '';
    const decoder = new TextDecoder();
    for await (const chunk of body) {
      text += decoder.decode(chunk, { stream: true });
      const events = text.split('\n\n');
      text = events.pop()!;
      for (const event of events) this.hear(event);
    }
  }

  private hear(text: string): void {
    const id = /^id: (.*)$/m.exec(text)?.[1];
    if (id !== undefined) this.lastEvent = id;
    const data = /^data: (.*)$/m.exec(text)?.[1];
    if (data === undefined) return;
    const event = JSON.parse(data) as SetEvent;
    // Photos that are new here are read by the table's pages; the soak has no table.
    if (event.type === 'photos' && event.listed) void this.readNew(event.changed.map(([photo]) => photo));
    if (event.type === 'reset') {
      this.counts.resets += 1;
      void this.readAll();
      void this.readHeader();
    } else this.live.hear(event);
  }

  private async readHeader(): Promise<void> {
    const header = await call<SetHeader>(this.address, 'GET', `/api/sets/${this.setId}`);
    this.client.setQueryData(keys.set(this.setId), header);
  }

  private async readNew(ids: readonly number[]): Promise<void> {
    const unknown = ids.filter((id) => !this.photo(id));
    if (unknown.length > 0) this.live.put(await this.read(`ids=${unknown.join()}`));
  }

  /** The line breaks; what comes until it is open again is missed. */
  async breakOff(): Promise<void> {
    this.line?.abort();
    await this.heard;
  }

  photo(id: number): SentPhoto | undefined {
    return this.client.getQueryData<SentPhoto>(keys.photo(this.setId, id));
  }

  get photos(): SentPhoto[] {
    return this.client
      .getQueryCache()
      .findAll({ queryKey: keys.photos(this.setId) })
      .flatMap(({ state }) => (state.data as SentPhoto | undefined) ?? []);
  }

  get header(): SetHeader {
    return this.client.getQueryData<SetHeader>(keys.set(this.setId))!;
  }

  private get looking(): Looking {
    return { window: this.name, since: this.since };
  }

  edit(label: string, commands: Command[]): Promise<void> {
    const photos = commands.flatMap((command) => ('photo' in command ? [command.photo] : []));
    return this.queue.add({
      setId: this.setId,
      label,
      commands,
      seen: {
        photos: Object.fromEntries(photos.map((id) => [id, this.photo(id)!.version])),
        set: this.header.set.version,
        site: this.header.site.version,
      },
      token: crypto.randomUUID(),
      ...this.looking,
    });
  }

  async step(direction: 'undo' | 'redo'): Promise<void> {
    await this.saved();
    try {
      this.take(
        await call<EditAnswer>(this.address, 'POST', `/api/sets/${this.setId}/${direction}`, this.looking),
      );
      this.counts.undone += 1;
    } catch (error) {
      if (!(error instanceof ApiError) || error.problem.status !== 409) throw error;
      this.counts.blocked += 1;
    }
  }

  saved(): Promise<void> {
    return this.queue.allSaved(this.setId);
  }

  async close(): Promise<void> {
    await this.breakOff();
    this.queue.close();
    this.live.close();
    this.client.clear();
  }
}
