// Words from a table (CSV): what each line says of which photo, and what that would change. A plan may name files that
// are not there yet.
import type { Role, SlotId, SpokenWords, Words, WordsText } from '../contract/index.ts';
import { csvLines, type CsvLine } from '../csv/csv.ts';
import { linkProblem } from '../html/link.ts';
import { NO_WORDS } from './no-words.ts';
import { LONGEST_TEXT } from './text/text.ts';
import { isSpoken, type SPOKEN } from './translated.ts';

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
  /** What is said in single places, by their names; none where the line says nothing of it. */
  here?: readonly WordsHere[];
  /** Why the line can't be taken, as a sentence; null where it can. */
  problem: string | null;
}

/** Words that hold in one place alone. */
export interface WordsHere {
  place: string;
  words: SpokenWords;
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
/** Places that one line may name. */
const MOST_PLACES = 50;
/** Heads that nobody knows, as many and as long as anybody reads. */
const UNKNOWN_SHOWN = 50;
const LONGEST_HEAD = 100;
/** Columns of words in single places. */
const MOST_IN_PLACES = 200;
/** Lines that are read before others get their turn. */
const LINES_A_TURN = 500;

type Column = WordsText | 'file' | 'hash' | 'role' | 'newWindow' | 'place' | 'set-aside';

/** Heads as people write them, in small letters without marks. `set-aside`: written for people, not read. */
const COLUMNS = new Map<string, Column>(
  Object.entries({
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
  } satisfies Record<string, Column>),
);

const ROLES = new Map<string, Role>(
  Object.entries({
    ...{ informative: 'informative', informs: 'informative' },
    ...{ decorative: 'decorative', decorates: 'decorative' },
    ...{ functional: 'functional', links: 'functional', link: 'functional' },
    ...{ text: 'text', 'shows text': 'text' },
    ...{ complex: 'complex', 'is complex': 'complex' },
  } satisfies Record<string, Role>),
);

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

/** A column of words that hold in one place alone. */
interface PlaceColumn {
  field: (typeof SPOKEN)[number];
  place: string;
  at: number;
}

/** "alt text in Text column": what is said in one place alone. */
function placeColumn(head: string, at: number): PlaceColumn | null {
  const words = head.trim().split(/\s+/);
  const between = words.findIndex((word, n) => n > 0 && word.toLowerCase() === 'in');
  if (between < 0) return null;
  const column = COLUMNS.get(plainHead(words.slice(0, between).join(' ')));
  const place = words.slice(between + 1).join(' ');
  return column && isSpoken(column) && place ? { field: column, place, at } : null;
}

/** What a line says in single places. */
function hereIn({ cells }: CsvLine, columns: readonly PlaceColumn[]): WordsHere[] {
  const here = new Map<string, SpokenWords>();
  for (const { field, place, at } of columns) {
    const text = (cells[at] ?? '').trim();
    const said = here.get(place) ?? {};
    if (text !== '' && said[field] === undefined) here.set(place, { ...said, [field]: text });
  }
  return [...here].map(([place, words]) => ({ place, words }));
}

/** @param columns where the columns that are known stand; of two of one kind the first that says something counts */
function plannedIn(
  csvLine: CsvLine,
  columns: readonly (readonly [Column, number])[],
  inPlaces: readonly PlaceColumn[],
): PlannedWords {
  const { cells, line } = csvLine;
  const here = hereIn(csvLine, inPlaces);
  const said = new Map<Column, string>();
  for (const [column, at] of columns) {
    const text = (cells[at] ?? '').trim();
    if (text !== '' && !said.has(column)) said.set(column, text);
  }
  const role = said.get('role') ?? '';
  const words: Partial<Words> = {};
  const known = ROLES.get(role.toLowerCase());
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
  const problem =
    places && places.length > MOST_PLACES
      ? `The line names ${places.length} places; ${MOST_PLACES} can be read.`
      : (problemOf(words, role) ??
        here.map((one) => problemOf(one.words, '')).find((wrong) => wrong !== null) ??
        null);
  return {
    ...{ line, fileName, hash, words, places },
    ...(here.length > 0 && { here }),
    problem: named ? problem : 'The line names no file.',
  };
}

const none = (problem: string): WordsFile => ({ lines: [], unknown: [], problem });

/** What the first line says: where the columns that are known stand, and the heads that nobody knows. */
function columnsIn({ cells }: CsvLine) {
  const known: [Column, number][] = [];
  const inPlaces: PlaceColumn[] = [];
  const unknown: string[] = [];
  cells.forEach((cell, at) => {
    const head = cell.slice(0, LONGEST_HEAD);
    const column = COLUMNS.get(plainHead(head));
    const ofPlace = placeColumn(cell.slice(0, 2 * LONGEST_HEAD), at);
    if (column) known.push([column, at]);
    else if (ofPlace && inPlaces.length < MOST_IN_PLACES) inPlaces.push(ofPlace);
    else if (cell.trim() !== '' && unknown.length < UNKNOWN_SHOWN) unknown.push(head);
  });
  return { known, inPlaces, unknown };
}

/** `readWordsFile` in pieces: it pauses after every few hundred lines, so that others get their turn. */
export function* wordsFileInTurns(text: string): Generator<void, WordsFile, void> {
  if (text.includes('\u0000')) return none('This is no table: save it as CSV in UTF-8.');
  try {
    const lines = csvLines(text);
    const first = lines.next();
    if (first.done) return none('The file is empty.');
    const { known, inPlaces, unknown } = columnsIn(first.value);
    if (!known.some(([column]) => column === 'file' || column === 'hash'))
      return none(
        'No column names the files. The first line must hold “file”, and what is said of each: “alt text”, “role”, “caption” and so on.',
      );
    const planned: PlannedWords[] = [];
    for (const line of lines) {
      if (planned.length === MOST_LINES)
        return none(
          `The table has more than ${MOST_LINES} lines: divide it, and read one part after the other.`,
        );
      planned.push(plannedIn(line, known, inPlaces));
      if (planned.length % LINES_A_TURN === 0) yield;
    }
    return { lines: planned, unknown, problem: null };
  } catch (error) {
    if (error instanceof RangeError) return none(`${error.message} This is no table of words.`);
    throw error;
  }
}

/** Reads a table of words: its first line names the columns, in any order. */
export function readWordsFile(text: string): WordsFile {
  const turns = wordsFileInTurns(text);
  for (;;) {
    const turn = turns.next();
    if (turn.done) return turn.value;
  }
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
