// What a preview's page and pictures are computed from, kept as long as nothing of it changes: a page asks for dozens of files.
import type { PlanContext } from '@dusky-otter/core/contract';
import { textFiles, variantPaths, type OutgoingFile } from './handover.ts';
import type { HandoverParts } from './parts.ts';

/** Previews that are kept; more are rarely looked at side by side. */
const KEPT = 4;
/** Files of earlier states that are still known by their paths: a page that is being loaded names them. */
const KEPT_FILES = 2_000;

interface Earlier {
  file: OutgoingFile;
  context: PlanContext;
}

export class Previews {
  private readonly kept = new Map<string, { at: number; parts: Promise<HandoverParts> }>();
  private readonly texts = new WeakMap<HandoverParts, Record<string, string>>();
  private readonly files = new WeakMap<HandoverParts, Map<string, OutgoingFile>>();
  /** Files that a page named which is another one now, by set and path, with what they were written by. */
  private readonly earlier = new Map<string, Earlier>();

  /** @param changes a number that is another one after every change */
  constructor(private readonly changes: () => number) {}

  of(setId: string, find: () => Promise<HandoverParts>): Promise<HandoverParts> {
    const at = this.changes();
    const before = this.kept.get(setId);
    if (before?.at === at) return before.parts;
    const parts = find();
    if (before) this.remember(setId, before.parts, parts);
    this.kept.delete(setId);
    this.kept.set(setId, { at, parts });
    // What could not be found is looked for anew the next time.
    parts.catch(() => this.kept.delete(setId));
    for (const oldest of [...this.kept.keys()].slice(0, -KEPT)) this.kept.delete(oldest);
    return parts;
  }

  /** While somebody edits, a page that began to load before goes on asking for the files that it names. */
  private remember(setId: string, before: Promise<HandoverParts>, now: Promise<HandoverParts>): void {
    Promise.all([before, now])
      .then(([old, fresh]) => {
        const [files, later] = [this.filesOf(old), this.filesOf(fresh)];
        for (const [path, file] of files)
          if (!later.has(path)) this.earlier.set(`${setId}/${path}`, { file, context: old.context });
        for (const oldest of [...this.earlier.keys()].slice(0, -KEPT_FILES)) this.earlier.delete(oldest);
      })
      // One of the two could not be read: whoever asked for it was told.
      .catch(() => undefined);
  }

  /** The file at a path of a set's preview, as it is now or was a moment ago. */
  fileAt(setId: string, path: string, parts: HandoverParts): Earlier | undefined {
    const file = this.filesOf(parts).get(path);
    return file ? { file, context: parts.context } : this.earlier.get(`${setId}/${path}`);
  }

  textsOf(parts: HandoverParts): Record<string, string> {
    const texts = this.texts.get(parts) ?? textFiles(parts);
    this.texts.set(parts, texts);
    return texts;
  }

  /** Names hang on the words inside the files: all of them are found once, not for each picture that a page asks for. */
  filesOf(parts: HandoverParts): Map<string, OutgoingFile> {
    const files = this.files.get(parts) ?? variantPaths(parts);
    this.files.set(parts, files);
    return files;
  }
}
