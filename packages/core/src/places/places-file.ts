// Places as a file: written from a site, read into another. Open JSON; docs/schema/places.schema.json describes it.
import type { ShapeId, Slot, SlotId, Tallest } from '../contract/index.ts';
import { CssError } from '../css/errors.ts';
import { sizesOf } from '../css/sizes.ts';
import { roundHalfUp } from '../geometry/geometry.ts';
import { derivedBudget } from '../slots/budget.ts';
import { isSlotId, LONGEST_SLOT_ID, slotProblem } from './problem.ts';
import { keptHeight } from '../slots/tallest.ts';
import { readWidth } from '../slots/typed-width.ts';

const KIND = 'dusky-otter/places';
const VERSION = 1;
/** Places that one file may hold. */
export const MOST_PLACES = 50;

/** @returns the text of a file: UTF-8 JSON, indented. */
export function writePlaces(slots: readonly Slot[]): string {
  const places = slots.map((slot) => ({
    id: slot.id,
    name: slot.name,
    hint: slot.hint,
    // As it was said; the expression beside it is for whoever reads the file with another program.
    width: slot.said ?? sizesOf(slot.rule),
    sizes: sizesOf(slot.rule),
    shapes: slot.shapes.map(({ shape, from }) => ({ from, shape })),
    fit: slot.fit,
    ...(slot.tallest && { tallest: slot.tallest }),
    budgetBytes: slot.budget,
    loading: slot.loading,
  }));
  return `${JSON.stringify({ file: KIND, version: VERSION, places }, null, 2)}\n`;
}

/** Raised for a file that can't be read; the message is a sentence that names the place in it. */
export class PlacesFileError extends Error {}

const fail = (sentence: string): never => {
  throw new PlacesFileError(sentence);
};

type Read = Record<string, unknown>;

const isObject = (value: unknown): value is Read =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A short name for a place: of small letters, digits and hyphens, and none that is taken. */
export function slotIdFor(name: string, taken: readonly SlotId[]): SlotId {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[-0-9]+|-+$/g, '')
    .slice(0, LONGEST_SLOT_ID - 4)
    .replace(/-+$/, '');
  const base = [plain, `${plain}-place`].find(isSlotId) ?? 'place';
  let id = base;
  for (let n = 2; taken.includes(id); n++) id = `${base}-${n}`;
  return id;
}

function shapesOf(value: unknown, at: string): Slot['shapes'] {
  if (!Array.isArray(value) || value.length === 0)
    return fail(`${at}: “shapes” is a list with one shape at least.`);
  const parts = value.map((part: unknown) => {
    if (!isObject(part) || typeof part.from !== 'number' || typeof part.shape !== 'string')
      return fail(`${at}: every shape has “from” in px and “shape” such as "3:2" or "own".`);
    return { from: part.from, shape: part.shape as ShapeId };
  });
  const falling = parts.sort((a, b) => b.from - a.from);
  return falling.map((part, i) => ({ ...part, to: i === 0 ? null : falling[i - 1]!.from }));
}

function tallestOf(value: unknown, at: string): Tallest | undefined {
  if (value === undefined || value === null) return undefined;
  const isLimit =
    isObject(value) &&
    typeof value.height === 'number' &&
    (value.unit === 'px' || value.unit === 'vh') &&
    typeof value.cut === 'boolean';
  if (!isLimit)
    return fail(`${at}: “tallest” has “height”, “unit” ("px" or "vh") and “cut” (true or false).`);
  const { height, unit, cut } = value as unknown as Tallest;
  return { height, unit, cut };
}

function slotOf(value: unknown, at: string, taken: readonly SlotId[]): Slot {
  if (!isObject(value)) return fail(`${at} is no place.`);
  const { id, name, hint = '', width, fit = null, budgetBytes, loading = 'lazy' } = value;
  if (typeof name !== 'string' || name.trim() === '') return fail(`${at} has no name.`);
  const called = `${at} (“${name}”)`;
  if (typeof width !== 'string')
    return fail(`${called}: “width” is a text such as "min(100vw - 32px, 720px)".`);
  if (typeof hint !== 'string') return fail(`${called}: “hint” is a text.`);
  if (loading !== 'first' && loading !== 'lazy') return fail(`${called}: “loading” is "first" or "lazy".`);
  if (budgetBytes !== undefined && !(typeof budgetBytes === 'number' && budgetBytes >= 1))
    return fail(`${called}: “budgetBytes” is a number of bytes.`);
  const box =
    isObject(fit) && typeof fit.width === 'number' && typeof fit.height === 'number'
      ? { width: fit.width, height: fit.height }
      : null;
  if (fit !== null && !box) return fail(`${called}: “fit” is null or a width and a height in px.`);
  const tallest = tallestOf(value.tallest, called);
  let read;
  try {
    read = readWidth(width);
  } catch (error) {
    if (error instanceof CssError) return fail(`${called}, width. ${error.message}`);
    throw error;
  }
  const shapes = shapesOf(value.shapes, called);
  const height = tallest ?? (read.height ? keptHeight(read.height, { shapes }) : undefined);
  const slot: Slot = {
    id: slotIdFor(typeof id === 'string' && isSlotId(id) ? id : name, taken),
    name: name.trim(),
    hint,
    rule: read.rule,
    said: width,
    shapes,
    fit: box,
    ...(height && { tallest: height }),
    budget: typeof budgetBytes === 'number' ? Math.max(1, roundHalfUp(budgetBytes)) : 1,
    loading,
  };
  const problem = slotProblem(slot);
  if (problem) return fail(`${called}: ${problem}`);
  return budgetBytes === undefined ? { ...slot, budget: derivedBudget(slot) } : slot;
}

/**
 * Reads places from a file's text. They get short names that are not taken.
 * @throws PlacesFileError with a sentence.
 */
export function readPlaces(text: string, taken: readonly SlotId[]): Slot[] {
  let read: unknown;
  try {
    read = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return fail('This is no JSON file, or it ends too early.');
  }
  if (!isObject(read) || read.file !== KIND)
    return fail(`This file holds no places: it should say "file": "${KIND}".`);
  if (read.version !== VERSION)
    return fail(`The file’s version is ${JSON.stringify(read.version)}; version ${VERSION} can be read.`);
  const { places } = read;
  if (!Array.isArray(places) || places.length === 0) return fail('There is no place in this file.');
  if (places.length > MOST_PLACES)
    return fail(`A file may hold ${MOST_PLACES} places; this one has ${places.length}.`);
  const slots: Slot[] = [];
  places.forEach((place: unknown, n) =>
    slots.push(slotOf(place, `Place ${n + 1}`, [...taken, ...slots.map(({ id }) => id)])),
  );
  return slots;
}
