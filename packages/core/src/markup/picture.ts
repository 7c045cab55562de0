// The markup of one photo in one slot: picture, srcset, sizes, width, height, loading, words.
import type {
  DeviceClass,
  Language,
  Photo,
  PhotoRow,
  RowVariant,
  ShapeId,
  Slot,
  SlotId,
  SlotShape,
  Words,
  WidthRule,
} from '../contract/index.ts';
import { cssLength, sizesOf } from '../css/sizes.ts';
import { scaled, type Span } from '../css/width-rule.ts';
import { ratioOf } from '../geometry/geometry.ts';
import { cropIn, placementIn, plainWidth, wordsIn } from '../plan/plan.ts';
import { DENSE_SCREEN } from '../slots/devices.ts';
import { ruleFor, spanOf } from '../slots/slots.ts';
import { widestByHeight } from '../slots/tallest.ts';
import { srcsetOf } from '../source/srcset.ts';
import { MIME } from '../weight/format.ts';
import { offeredFormats } from '../weight/served.ts';
import { blocksOf, descriptionAddress, type DescriptionBlock } from '../words/long-description.ts';
import { escapeHtml, indent, tag } from '../html/html.ts';
import { marked } from '../html/languages.ts';
import { phrasesIn, type Phrases } from '../html/phrases.ts';
import { styled, type StyleSink } from './inline-styles.ts';
import { figureClass, OWN, rowClass } from './styles.ts';

export interface PictureOptions {
  row: PhotoRow;
  slot: Slot;
  /** Address of a stored variant, relative or absolute. */
  urlOf: (variant: RowVariant) => string;
  /** Of two modern formats both are offered, not only the smaller one. */
  both?: boolean;
  /** What is said in the words' language; English where none is named. */
  language?: Language;
  /** The language that the words are in, where it is not the page's. */
  wordsLanguage?: Language;
  /** The page's first picture: loads at once and before others. */
  first: boolean;
  /** Takes the styles of single elements, which then stand in a stylesheet. */
  sink?: StyleSink;
}

/** Stored variants of one shape in a slot, ascending by width. */
export function storedOf(row: PhotoRow, slot: Slot, shape: ShapeId): RowVariant[] {
  return row.variants
    .filter((v) => v.slot === slot.id && v.shape === shape && v.bytes !== null)
    .sort((a, b) => a.width - b.width);
}

/** `srcset` with its `sizes`; a drawing is one file for every width, and needs none. */
function choiceOf({ sizes }: ShapePart, variants: readonly RowVariant[], urlOf: PictureOptions['urlOf']) {
  const [first] = variants;
  if (first?.format === 'svg') return { srcset: urlOf(first), sizes: null };
  return { srcset: srcsetOf(variants.map((v) => ({ url: urlOf(v), width: v.width }))), sizes };
}

/** The file for browsers that read no srcset: the nearest one for a 1280 px screen at 1×. */
function fallbackOf(variants: readonly RowVariant[], display: number): RowVariant {
  return variants.find((v) => v.width >= display) ?? variants.at(-1)!;
}

interface ShapePart {
  part: SlotShape;
  sizes: string;
  /** By format, modern first. */
  byFormat: RowVariant[][];
  fallback: RowVariant;
}

/**
 * `sizes` with a smaller width for screens denser than any file is planned for; see `DENSE_SCREEN`.
 * @param widest the most that a height limit leaves, for a part 0 to 1 of it, as a CSS length
 */
export function toldSizes(
  rule: WidthRule,
  range: Span,
  widest: (share: number) => string | null = () => null,
): string {
  const { share, from } = DENSE_SCREEN;
  const dense = sizesOf(scaled(rule, share), range, `(min-resolution: ${from}dppx)`, widest(share));
  return `${dense}, ${sizesOf(rule, range, null, widest(1))}`;
}

function partOf(options: PictureOptions, part: SlotShape): ShapePart | null {
  const { row, slot } = options;
  const stored = storedOf(row, slot, part.shape);
  const own = row.variants.filter((v) => v.slot === slot.id && v.shape === part.shape);
  const byFormat = offeredFormats(own, options.both ?? false)
    .map((f) => stored.filter((v) => v.format === f))
    .filter((list) => list.length > 0);
  const plainFormat = byFormat.at(-1);
  if (!plainFormat) return null;
  const crop = cropIn(row, slot.id, part.shape);
  const rule = ruleFor(slot, part.shape, crop);
  const ratio = ratioOf(part.shape, crop);
  // A limit in px is part of the rule.
  const widest = (share: number) =>
    slot.tallest?.unit === 'vh' ? widestByHeight(slot, ratio * share) : null;
  return {
    part,
    sizes: toldSizes(rule, spanOf(part), widest),
    byFormat,
    fallback: fallbackOf(plainFormat, plainWidth(slot, part, crop)),
  };
}

function source(shape: ShapePart, variants: RowVariant[], options: PictureOptions): string {
  return tag('source', {
    media: shape.part.from > 0 ? `(min-width: ${shape.part.from}px)` : null,
    type: MIME[variants[0]!.format],
    ...choiceOf(shape, variants, options.urlOf),
    width: shape.fallback.width,
    height: shape.fallback.height,
  });
}

/** What stands in the alt attribute; decorative photos say nothing, on purpose. */
export const altOf = ({ role, alt }: Words): string => (role === 'decorative' ? '' : alt.trim());

/** True when a photo leaves without words although it isn't decorative. */
export const wordsMissing = (words: Words): boolean => words.role !== 'decorative' && altOf(words) === '';

/**
 * `<picture>` with a source for each format and shape, and the `<img>` that every browser reads.
 * Null when some shape has no stored variant yet. Width and height reserve the place before a byte has
 * arrived, so that nothing shifts; `loading`, `decoding` and `fetchpriority` follow the slot's rule.
 */
export function pictureMarkup(options: PictureOptions): string | null {
  const shapes = options.slot.shapes.map((part) => partOf(options, part));
  if (shapes.length === 0 || shapes.some((shape) => shape === null)) return null;
  const complete = shapes as ShapePart[];
  const last = complete.at(-1)!;
  const sources = complete.flatMap((shape) => {
    // The plain format of the last shape stands in the img itself.
    const lists = shape === last ? shape.byFormat.slice(0, -1) : shape.byFormat;
    return lists.map((variants) => source(shape, variants, options));
  });
  return `<picture>\n${indent([...sources, imgTag(last, options)].join('\n'))}\n</picture>`;
}

/** The `<img>` of one shape, in the format that every browser reads. */
function imgTag(shape: ShapePart, options: PictureOptions, alone = false): string {
  const { fallback, byFormat } = shape;
  const { row, slot, first, urlOf, sink } = options;
  const styles = [
    !row.original.transparent && `background-color: ${row.original.colour}`,
    alone && mostOf(options),
  ].filter(Boolean);
  const own = styled(styles.join('; '), sink, alone ? figureClass(slot.id) : null);
  return tag('img', {
    class: own.class,
    src: urlOf(fallback),
    // A drawing stands in src already.
    ...(fallback.format !== 'svg' && choiceOf(shape, byFormat.at(-1)!, urlOf)),
    width: fallback.width,
    height: fallback.height,
    alt: altOf(wordsIn(row, slot.id)),
    loading: first ? 'eager' : 'lazy',
    decoding: first ? null : 'async',
    fetchpriority: first ? 'high' : null,
    style: own.style,
  });
}

/** A text in the language of the words' markup, marked where that is another one. */
function phrase(options: PictureOptions, of: (phrases: Phrases) => string): string {
  const { language = 'en', wordsLanguage = language } = options;
  const { phrases, said } = phrasesIn(language);
  const text = escapeHtml(of(phrases));
  return said === wordsLanguage ? text : `${tag('span', { lang: said })}${text}</span>`;
}

function tableMarkup({ head, lines }: Extract<DescriptionBlock, { kind: 'table' }>): string {
  const line = (cells: readonly string[], write: (cell: string, n: number) => string) =>
    `<tr>${cells.map(write).join('')}</tr>`;
  const heading = line(head, (cell) => `<th scope="col">${escapeHtml(cell)}</th>`);
  const body = lines.map((cells) =>
    line(cells, (cell, n) =>
      n === 0 ? `<th scope="row">${escapeHtml(cell)}</th>` : `<td>${escapeHtml(cell)}</td>`,
    ),
  );
  return `<table>\n${indent(['<thead>', indent(heading), '</thead>', '<tbody>', ...body.map((row) => indent(row)), '</tbody>'].join('\n'))}\n</table>`;
}

/**
 * Stands below its picture for everybody, folded, or is linked to there (WAI images tutorial, complex images). It is
 * named after its photo: several on a page must be told apart.
 */
function longDescriptionMarkup(options: PictureOptions, { longDescription, title, caption }: Words): string {
  const name = phrase(options, ({ description }) => description((title || caption).trim()));
  const address = descriptionAddress(longDescription);
  if (address) return `<p>${tag('a', { href: address })}${name}</a></p>`;
  const blocks = blocksOf(longDescription).map((block) =>
    block.kind === 'table' ? tableMarkup(block) : `<p>${escapeHtml(block.text)}</p>`,
  );
  return `<details>\n${indent([`<summary>${name}</summary>`, ...blocks].join('\n'))}\n</details>`;
}

/** Where a photo leads in a place: the placement's own link, else its own where it is there to lead somewhere. */
export function targetIn(row: Photo, slot: SlotId): { address: string; newWindow: boolean } | null {
  const { role, link, newWindow } = wordsIn(row, slot);
  const own = placementIn(row, slot).link.trim();
  const address = own || (role === 'functional' ? link.trim() : '');
  return address ? { address, newWindow } : null;
}

/** The picture as a link to its target, which says so where it opens a window; the picture alone where there is none. */
function linked(picture: string, options: PictureOptions, alone = false): string {
  const target = targetIn(options.row, options.slot.id);
  if (!target) return picture;
  const { address, newWindow } = target;
  const open = tag('a', { href: address, ...(newWindow && { target: '_blank', rel: 'noopener' }) });
  const said =
    newWindow && `<span class="${OWN}-said">(${phrase(options, (phrases) => phrases.newWindow)})</span>`;
  const inside = [picture, said].filter(Boolean);
  return alone ? `${open}${inside.join(' ')}</a>` : `${open}\n${indent(inside.join('\n'))}\n</a>`;
}

/** A fitted slot ends where this photo's box, or its height, ends; the other slots' widths stand in the stylesheet. */
function mostOf({ row, slot }: PictureOptions): string | null {
  const { shape } = slot.shapes[0]!;
  const crop = cropIn(row, slot.id, shape);
  const box = slot.fit && ruleFor(slot, shape, crop).at(-1);
  const limits = [
    box && cssLength(box),
    // Of places with shapes the stylesheet says it.
    shape === 'own' && widestByHeight(slot, ratioOf(shape, crop)),
  ].filter(Boolean);
  if (limits.length === 0) return null;
  return `--${OWN}-most: ${limits.length === 1 ? limits[0] : `min(${limits.join(', ')})`}`;
}

/** What is said below a picture, as markup; "" for nothing. */
export interface BelowPicture {
  /** Caption and credit. */
  caption: string;
  longDescription: string;
}

export function belowPicture(options: PictureOptions): BelowPicture {
  const words = wordsIn(options.row, options.slot.id);
  const { caption, credit, longDescription } = words;
  const said = [
    caption && escapeHtml(caption),
    credit && `<small>${phrase(options, ({ photo }) => photo)} ${escapeHtml(credit)}</small>`,
  ];
  const isLong = longDescription.trim() !== '' && words.role !== 'decorative';
  return {
    caption: said.filter(Boolean).join(' '),
    longDescription: isLong ? longDescriptionMarkup(options, words) : '',
  };
}

/**
 * The caption of a figure, the long description in it: beside what it shows a figure may hold nothing but one caption, first
 * or last (HTML, 4.4.12 The figure element). As lines; none where nothing is said.
 */
export function figcaptionOf({ caption, longDescription }: BelowPicture): string[] {
  if (!longDescription) return caption ? [`<figcaption>${caption}</figcaption>`] : [];
  const lines = [caption, longDescription].filter(Boolean);
  return [`<figcaption>\n${indent(lines.join('\n'))}\n</figcaption>`];
}

/** The picture in a figure with its caption and credit; the class name carries the slot's width. */
export function figureMarkup(options: PictureOptions): string | null {
  const picture = pictureMarkup(options);
  if (!picture) return null;
  const lines = [linked(picture, options), ...figcaptionOf(belowPicture(options))];
  if (wordsMissing(wordsIn(options.row, options.slot.id)))
    lines.unshift('<!-- Words are missing: write the alt text before this goes out. -->');
  const { language = 'en', wordsLanguage = language } = options;
  const own = styled(mostOf(options), options.sink, figureClass(options.slot.id));
  const figure = tag('figure', {
    class: own.class,
    ...marked(wordsLanguage, language),
    style: own.style,
  });
  return `${figure}\n${indent(lines.join('\n'))}\n</figure>`;
}

/** Figures of one place as they stand beside and below each other. */
export const rowMarkup = (slot: Slot, figures: readonly string[]): string =>
  `<div class="${rowClass(slot.id)}">\n${indent(figures.join('\n'))}\n</div>`;

/**
 * One `<img>` with `srcset`, for systems that allow no more: the format that every browser reads, in the shape that
 * most visits see; captions and long descriptions stay behind. Null when it has no stored variant yet.
 */
export function plainMarkup(options: PictureOptions, devices: readonly DeviceClass[]): string | null {
  const { slot } = options;
  const visits = (part: SlotShape): number =>
    devices
      .filter(({ viewport }) => viewport >= part.from && viewport < spanOf(part).to)
      .reduce((sum, { share }) => sum + share, 0);
  const part = [...slot.shapes].sort((a, b) => visits(b) - visits(a))[0]!;
  const everywhere: Slot = { ...slot, shapes: [{ ...part, from: 0, to: null }] };
  const shape = partOf({ ...options, slot: everywhere }, everywhere.shapes[0]!);
  if (!shape) return null;
  return linked(imgTag(shape, options, true), options, true);
}
