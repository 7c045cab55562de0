// How much a drawing may ask for: it is text, and a few hundred bytes of it can keep a processor busy for hours.
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { RefusedError } from '../problems.ts';

export const DRAWING_LIMITS = {
  /** Characters of the whole file. */
  characters: 10_000_000,
  elements: 20_000,
  depth: 200,
  /** Characters of all path data. */
  pathData: 2_000_000,
  /** Characters of all words. */
  text: 100_000,
  /** Elements drawn, with everything that is drawn again by reference. */
  drawn: 200_000,
  /** Steps of all filters. */
  filterSteps: 100,
  /** Radius or deviation in a filter, and the octaves of its noise. */
  filterReach: 250,
  octaves: 10,
} as const;

type Limit = keyof typeof DRAWING_LIMITS;

const SAID: Record<Limit, string> = {
  characters: 'characters',
  elements: 'elements',
  depth: 'elements inside each other',
  pathData: 'characters of path data',
  text: 'characters of text',
  drawn: 'elements once everything that is drawn repeatedly is counted',
  filterSteps: 'filter steps',
  filterReach: 'units of filter radius',
  octaves: 'octaves of filter noise',
};

const refuse = (limit: Limit, found: number): never => {
  const [has, may] = [found, DRAWING_LIMITS[limit]].map((n) => n.toLocaleString('en-GB'));
  throw new RefusedError(
    'too-heavy',
    `The drawing has ${has} ${SAID[limit]}; up to ${may} can be drawn. Simplify it, or export it as PNG, and add it again.`,
  );
};

/** What stands under an id: how many elements, and what they refer to. */
interface Part {
  elements: number;
  refers: string[];
}

const REFERENCE = /url\(\s?['"]?#([^'")\s]{1,200})/g;

function referencesIn(attributes: SaxesTagPlain['attributes']): string[] {
  return Object.entries(attributes).flatMap(([name, value]) => {
    if (/(?:^|:)href$/i.test(name)) return value.startsWith('#') ? [value.slice(1)] : [];
    return [...value.matchAll(REFERENCE)].map((match) => match[1]!);
  });
}

/** Elements that are drawn for a part with everything it refers to; circles are drawn by nobody and count once. */
function drawnOf(parts: ReadonlyMap<string, Part>, root: Part): number {
  const known = new Map<Part, number>();
  const count = (part: Part): number => {
    const before = known.get(part);
    if (before !== undefined) return before;
    known.set(part, 0);
    let sum = part.elements;
    for (const id of part.refers) {
      const target = parts.get(id);
      if (target) sum += count(target);
    }
    known.set(part, sum);
    return sum;
  };
  return count(root);
}

/** Numbers of a filter's attributes that stand for its reach. */
const REACH = ['radius', 'stdDeviation', 'order', 'scale'];

/**
 * Reads through a drawing and adds up what it asks for.
 * @returns whether it is well-formed; entities that its document type defines are none of this reader's business
 * @throws RefusedError too-heavy, with what there is too much of
 */
export function checkDrawing(source: string): boolean {
  if (source.length > DRAWING_LIMITS.characters) refuse('characters', source.length);
  const counts: Record<'elements' | 'pathData' | 'text' | 'filterSteps', number> = {
    elements: 0,
    pathData: 0,
    text: 0,
    filterSteps: 0,
  };
  const add = (limit: keyof typeof counts, more: number) => {
    counts[limit] += more;
    if (counts[limit] > DRAWING_LIMITS[limit]) refuse(limit, counts[limit]);
  };
  const root: Part = { elements: 0, refers: [] };
  const parts = new Map<string, Part>();
  /** The parts that the open elements belong to, and those elements' own where they have an id. */
  const open: (Part | null)[] = [];
  const parser = new SaxesParser({ xmlns: false });
  let wellFormed = true;
  // What is malformed is read on: its size counts all the same.
  parser.on('error', ({ message }) => {
    if (!message.includes('undefined entity')) wellFormed = false;
  });
  parser.on('opentag', ({ name, attributes }) => {
    add('elements', 1);
    if (open.length >= DRAWING_LIMITS.depth) refuse('depth', open.length + 1);
    add('pathData', (attributes.d ?? '').length + (attributes.points ?? '').length);
    if (/^fe[A-Z]/.test(name)) {
      add('filterSteps', 1);
      const numbers = REACH.flatMap((key) => (attributes[key] ?? '').split(/[\s,]+/).map(Number));
      const reach = Math.max(0, ...numbers.filter(Number.isFinite));
      if (reach > DRAWING_LIMITS.filterReach) refuse('filterReach', reach);
      const octaves = Number(attributes.numOctaves ?? 0);
      if (octaves > DRAWING_LIMITS.octaves) refuse('octaves', octaves);
    }
    const own: Part | null = attributes.id ? { elements: 0, refers: [] } : null;
    if (own && attributes.id) parts.set(attributes.id, own);
    open.push(own);
    const refers = referencesIn(attributes);
    for (const part of [root, ...open]) {
      if (!part) continue;
      part.elements += 1;
      for (const id of refers) part.refers.push(id);
    }
  });
  parser.on('closetag', () => open.pop());
  parser.on('text', (text) => add('text', text.trim().length));
  parser.write(source).close();
  const drawn = drawnOf(parts, root);
  if (drawn > DRAWING_LIMITS.drawn) refuse('drawn', drawn);
  return wellFormed;
}
