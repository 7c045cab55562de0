// Speaking file names for variants: what it shows, where it goes, how wide, and a content hash.
import slugify from 'slugify';
import type { OutputFormat, Policy, ShapeId, Slot, SlotId, Words } from '../contract/index.ts';
import { EXTENSION } from '../weight/format.ts';

/** With slot, width, hash and ending a name stays under 80 characters, which every file system and archive takes. */
const LONGEST = 48;
/** A name of this length is in the first letters of a text: what a long one says further on is not even read. */
const READ = 20 * LONGEST;
/** A cut between words that leaves less than this says too little: the word is cut instead. */
const LEAST = 8;

function cutAt(slug: string, longest: number): string {
  if (slug.length <= longest) return slug;
  const gap = slug.slice(0, longest + 1).lastIndexOf('-');
  return gap > LEAST ? slug.slice(0, gap) : slug.slice(0, longest);
}

/**
 * Lower-case ASCII words joined by hyphens, at most `longest` characters, cut between words. Letters of other
 * scripts are written in Latin ones where slugify's table knows them; what it doesn't know is left out.
 */
export function slugOf(text: string, longest = LONGEST): string {
  // Marks part words as spaces do ("bowls—fired"), but not an apostrophe ("potter’s") or a sign with a name (&, %).
  const words = text
    .slice(0, READ)
    .normalize('NFKC')
    .replace(/['’]/g, '')
    .replace(/[^\p{L}\p{M}\p{N}&%$€£]+/gu, ' ');
  return cutAt(slugify(words, { lower: true, strict: true }), longest);
}

/** What an editor calls a photo: its title, or the file it came as. */
export const shownName = (words: Pick<Words, 'title'>, fileName: string): string => words.title || fileName;

/** The speaking part: title, else alt text, else file name; "photo" when nothing of it can be written. */
export function speakingSlug(words: Pick<Words, 'title' | 'alt'>, fileName: string): string {
  const sources = [words.title, words.alt, fileName.replace(/\.[^.]+$/, '')];
  return sources.map((text) => slugOf(text)).find((slug) => slug !== '') ?? 'photo';
}

/** "bowl", "bowl-2", "bowl-3": the names that a photo may get, one after the other. */
const numbered = (slug: string, n: number): string =>
  n === 1 ? slug : `${cutAt(slug, LONGEST - `-${n}`.length)}-${n}`;

/**
 * The speaking part for every photo of a set, each its own: of two that would be called alike, the one that came
 * first keeps the name and the other gets a number. In the order of ids, so that neither a new order nor photos
 * that are added change a name. Give it the photos in the bin as well: they may come back.
 * @param slugs what each is called by itself, by photo; see `speakingSlug`.
 * @param published names that have gone out, with the photo that each belongs to: it never changes hands, whoever
 *   else would be called so now, and its photo takes it again before any other.
 */
export function speakingNames(
  slugs: ReadonlyMap<number, string>,
  published: Readonly<Record<string, number>> = {},
): Map<number, string> {
  const gone = Object.entries(published);
  const ownedBy = new Map<number, string[]>();
  for (const [name, photo] of gone) ownedBy.set(photo, [...(ownedBy.get(photo) ?? []), name]);
  const inOrder = [...slugs].sort(([a], [b]) => a - b);
  const names = new Map<number, string>();
  const taken = new Set(gone.map(([name]) => name));
  const nextNumber = new Map<string, number>();
  for (const [id, slug] of inOrder) {
    // As it is called now, and so it went out before: also where it got a number then.
    const again = ownedBy
      .get(id)
      ?.find((name) => name === numbered(slug, Number(/-(\d{1,6})$/.exec(name)?.[1] ?? 1)) || name === slug);
    if (again !== undefined) names.set(id, again);
  }
  for (const [id, slug] of inOrder) {
    if (names.has(id)) continue;
    let n = nextNumber.get(slug) ?? 1;
    while (taken.has(numbered(slug, n))) n++;
    nextNumber.set(slug, n + 1);
    taken.add(numbered(slug, n));
    names.set(id, numbered(slug, n));
  }
  return names;
}

/** What a plain name says behind the photo's own part. */
const endingOf = (slot: SlotId, shape: ShapeId): string[] =>
  shape === 'own' ? [slot] : [slot, shape.replace(':', 'x')];

/** Whether a plain name can be read in one way alone: "bay-hero-wide" may be "bay-hero" in "wide", or "bay" in "hero-wide". */
const isClear = (plain: string, parts: readonly string[], slots: readonly Slot[]): boolean =>
  slots.every(({ id, shapes }) =>
    shapes.every(({ shape }) => {
      const ending = endingOf(id, shape);
      const isOwn = ending.join('/') === parts.slice(1).join('/');
      return isOwn || !plain.endsWith(`-${ending.join('-')}`);
    }),
  );

/**
 * "bay-at-dusk-hero-1600w.3fa91c2e.avif", "logo-header.0b7d2e11.svg" for a drawing, which has no width of its own. The first 8 hex digits of the content's SHA-256 keep names
 * apart and stable: the same bytes have the same name, so caches may keep them for ever. Plain names say the shape in
 * its place: "bay-at-dusk-hero-3x1-1600w.avif".
 * @param slots the site's places: where a plain name could be read as another photo's in one of them, its parts are
 *   joined by two hyphens, which stand in no part.
 */
export function variantFileName(
  name: string,
  slot: SlotId,
  variant: { width: number; shape: ShapeId; format: OutputFormat; contentHash: string },
  naming: Policy['naming'] = 'fingerprint',
  slots: readonly Slot[] = [],
): string {
  const width = variant.format === 'svg' ? '' : `-${variant.width}w`;
  if (naming === 'plain') {
    // Two shapes of a place may have a width in common.
    const parts = [name, ...endingOf(slot, variant.shape)];
    const joint = isClear(parts.join('-'), parts, slots) ? '-' : '--';
    return `${parts.join(joint)}${width}.${EXTENSION[variant.format]}`;
  }
  return `${name}-${slot}${width}.${variant.contentHash.slice(0, 8)}.${EXTENSION[variant.format]}`;
}
