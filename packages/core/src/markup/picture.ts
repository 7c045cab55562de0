// The markup of one photo in one slot: picture, srcset, sizes, width, height, loading, words.
import type {
  DeviceClass,
  PhotoRow,
  RowVariant,
  ShapeId,
  Slot,
  SlotShape,
  Words,
} from '../contract/index.ts';
import { cssLength, sizesOf } from '../css/sizes.ts';
import { scaled, type Span, type WidthRule } from '../css/width-rule.ts';
import { cropIn, placementIn, plainWidth, wordsIn } from '../plan/plan.ts';
import { DENSE_SCREEN } from '../slots/devices.ts';
import { ruleFor, spanOf } from '../slots/slots.ts';
import { srcsetOf } from '../source/srcset.ts';
import { MIME } from '../weight/format.ts';
import { offeredFormats } from '../weight/served.ts';
import { escapeHtml, indent, tag } from './html.ts';
import { figureClass, OWN, rowClass } from './styles.ts';

export interface PictureOptions {
  row: PhotoRow;
  slot: Slot;
  /** Address of a stored variant, relative or absolute. */
  urlOf: (variant: RowVariant) => string;
  /** Of two modern formats both are offered, not only the smaller one. */
  both?: boolean;
  /** The page's first picture: loads at once and before others. */
  first: boolean;
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

/** `sizes` with a smaller width for screens denser than any file is planned for; see `DENSE_SCREEN`. */
export function toldSizes(rule: WidthRule, range: Span): string {
  const dense = sizesOf(
    scaled(rule, DENSE_SCREEN.share),
    range,
    `(min-resolution: ${DENSE_SCREEN.from}dppx)`,
  );
  return `${dense}, ${sizesOf(rule, range)}`;
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
  const rule = ruleFor(slot, part.shape, cropIn(row, slot.id, part.shape));
  return {
    part,
    sizes: toldSizes(rule, spanOf(part)),
    byFormat,
    fallback: fallbackOf(plainFormat, plainWidth(slot, part, cropIn(row, slot.id, part.shape))),
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
  const { row, slot, first, urlOf } = options;
  const styles = [
    !row.original.transparent && `background-color: ${row.original.colour}`,
    alone && mostOf(options),
  ].filter(Boolean);
  return tag('img', {
    class: alone ? figureClass(slot.id) : null,
    src: urlOf(fallback),
    // A drawing stands in src already.
    ...(fallback.format !== 'svg' && choiceOf(shape, byFormat.at(-1)!, urlOf)),
    width: fallback.width,
    height: fallback.height,
    alt: altOf(wordsIn(row, slot.id)),
    loading: first ? 'eager' : 'lazy',
    decoding: first ? null : 'async',
    fetchpriority: first ? 'high' : null,
    style: styles.join('; ') || null,
  });
}

/** Stands below its picture for everybody, folded (WAI images tutorial, complex images). Empty lines part paragraphs. */
function longDescriptionMarkup(text: string): string {
  const paragraphs = text
    .trim()
    .split(/\n\s*\n/)
    .map((paragraph) => `<p>${escapeHtml(paragraph.replace(/\s+/g, ' ').trim())}</p>`);
  return `<details>\n${indent(['<summary>Description</summary>', ...paragraphs].join('\n'))}\n</details>`;
}

/** A fitted slot ends where this photo's box ends; the other slots' widths stand in the stylesheet. */
function mostOf({ row, slot }: PictureOptions): string | null {
  const own = slot.shapes[0]!.shape;
  const widest = slot.fit && ruleFor(slot, own, cropIn(row, slot.id, own)).at(-1);
  return widest ? `--${OWN}-most: ${cssLength(widest)}` : null;
}

/** The picture in a figure with its caption and credit; the class name carries the slot's width. */
export function figureMarkup(options: PictureOptions): string | null {
  const picture = pictureMarkup(options);
  if (!picture) return null;
  const words = wordsIn(options.row, options.slot.id);
  const { caption, credit, longDescription } = words;
  const { link } = placementIn(options.row, options.slot.id);
  const lines = [link ? `${tag('a', { href: link })}\n${indent(picture)}\n</a>` : picture];
  if (wordsMissing(words))
    lines.unshift('<!-- Words are missing: write the alt text before this goes out. -->');
  if (caption || credit) {
    const said = [caption && escapeHtml(caption), credit && `<small>Photo: ${escapeHtml(credit)}</small>`];
    lines.push(`<figcaption>${said.filter(Boolean).join(' ')}</figcaption>`);
  }
  if (longDescription.trim() && words.role !== 'decorative')
    lines.push(longDescriptionMarkup(longDescription));
  const figure = tag('figure', { class: figureClass(options.slot.id), style: mostOf(options) });
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
  const { row, slot } = options;
  const visits = (part: SlotShape): number =>
    devices
      .filter(({ viewport }) => viewport >= part.from && viewport < spanOf(part).to)
      .reduce((sum, { share }) => sum + share, 0);
  const part = [...slot.shapes].sort((a, b) => visits(b) - visits(a))[0]!;
  const everywhere: Slot = { ...slot, shapes: [{ ...part, from: 0, to: null }] };
  const shape = partOf({ ...options, slot: everywhere }, everywhere.shapes[0]!);
  if (!shape) return null;
  const img = imgTag(shape, options, true);
  const { link } = placementIn(row, slot.id);
  return link ? `${tag('a', { href: link })}${img}</a>` : img;
}
