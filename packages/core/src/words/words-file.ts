// Words from a table (CSV): what each line says of which photo, and what that would change. A plan may name files that
// are not there yet.
import type { Role, SlotId, Words, WordsText } from '../contract/index.ts';
import { readCsv } from '../csv/csv.ts';
import { linkProblem } from '../markup/link.ts';
import { NO_WORDS } from './no-words.ts';
import { LONGEST_TEXT } from './text.ts';

/** What a line says; what it leaves empty is not in it. */
export interface PlannedWords {
  /** Of the file, counted from 1, the head included. */
  line: number;
  fileName: string;
  /** SHA-256 of the original, in small letters; "" where the line names none. */
  hash: string;
  words: Partial<Words>;
  /** Names or short names of the places where it goes; null where the line says nothing of it. */
  places: string[] | null;
  /** Why the line can't be taken, as a sentence; null where it can. */
  problem: string | null;
}

export interface WordsFile {
  lines: PlannedWords[];
  /** Heads of columns that nobody knows; they are left out. */
  unknown: string[];
  /** Why nothing of the file can be read; null where something can. */
  problem: string | null;
}

/** Lines of a table; more are no plan for pages. */
export const MOST_LINES = 20_000;

type Column = WordsText | 'file' | 'hash' | 'role' | 'newWindow' | 'place' | 'set-aside';

/** Heads as people write them, in small letters without marks. `set-aside`: written for people, not read. */
const COLUMNS: Record<string, Column> = {
  ...{
    file: 'file',
    'file name': 'file',
    filename: 'file',
    name: 'file',
    photo: 'file',
    datei: 'file',
    dateiname: 'file',
  },
  ...{ sha256: 'hash', hash: 'hash', 'sha 256': 'hash' },
  ...{ role: 'role', rolle: 'role' },
  ...{ alt: 'alt', 'alt text': 'alt', alttext: 'alt', alternativtext: 'alt' },
  ...{ caption: 'caption', bildunterschrift: 'caption' },
  ...{ title: 'title', titel: 'title' },
  ...{ credit: 'credit', fotograf: 'credit', bildnachweis: 'credit' },
  ...{
    'long description': 'longDescription',
    description: 'longDescription',
    beschreibung: 'longDescription',
  },
  ...{ link: 'link', url: 'link', target: 'link', 'leads to': 'link' },
  ...{ 'new window': 'newWindow' },
  ...{ place: 'place', places: 'place', slot: 'place' },
  ...{ set: 'set-aside', site: 'set-aside' },
};

const ROLES: Record<string, Role> = {
  ...{ informative: 'informative', informs: 'informative' },
  ...{ decorative: 'decorative', decorates: 'decorative' },
  ...{ functional: 'functional', links: 'functional', link: 'functional' },
  ...{ text: 'text', 'shows text': 'text' },
  ...{ complex: 'complex', 'is complex': 'complex' },
};

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'ja']);

const plainHead = (head: string): string =>
  head
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Of two slashes the last part: plans name files with their folders. */
const baseName = (path: string): string => path.split(/[\\/]/).at(-1)!.trim();

function problemOf(words: Partial<Words>, role: string): string | null {
  if (role !== '' && words.role === undefined) return `“${role.slice(0, 40)}” is no role.`;
  const long = Object.values(words).some((text) => typeof text === 'string' && text.length > LONGEST_TEXT);
  if (long) return `A text is longer than ${LONGEST_TEXT} characters.`;
  return words.link === undefined ? null : linkProblem(words.link);
}

function plannedIn(
  cells: readonly string[],
  columns: readonly (Column | null)[],
  line: number,
): PlannedWords {
  const said = new Map<Column, string>();
  columns.forEach((column, at) => {
    const text = (cells[at] ?? '').trim();
    if (column !== null && text !== '' && !said.has(column)) said.set(column, text);
  });
  const role = said.get('role') ?? '';
  const words: Partial<Words> = {};
  const known = ROLES[role.toLowerCase()];
  if (known) words.role = known;
  for (const column of ['alt', 'caption', 'title', 'credit', 'longDescription', 'link'] as const) {
    const text = said.get(column);
    if (text !== undefined) words[column] = text;
  }
  if (said.has('newWindow')) words.newWindow = YES.has(said.get('newWindow')!.toLowerCase());
  const fileName = baseName(said.get('file') ?? '');
  const hash = (said.get('hash') ?? '').toLowerCase();
  const places =
    said
      .get('place')
      ?.split(/[;|]/)
      .map((name) => name.trim())
      .filter(Boolean) ?? null;
  const named = fileName !== '' || /^[0-9a-f]{64}$/.test(hash);
  return {
    ...{ line, fileName, hash, words, places },
    problem: named ? problemOf(words, role) : 'The line names no file.',
  };
}

/** Reads a table of words: its first line names the columns, in any order. */
export function readWordsFile(text: string): WordsFile {
  const none = (problem: string): WordsFile => ({ lines: [], unknown: [], problem });
  if (text.includes('\u0000')) return none('This is no table: save it as CSV in UTF-8.');
  const [head, ...rest] = readCsv(text);
  if (!head) return none('The file is empty.');
  const columns = head.map((cell) => COLUMNS[plainHead(cell)] ?? null);
  if (!columns.includes('file') && !columns.includes('hash'))
    return none(
      'No column names the files. The first line must hold “file”, and what is said of each: “alt text”, “role”, “caption” and so on.',
    );
  if (rest.length > MOST_LINES)
    return none(`The table has ${rest.length} lines; ${MOST_LINES} can be read at once.`);
  return {
    lines: rest.map((cells, at) => plannedIn(cells, columns, at + 2)),
    unknown: head.filter((cell, at) => columns[at] === null && cell.trim() !== ''),
    problem: null,
  };
}

/** What a plan finds in a set: a photo by its original's hash, or by the name of its file. */
export interface KnownPhoto {
  id: number;
  fileName: string;
  hash: string;
}

export interface MatchedLine {
  planned: PlannedWords;
  /** The photos that the line can mean: one where it is clear. */
  photos: number[];
}

/** A name as it is compared: capitals are no difference between two files of one folder. */
export const comparedName = (fileName: string): string => baseName(fileName).normalize('NFC').toLowerCase();

/** Which photos lines speak of. A hash goes before a name; a name that several photos have is not clear. */
export function matched(lines: readonly PlannedWords[], photos: readonly KnownPhoto[]): MatchedLine[] {
  const byHash = new Map(photos.map(({ hash, id }) => [hash, id]));
  const byName = new Map<string, number[]>();
  for (const { fileName, id } of photos) {
    const name = comparedName(fileName);
    byName.set(name, [...(byName.get(name) ?? []), id]);
  }
  return lines.map((planned) => {
    const own = byHash.get(planned.hash);
    return {
      planned,
      photos: own === undefined ? (byName.get(comparedName(planned.fileName)) ?? []) : [own],
    };
  });
}

/** What a line would change of a photo's words: what is not said yet, and what is said otherwise. */
export function wordsChange(
  now: Words,
  planned: Partial<Words>,
): { added: Partial<Words>; conflicts: Partial<Words> } {
  const added: Record<string, unknown> = {};
  const conflicts: Record<string, unknown> = {};
  for (const [field, text] of Object.entries(planned)) {
    const before = now[field as keyof Words];
    if (before === text) continue;
    if (before === NO_WORDS[field as keyof Words] || (typeof before === 'string' && before.trim() === ''))
      added[field] = text;
    else conflicts[field] = text;
  }
  return { added, conflicts };
}

/** The places that names mean; those that nobody knows. */
export function placesMeant(
  names: readonly string[],
  slots: readonly { id: SlotId; name: string }[],
): { slots: SlotId[]; unknown: string[] } {
  const meant = names.map((name) => {
    const plain = name.toLowerCase();
    return { name, slot: slots.find((one) => one.id === plain || one.name.toLowerCase() === plain) };
  });
  return {
    slots: [...new Set(meant.flatMap(({ slot }) => (slot ? [slot.id] : [])))],
    unknown: meant.filter(({ slot }) => !slot).map(({ name }) => name),
  };
}
