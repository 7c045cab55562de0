// What a preview's page and pictures are computed from, kept as long as nothing of it changes: a page asks for dozens of files.
import { textFiles, variantPaths, type OutgoingFile } from './handover.ts';
import type { HandoverParts } from './parts.ts';

/** Previews that are kept; more are rarely looked at side by side. */
const KEPT = 4;

export class Previews {
  private readonly kept = new Map<string, { at: number; parts: Promise<HandoverParts> }>();
  private readonly texts = new WeakMap<HandoverParts, Record<string, string>>();
  private readonly files = new WeakMap<HandoverParts, Map<string, OutgoingFile>>();

  /** @param changes a number that is another one after every change */
  constructor(private readonly changes: () => number) {}

  of(setId: string, find: () => Promise<HandoverParts>): Promise<HandoverParts> {
    const at = this.changes();
    const before = this.kept.get(setId);
    if (before?.at === at) return before.parts;
    const parts = find();
    this.kept.delete(setId);
    this.kept.set(setId, { at, parts });
    // What could not be found is looked for anew the next time.
    parts.catch(() => this.kept.delete(setId));
    for (const oldest of [...this.kept.keys()].slice(0, -KEPT)) this.kept.delete(oldest);
    return parts;
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
