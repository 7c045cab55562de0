// From measured pictures to proposed places: how wide each is in every window, in which shape, and which are alike.
import type { ShapeId, Slot, SlotShape, WidthRule } from '../contract/index.ts';
import { fitRule } from '../css/fit.ts';
import { parseSizes, sizesOf } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { derivedBudget } from '../slots/budget.ts';
import { readPhrase } from '../slots/phrase.ts';
import { slotIdFor } from '../places/places-file.ts';
import { LONGEST_WIDTH } from '../slots/typed-width.ts';
import type { MeasuredPage, MeasuredPicture, PictureSample } from './measured.ts';

export interface Proposal {
  /** A place that could be made; `measured` says on which page and how exactly. */
  slot: Slot;
  /** Numbers of its pictures on the page, from 0. */
  pictures: number[];
  /** Largest difference between the rule and what was measured, in CSS px. */
  worst: number;
  /** A place of the site that is the same, to the pixel. */
  same: Slot | null;
  /** Pictures that the page shows in another ratio than their file has, without cutting them. */
  stretched: number[];
  /** CSS px that border and padding take of its box at most, in width: they are no part of the picture. */
  edge: number;
  /** Its height does not follow from its width: no ratio holds. */
  loose: boolean;
  /** All its pictures are drawings: they need no widths of their own. */
  drawings: boolean;
}

/** Rules that nowhere differ by more are one. CSS px. */
const ALIKE = 1;
/**
 * Largest errors that a fitted rule may have, in CSS px: the next where the one before takes more pieces than anybody
 * would write. Tables hand their room out by their texts, and follow no rule.
 */
const TOLERANCES = [0.5, 1, 2, 4, 8, 16, 32, 64];
const MOST_PIECES = 12;
/** A picture is stretched where its ratio is off its file's by more. */
const STRETCHED = 0.02;

const COMMON: readonly [number, number][] = [
  [1, 1], [3, 2], [4, 3], [16, 9], [2, 1], [3, 1], [5, 4], [4, 5], [3, 4], [2, 3], [9, 16], [1, 2], [21, 9], [7, 5], [5, 7], [5, 3], [8, 5],
]; // prettier-ignore

/** The plainest ratio a : b that all sizes have, to the rounding of a pixel; null where there is none. */
export function shapeOf(sizes: readonly { width: number; height: number }[]): ShapeId | null {
  const holds = ([a, b]: readonly [number, number]) =>
    sizes.every(
      ({ width, height }) =>
        Math.abs(height - (width * b) / a) <= 1 || Math.abs(width - (height * a) / b) <= 1,
    );
  const found = COMMON.find(holds);
  if (found) return `${found[0]}:${found[1]}`;
  for (let b = 1; b <= 40; b++) for (let a = 1; a <= 40; a++) if (holds([a, b])) return `${a}:${b}`;
  // None that people would write: the largest size as it is, if all the others have its ratio.
  const largest = sizes.reduce((most, size) => (size.width > most.width ? size : most));
  const exact = [Math.round(largest.width), Math.round(largest.height)] as const;
  return exact[0] > 0 && exact[1] > 0 && exact[0] < 10_000 && exact[1] < 10_000 && holds(exact)
    ? `${exact[0]}:${exact[1]}`
    : null;
}

/** Shapes by the window they begin at, the largest first: as few as the sizes allow. */
function shapesOf(samples: readonly PictureSample[]): { shapes: SlotShape[]; loose: boolean } {
  const runs: { from: number; sizes: PictureSample[]; shape: ShapeId }[] = [];
  let loose = false;
  for (const sample of samples) {
    const run = runs.at(-1);
    const longer = run && shapeOf([...run.sizes, sample]);
    if (run && longer) {
      run.sizes.push(sample);
      run.shape = longer;
      continue;
    }
    const shape = shapeOf([sample]);
    if (shape) runs.push({ from: sample.viewport, sizes: [sample], shape });
  }
  // Ratios that change from window to window are no shapes: the one of the most windows stands for all.
  if (runs.length > 4 || runs.length === 0) {
    loose = true;
    const longest = [...runs].sort((a, b) => b.sizes.length - a.sizes.length).slice(0, 1);
    runs.splice(0, runs.length, ...longest);
  }
  const falling = joinedShapes(
    runs.map(({ from, shape }, n) => ({ from: n === 0 ? 0 : from, shape })),
  ).reverse();
  const shapes = falling.map((part, n) => ({ ...part, to: n === 0 ? null : falling[n - 1]!.from }));
  return { shapes: shapes.length > 0 ? shapes : [{ shape: 'own', from: 0, to: null }], loose };
}

/** A place has each shape once: what comes back later is taken as going on. */
function joinedShapes(parts: { from: number; shape: ShapeId }[]): { from: number; shape: ShapeId }[] {
  const kept: { from: number; shape: ShapeId }[] = [];
  for (const part of parts) if (!kept.some(({ shape }) => shape === part.shape)) kept.push(part);
  return kept;
}

const isStretched = ({ natural, fit, samples }: MeasuredPicture): boolean =>
  natural !== null &&
  fit === 'fill' &&
  samples.some(
    // A pixel of rounding is much of a small picture.
    ({ width, height }) =>
      height > 8 && Math.abs(Math.log(width / height / natural)) > STRETCHED + 1 / height,
  );

interface Found {
  number: number;
  picture: MeasuredPicture;
  rule: WidthRule;
  shapes: SlotShape[];
  loose: boolean;
}

/** The closest rule that can be written down. */
function ruleOf(samples: readonly PictureSample[]): WidthRule {
  const widths = samples.map(({ viewport, width }) => ({ viewport, width }));
  for (const tolerance of TOLERANCES) {
    const rule = fitRule(widths, tolerance);
    if (rule.length <= MOST_PIECES && sizesOf(rule).length <= LONGEST_WIDTH) return rule;
  }
  // Nothing holds: the width of the middle window stands for all.
  const { width } = widths[Math.floor(widths.length / 2)]!;
  return [{ from: 0, vw: 0, px: Math.round(width) }];
}

function foundIn(picture: MeasuredPicture, number: number): Found | null {
  const samples = picture.samples.filter(({ width, height }) => width >= 1 && height >= 1);
  if (samples.length === 0) return null;
  const rule = ruleOf(samples);
  return { number, picture: { ...picture, samples }, rule, ...shapesOf(samples) };
}

const shapeKey = (shapes: readonly SlotShape[]): string =>
  shapes.map(({ shape, from }) => `${shape} ${from}`).join();

/** Whether a rule is what was measured of a picture. */
const agrees = (rule: WidthRule, { samples }: MeasuredPicture): boolean =>
  samples.every(({ viewport, width }) => Math.abs(widthAt(rule, viewport) - width) <= ALIKE);

const worstOf = (rule: WidthRule, pictures: readonly MeasuredPicture[]): number =>
  Math.max(
    0,
    ...pictures.flatMap(({ samples }) =>
      samples.map(({ viewport, width }) => Math.abs(widthAt(rule, viewport) - width)),
    ),
  );

/** Pictures whose widths and shapes are alike, together. Photos and drawings stay apart. */
function alike(found: readonly Found[]): Found[][] {
  const groups: Found[][] = [];
  for (const one of found) {
    const shown = one.picture.samples.length;
    const group = groups.find(([first]) => {
      if (first!.picture.drawing !== one.picture.drawing) return false;
      const both = first!.picture.samples.length === shown;
      const sameRule = both && agrees(first!.rule, one.picture);
      return (
        sameRule && (shapeKey(first!.shapes) === shapeKey(one.shapes) || (isWhole(first!) && isWhole(one)))
      );
    });
    if (group) group.push(one);
    else groups.push([one]);
  }
  return groups;
}

/** Shown in its file's own ratio in every window. */
const isWhole = ({ picture: { natural, samples } }: Found): boolean =>
  natural !== null &&
  samples.every(
    ({ width, height }) =>
      Math.abs(height - width / natural) <= 1.01 || Math.abs(width - height * natural) <= 1.01,
  );

/** Shapes of a group: whole photos of several ratios are of their own shape. */
function shapesOfGroup(group: readonly Found[]): SlotShape[] {
  const same = new Set(group.map(({ shapes }) => shapeKey(shapes))).size === 1;
  return same ? group[0]!.shapes : [{ shape: 'own', from: 0, to: null }];
}

/** Pictures of a group beside each other in a window: how many, and the CSS px between them. */
function rowIn(group: readonly Found[], window: number): { count: number; gap: number } {
  const rows = new Map<number, PictureSample[]>();
  for (const { picture } of group) {
    const sample = picture.samples.find(({ viewport }) => viewport === window);
    if (sample) rows.set(Math.round(sample.y), [...(rows.get(Math.round(sample.y)) ?? []), sample]);
  }
  const row = [...rows.values()].reduce((most, one) => (one.length > most.length ? one : most), []);
  const inOrder = [...row].sort((a, b) => a.x - b.x);
  const gaps = inOrder.slice(1).map((sample, n) => sample.x - inOrder[n]!.x - inOrder[n]!.box);
  return { count: row.length, gap: gaps.length > 0 ? Math.min(...gaps) : 0 };
}

/** The width in words, where words say it exactly; else as `sizes` says it. */
function saidOf(rule: WidthRule, group: readonly Found[], windows: readonly number[]): string {
  // The same in every window: nothing could be said more shortly.
  if (rule.length === 1 && rule[0]!.vw === 0) return sizesOf(rule);
  const wide = windows.findLast((window) => window <= 1920) ?? windows.at(-1)!;
  const narrow = windows.find((window) => window >= 390) ?? windows[0]!;
  const most = Math.round(widthAt(rule, wide));
  const [row, few] = [rowIn(group, wide), rowIn(group, narrow)];
  const gap = Math.round(row.gap);
  const all = Math.round(row.count * widthAt(rule, wide) + (row.count - 1) * row.gap);
  const across = `${row.count} across with ${gap} px between in ${all} px`;
  const breaks = rule.map(({ from }) => Math.round(from)).filter((from) => from > 0);
  const tries = [
    'as wide as the window',
    `as wide as the window, at most ${most} px`,
    `${most} px column`,
    `half of a ${2 * most} px column`,
    ...breaks.map((from) => `half of a ${2 * most} px column, whole below ${from} px`),
    ...(row.count > 1 ? [across, ...breaks.map((from) => `${across}, ${few.count} below ${from} px`)] : []),
  ];
  const pictures = group.map(({ picture }) => picture);
  const exact = tries.find((text) => {
    const said = readPhrase(text);
    return (
      said &&
      pictures.every((picture) => agrees(said.rule, picture)) &&
      worstOf(said.rule, pictures) <= TOLERANCES[0]! + 0.1
    );
  });
  return exact ?? sizesOf(rule);
}

function nameOf(rule: WidthRule, group: readonly Found[], windows: readonly number[]): string {
  const wide = windows.findLast((window) => window <= 1280) ?? windows.at(-1)!;
  const { count } = rowIn(group, wide);
  const width = widthAt(rule, wide);
  if (count > 1) return `${['', '', 'Two', 'Three', 'Four', 'Five', 'Six'][count] ?? count} across`;
  if (width >= wide * 0.98) return 'Full width';
  if (group.every(({ picture }) => picture.floats)) return 'Beside the text';
  if (width <= 160) return 'Small picture';
  return `${Math.round(width)} px wide`;
}

/** Pictures whose upper edge lies higher stand on the first screen. CSS px. */
const FIRST_SCREEN = { height: 700, window: 390 };

/**
 * Proposes places for a page's pictures. Alike ones are merged, those that the site has already are named.
 * @param slots places of the site. @param on ISO 8601 date of the measurement.
 */
export function proposalsFor(
  { page, windows, pictures }: MeasuredPage,
  slots: readonly Slot[],
  on: string,
): Proposal[] {
  const found = pictures.flatMap((picture, number) => foundIn(picture, number) ?? []);
  const taken = slots.map(({ id }) => id);
  const names = new Set(slots.map(({ name }) => name));
  return alike(found).map((group) => {
    const first = group[0]!;
    const members = group.map(({ picture }) => picture);
    const said = saidOf(first.rule, group, windows);
    const rule = readPhrase(said)?.rule ?? parseSizes(said);
    const worst = worstOf(rule, members);
    const shapes = shapesOfGroup(group);
    const plain = nameOf(rule, group, windows);
    let name = plain;
    for (let n = 2; names.has(name); n++) name = `${plain} ${n}`;
    names.add(name);
    const id = slotIdFor(name, taken);
    taken.push(id);
    const top = members.some(({ samples }) => {
      const phone = samples.find(({ viewport }) => viewport >= FIRST_SCREEN.window);
      return phone !== undefined && phone.y < FIRST_SCREEN.height;
    });
    const slot: Slot = {
      id,
      name,
      hint: '',
      said,
      rule,
      shapes,
      fit: null,
      budget: 1,
      loading: top && group.length === 1 ? 'first' : 'lazy',
      measured: { page, on, windows: windows.length, worst },
    };
    return {
      slot: { ...slot, budget: derivedBudget(slot) },
      pictures: group.map(({ number }) => number),
      worst,
      same:
        slots.find(
          (one) => sameShapes(one.shapes, shapes) && members.every((member) => agrees(one.rule, member)),
        ) ?? null,
      stretched: group.filter(({ picture }) => isStretched(picture)).map(({ number }) => number),
      edge: Math.max(
        ...members.flatMap(({ samples }) => samples.map(({ box, width }) => edgeOf(box, width))),
      ),
      loose: group.some(({ loose }) => loose),
      drawings: members.every(({ drawing }) => drawing),
    };
  });
}

/** What is less than half a pixel is rounding. */
const edgeOf = (box: number, width: number): number => (box - width >= 0.5 ? box - width : 0);

const sameShapes = (a: readonly SlotShape[], b: readonly SlotShape[]): boolean => shapeKey(a) === shapeKey(b);
