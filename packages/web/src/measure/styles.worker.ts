// Reads the stylesheets of a page off the main thread: they may be long, and made to take long.
import { breakpointsIn, pathOf, readdressed, wholeSheet, type SheetSource } from '@dusky-otter/core/pages';
import type { StylesAsked, StylesTold, StyleText } from './styles.ts';

/** Data stays what it is; a file of the site becomes what `standing` says; nothing else is loaded. */
function sourceOf(
  sheets: ReadonlyMap<string, string>,
  names: ReadonlySet<string>,
  standing: (path: string) => string,
): SheetSource {
  return {
    sheet: (address, at) => {
      const path = pathOf(address, at);
      const css = path === null ? undefined : sheets.get(path);
      return css === undefined ? null : { path: path!, css };
    },
    file: (address, at) => {
      if (/^data:/i.test(address)) return address;
      const path = pathOf(address, at);
      return path !== null && names.has(path) ? standing(path) : null;
    },
  };
}

const written = ({ css, at, part }: StyleText, source: SheetSource): string =>
  part ? readdressed(css, (address) => source.file(address, at)) : wholeSheet(css, at, source);

let asked: Extract<StylesAsked, { kind: 'read' }> | null = null;

function answer(message: StylesAsked): StylesTold | null {
  if (message.kind === 'read') {
    asked = message;
    const wanted = new Set<string>();
    const source = sourceOf(new Map(asked.sheets), new Set(asked.names), (path) => {
      wanted.add(path);
      return 'data:,';
    });
    for (const text of asked.texts) written(text, source);
    return { kind: 'wanted', paths: [...wanted] };
  }
  if (!asked) return null;
  const known = new Map(message.known);
  const source = sourceOf(new Map(asked.sheets), new Set(asked.names), (path) => known.get(path) ?? 'data:,');
  const texts = asked.texts.map((text) => written(text, source));
  const sheets = asked.texts.map(({ media, part }, n) => (part ? '' : `@media ${media} {}\n${texts[n]!}`));
  return { kind: 'written', texts, breakpoints: breakpointsIn(sheets.join('\n')) };
}

self.onmessage = ({ data }: MessageEvent<StylesAsked>) => self.postMessage(answer(data));
