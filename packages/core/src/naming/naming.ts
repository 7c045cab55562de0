// Speaking file names for variants: what it shows, where it goes, how wide, and a content hash.
import slugify from 'slugify';
import type { OutputFormat, SlotId, Words } from '../contract/index.ts';
import { EXTENSION } from '../weight/format.ts';

const LONGEST = 48;

/** Lower-case ASCII words joined by hyphens, at most `longest` characters, cut between words. */
export function slugOf(text: string, longest = LONGEST): string {
  const slug = slugify(text.replace(/[_.]+/g, ' '), { lower: true, strict: true });
  if (slug.length <= longest) return slug;
  const cut = slug.slice(0, longest + 1);
  const gap = cut.lastIndexOf('-');
  return gap > 8 ? cut.slice(0, gap) : slug.slice(0, longest);
}

/** What an editor calls a photo: its title, or the file it came as. */
export const shownName = (words: Pick<Words, 'title'>, fileName: string): string => words.title || fileName;

/** The speaking part: title, else alt text, else file name; "photo" when nothing of it can be written. */
export function speakingSlug(words: Pick<Words, 'title' | 'alt'>, fileName: string): string {
  const sources = [words.title, words.alt, fileName.replace(/\.[^.]+$/, '')];
  return sources.map((text) => slugOf(text)).find((slug) => slug !== '') ?? 'photo';
}

/**
 * "bay-at-dusk-hero-1600w.3fa91c2e.avif". The first 8 hex digits of the content's SHA-256 keep names
 * apart and stable: the same bytes have the same name, so caches may keep them for ever.
 */
export function variantFileName(
  slug: string,
  slot: SlotId,
  variant: { width: number; format: OutputFormat; contentHash: string },
): string {
  return `${slug}-${slot}-${variant.width}w.${variant.contentHash.slice(0, 8)}.${EXTENSION[variant.format]}`;
}
