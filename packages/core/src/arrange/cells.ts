// The places of an arrangement: each of its cells is one, as wide as its kind, columns and gap make it. So a plan makes
// exactly the files that the arrangement needs, and browsers are told the width that the picture will have.
import type {
  Arrangement,
  ArrangementOptions,
  ShapeId,
  Size,
  Slot,
  WidthPiece,
  WidthRule,
} from '../contract/index.ts';
import { choose, constant, extreme, scaled, widthAt } from '../css/width-rule.ts';
import { derivedBudget } from '../slots/budget.ts';
import { composed } from './composed.ts';
import { justifiedWidths } from './row-widths.ts';

/** A photo as an arrangement's widths need it. */
export interface ArrangedPhoto {
  id: number;
  /** Of the crop that it is shown in where it keeps its own shape; px. */
  size: Size;
}

export interface Cell {
  photo: number;
  /** Where it stands on the page. */
  cell: Slot;
  /** What a click, a choice or a closer look shows of it; null where there is no such thing. */
  large: Slot | null;
}

/** Windows from which figures and captions stand beside something; as in the runtime's figure.css. CSS px. */
const BESIDE = 600;
/** As in the runtime's strip.css: one small picture, the strip's width beside, and from which width of the set on. */
const STRIP = { thumb: 84, beside: 108, from: 640 } as const;
/** As in the runtime's feed.css. */
const SIDEWAYS = { part: 0.84, most: 480 } as const;
/** Between a picture and a caption beside it. */
const CAPTION_GAP = 16;
/** What a viewer shows; CSS px. */
const VIEWER: Size = { width: 1600, height: 1200 };
/** The window whose width a closer look is planned for. */
const LAPTOP = 1280;

const whole: WidthPiece = { from: 0, vw: 1, px: 0 };

/** From a window's width on another rule. */
const beside = (container: WidthRule, then: WidthRule): WidthRule =>
  choose([{ from: BESIDE, to: Infinity }], then, container);

function figureWidth(
  container: WidthRule,
  options: Extract<ArrangementOptions, { kind: 'figure' }>,
): WidthRule {
  const { width, side, caption } = options;
  const own =
    side === 'full'
      ? container
      : 'px' in width
        ? extreme(container, constant(width.px), 'min')
        : scaled(container, width.part);
  const picture =
    caption === 'beside' ? composed(own, [{ from: 0, vw: 2 / 3, px: (-2 / 3) * CAPTION_GAP }]) : own;
  const flows = side === 'left' || side === 'right';
  return flows || caption === 'beside' ? beside(flows ? container : own, picture) : picture;
}

/** Widths of the cells by the window's, one for each photo; and what a cell's shape is. */
function widthsOf({ options, container }: Arrangement, photos: readonly ArrangedPhoto[]): WidthRule[] {
  const alike = (rule: WidthRule) => photos.map(() => rule);
  switch (options.kind) {
    case 'figure':
      return alike(figureWidth(container, options));
    case 'grid': {
      const inner = options.columns.map(({ from, count }) => ({
        from,
        vw: 1 / count,
        px: (-options.gap * (count - 1)) / count,
      }));
      return alike(composed(container, inner));
    }
    case 'rows': {
      const ratios = photos.map(({ size }) => size.width / size.height);
      return justifiedWidths(ratios, options.height, options.gap).map((rule) => composed(container, rule));
    }
    case 'strip':
      return alike(constant(STRIP.thumb));
    case 'feed':
      return alike(
        options.direction === 'down'
          ? container
          : extreme(scaled(container, SIDEWAYS.part), constant(SIDEWAYS.most), 'min'),
      );
    case 'rotating':
    case 'zoom':
    case 'cover':
      return alike(container);
  }
}

const shapeOf = (options: ArrangementOptions): ShapeId =>
  options.kind === 'rows' ? 'own' : options.kind === 'strip' ? '1:1' : options.shape;

interface Part {
  id: string;
  rule: WidthRule;
  shape: ShapeId;
  fit?: Size;
  alone?: boolean;
}

function placeOf(title: string, { id, rule, shape, fit, alone = false }: Part): Slot {
  const slot = {
    id,
    name: title,
    hint: '',
    rule,
    shapes: [{ shape, from: 0, to: null }],
    loading: 'lazy' as const,
    fit: fit ?? null,
  };
  return { ...slot, budget: derivedBudget(slot, { alone }) };
}

/** What a click or a choice shows, or null. */
function largeOf({ shortName, title, options, container }: Arrangement): Slot | null {
  const id = `${shortName}-large`;
  switch (options.kind) {
    case 'strip': {
      const inner = [whole, { from: STRIP.from, vw: 1, px: -STRIP.beside }];
      const rule = options.side === 'beside' ? composed(container, inner) : container;
      return placeOf(title, { id, rule, shape: options.shape });
    }
    case 'zoom': {
      const rule = constant(Math.round(widthAt(container, LAPTOP) * options.times));
      return placeOf(title, { id, rule, shape: options.shape, alone: true });
    }
    case 'grid':
    case 'rows':
    case 'cover': {
      if (options.kind !== 'cover' && options.click !== 'viewer') return null;
      const rule = [{ from: 0, vw: 1, px: -32 }];
      return placeOf(title, { id, rule, shape: 'own', fit: VIEWER, alone: true });
    }
    default:
      return null;
  }
}

/**
 * The cells of an arrangement, in its photos' order. Cells that are alike are one place; in justified rows each photo has
 * a place of its own, named after the arrangement and the photo.
 */
export function cellsOf(arrangement: Arrangement, photos: readonly ArrangedPhoto[]): Cell[] {
  const { shortName, title, options } = arrangement;
  const widths = widthsOf(arrangement, photos);
  const large = largeOf(arrangement);
  const shape = shapeOf(options);
  const shared =
    options.kind !== 'rows' && widths[0] ? placeOf(title, { id: shortName, rule: widths[0], shape }) : null;
  return photos.map(({ id }, n) => ({
    photo: id,
    cell: shared ?? placeOf(title, { id: `${shortName}-${id}`, rule: widths[n]!, shape }),
    large,
  }));
}

/** Options without which a kind can't be built, as sentences; none for what can. */
export function arrangementProblems({
  options,
  container,
}: Pick<Arrangement, 'options' | 'container'>): string[] {
  const wrong: string[] = [];
  const inside = (value: number, from: number, to: number) => value >= from && value <= to;
  if ('gap' in options && !inside(options.gap, 0, 200)) wrong.push('Between pictures there are 0 to 200 px.');
  if (options.kind === 'grid') {
    const { columns } = options;
    const rising = columns.every(({ from }, n) => (n === 0 ? from === 0 : from > columns[n - 1]!.from));
    if (columns.length === 0 || !rising)
      wrong.push('The first number of columns holds from 0 px on, and each other from a wider one.');
    if (columns.some(({ count }) => !Number.isInteger(count) || !inside(count, 1, 12)))
      wrong.push('There are 1 to 12 columns.');
  }
  if (options.kind === 'rows' && !inside(options.height, 60, 1200))
    wrong.push('Rows are 60 to 1200 px high.');
  if (options.kind === 'figure') {
    const { width } = options;
    if ('px' in width ? !inside(width.px, 40, 4000) : !inside(width.part, 0.1, 1))
      wrong.push('A figure is 40 to 4000 px wide, or a tenth to all of what it stands in.');
  }
  if (options.kind === 'rotating' && options.seconds !== null && !inside(options.seconds, 3, 60))
    wrong.push('A picture stands for 3 to 60 seconds.');
  if (options.kind === 'zoom' && !inside(options.times, 1.5, 4))
    wrong.push('A closer look is 1.5 to 4 times as large.');
  if (container.some(({ vw }) => vw < 0))
    wrong.push('What it stands in must not get narrower in wider windows.');
  return wrong;
}
