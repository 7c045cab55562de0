// Reads what a file already says about itself: capture time, position, camera, and IPTC/XMP words.
import type { FoundWords, InOthers, Language, SpokenWords } from '@dusky-otter/core/contract';
import { canonicalTag, isFiller, LONGEST_TEXT } from '@dusky-otter/core/words';
import ExifReader from 'exifreader';

export interface FoundFacts {
  takenAt: string | null;
  hasPosition: boolean;
  camera: string | null;
  found: FoundWords & { longDescription: string };
}

type Tags = Record<string, { description?: unknown; value?: unknown } | undefined>;

const NOTHING: FoundFacts = {
  takenAt: null,
  hasPosition: false,
  camera: null,
  found: { alt: '', caption: '', title: '', credit: '', longDescription: '' },
};

interface Alternative {
  value?: unknown;
  attributes?: Record<string, unknown>;
}

/** Of the same text in several languages (XMP, 8.2.2.4) the one that stands for all, or the first. */
function oneLanguage(value: unknown): unknown {
  if (!Array.isArray(value)) return undefined;
  const said = (value as Alternative[]).filter((one) => one.attributes?.lang !== undefined);
  return (said.find((one) => one.attributes!.lang === 'x-default') ?? said[0])?.value;
}

/** Languages in which a file says something; more are none. */
const MOST_LANGUAGES = 50;

/** The same text as a file says it in languages that it names; x-default names none. */
function spoken(tags: Tags | undefined, name: string): [Language, string][] {
  const value = tags?.[name]?.value;
  if (!Array.isArray(value)) return [];
  return (value as Alternative[]).flatMap(({ value: said, attributes }): [Language, string][] => {
    const language = tagOf(attributes?.lang);
    return language !== null && typeof said === 'string' && said.trim()
      ? [[language, said.trim().slice(0, LONGEST_TEXT)]]
      : [];
  });
}

/** The language that an alternative names; null for one that stands for all, and for what is no language. */
const tagOf = (tag: unknown): Language | null =>
  typeof tag !== 'string' || tag.length > 35 || tag.toLowerCase() === 'x-default' ? null : canonicalTag(tag);

/** In which property which text stands in several languages (XMP, 8.2.2.4; IPTC Photo Metadata Standard). */
const SPOKEN_IN: readonly [keyof SpokenWords, string][] = [
  ['alt', 'AltTextAccessibility'],
  ['caption', 'description'],
  ['title', 'title'],
  ['longDescription', 'ExtDescrAccessibility'],
];

function othersOf(xmp: Tags | undefined): InOthers<SpokenWords> {
  const others = new Map<Language, SpokenWords>();
  for (const [field, name] of SPOKEN_IN)
    for (const [language, said] of spoken(xmp, name))
      if (others.has(language) || others.size < MOST_LANGUAGES)
        others.set(language, { ...others.get(language), [field]: said });
  return Object.fromEntries(others);
}

const text = (tags: Tags | undefined, ...names: string[]): string => {
  for (const name of names) {
    const tag = tags?.[name];
    const description = oneLanguage(tag?.value) ?? tag?.description;
    // What a file says is of any length; a photo's words are not.
    if (typeof description === 'string' && description.trim())
      return description.trim().slice(0, LONGEST_TEXT);
  }
  return '';
};

/** "2026:05:18 10:34:22" as "2026-05-18T10:34:22", or null for what is no date. */
function isoTime(exif: string): string | null {
  const parts = /^(\d{4})[:-](\d\d)[:-](\d\d)[ T](\d\d):(\d\d):(\d\d)/.exec(exif);
  return parts ? `${parts[1]}-${parts[2]}-${parts[3]}T${parts[4]}:${parts[5]}:${parts[6]}` : null;
}

/**
 * Property names: IPTC Photo Metadata Standard (AltTextAccessibility, ExtDescrAccessibility, Caption/Description, Headline,
 * Credit Line) and EXIF. Unreadable metadata is no reason to refuse a picture: it then says nothing.
 */
export async function findWords(file: Buffer): Promise<FoundFacts> {
  let groups: Record<string, Tags | undefined>;
  try {
    groups = (await ExifReader.load(file, { expanded: true, async: true })) as unknown as typeof groups;
  } catch {
    return NOTHING;
  }
  const { exif, iptc, xmp, gps } = groups;
  const others = othersOf(xmp);
  const makers = [text(exif, 'Make'), text(exif, 'Model'), text(exif, 'Software'), text(xmp, 'CreatorTool')];
  /** The first that a person wrote: of what a camera or a program left, a photo's words know nothing. */
  const said = (...candidates: string[]): string => candidates.find((one) => !isFiller(one, makers)) ?? '';
  return {
    takenAt: isoTime(text(exif, 'DateTimeOriginal', 'DateTimeDigitized', 'DateTime')),
    hasPosition: gps !== undefined && Object.keys(gps).length > 0,
    camera: text(exif, 'Model') || null,
    found: {
      alt: said(text(xmp, 'AltTextAccessibility')),
      caption: said(text(iptc, 'Caption/Abstract'), text(xmp, 'description'), text(exif, 'ImageDescription')),
      title: said(
        text(iptc, 'Headline'),
        text(iptc, 'Object Name'),
        text(xmp, 'Headline'),
        text(xmp, 'title'),
      ),
      longDescription: said(text(xmp, 'ExtDescrAccessibility')),
      credit: said(text(iptc, 'Credit'), text(xmp, 'Credit'), text(exif, 'Artist')),
      ...(Object.keys(others).length > 0 && { others }),
    },
  };
}

/** From the beginning of the first element of a name to the end of the last; null where there is none. */
function elementIn(text: string, name: string): string | null {
  const [start, end] = [text.indexOf(`<${name}`), text.lastIndexOf(`</${name}>`)];
  return start >= 0 && end > start ? text.slice(start, end + name.length + 3) : null;
}

/** An XMP file is a few kilobytes; what is larger is none. */
export const LARGEST_SIDECAR = 1_000_000;

/**
 * Words of a file that lies beside a photo (XMP Specification Part 3, 1.2 "sidecar").
 * @returns null for what is no XMP, or says nothing that a photo's words are made of
 */
export async function wordsOfSidecar(file: Buffer): Promise<FoundWords | null> {
  const said = file.toString('utf8');
  // Nothing of XMP needs definitions of its own, and they are a way to ask for more than there is.
  if (file.length > LARGEST_SIDECAR || /<!(?:DOCTYPE|ENTITY)/i.test(said)) return null;
  const packet = elementIn(said, 'x:xmpmeta') ?? elementIn(said, 'rdf:RDF');
  if (packet === null) return null;
  const { found } = await findWords(Buffer.from(`<?xpacket begin="" id=""?>${packet}<?xpacket end="r"?>`));
  return Object.values(found).some((part) => part !== '') ? found : null;
}
