// Speaking file names for variants: what it shows, where it goes, how wide, and a content hash.
import slugify from 'slugify';
import type { OutputFormat, SlotId, Words } from '../contract/index.ts';
import { EXTENSION } from '../weight/format.ts';

/** With slot, width, hash and ending a name stays under 80 characters, which every file system and archive takes. */
const LONGEST = 48;
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

export interface NamedPhoto {
  id: number;
  fileName: string;
  words: Pick<Words, 'title' | 'alt'>;
}

/**
 * The speaking part for every photo of a set, each its own: of two that would be called alike, the one that came
 * first keeps the name and the other gets a number. In the order of ids, so that neither a new order nor photos
 * that are added change a name. Give it the photos in the bin as well: they may come back.
 */
export function speakingNames(photos: readonly NamedPhoto[]): Map<number, string> {
  const names = new Map<number, string>();
  const taken = new Set<string>();
  for (const { id, words, fileName } of [...photos].sort((a, b) => a.id - b.id)) {
    const slug = speakingSlug(words, fileName);
    let name = slug;
    for (let n = 2; taken.has(name); n++) name = `${cutAt(slug, LONGEST - `-${n}`.length)}-${n}`;
    taken.add(name);
    names.set(id, name);
  }
  return names;
}

/**
 * "bay-at-dusk-hero-1600w.3fa91c2e.avif". The first 8 hex digits of the content's SHA-256 keep names
 * apart and stable: the same bytes have the same name, so caches may keep them for ever.
 */
export function variantFileName(
  name: string,
  slot: SlotId,
  variant: { width: number; format: OutputFormat; contentHash: string },
): string {
  return `${name}-${slot}-${variant.width}w.${variant.contentHash.slice(0, 8)}.${EXTENSION[variant.format]}`;
}
