// The places of an arrangement: each of its cells is one, as wide as its kind, columns and gap make it. So a plan makes
// exactly the files that the arrangement needs, and browsers are told the width that the picture will have.
import type {
  Arranged,
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
import { wholeOptions } from './options.ts';
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
  /** In justified rows its width as a rule over the arrangement's, a piece for each band; null elsewhere. */
  inside: WidthRule | null;
}

/** Windows from which figures and captions stand beside something; as in the runtime's figure.css. CSS px. */
const BESIDE = 600;
/** Windows from which words stand over a picture; as in the runtime's worded.css. CSS px. */
const NARROW = 640;
/** As in the runtime's strip.css: one small picture, the strip's width beside, and from which width of the set on. */
const STRIP = { thumb: 84, beside: 108, from: 640 } as const;
/** As in the runtime's feed.css. */
const SIDEWAYS = { part: 0.84, most: 480 } as const;
/** As in the runtime's set.css: paper around a picture. */
const MAT = 12;
/** Between a picture and a caption beside it. */
const CAPTION_GAP = 16;
/** What a viewer shows; CSS px. */
const VIEWER: Size = { width: 1600, height: 1200 };
/** The window whose width a closer look is planned for. */
const LAPTOP = 1280;

const whole: WidthPiece = { from: 0, vw: 1, px: 0 };

/** Width that paper at both sides of each picture takes, CSS px. */
const matOf = (options: ArrangementOptions): number =>
  'frame' in options && options.frame === 'mat' ? 2 * MAT : 0;

/** From a window's width on another rule. */
const beside = (container: WidthRule, then: WidthRule): WidthRule =>
  choose([{ from: BESIDE, to: Infinity }], then, container);

function figureWidth(
  container: WidthRule,
  options: Extract<ArrangementOptions, { kind: 'figure' }>,
): WidthRule {
  const { width, side, caption } = options;
  const mat = matOf(options);
  const box =
    side === 'full'
      ? container
      : 'px' in width
        ? extreme(container, constant(width.px), 'min')
        : scaled(container, width.part);
  // A mat lies within the width.
  const within = (rule: WidthRule): WidthRule => (mat > 0 ? composed(rule, [{ ...whole, px: -mat }]) : rule);
  const own = within(box);
  const picture =
    caption === 'beside' ? composed(own, [{ from: 0, vw: 2 / 3, px: (-2 / 3) * CAPTION_GAP }]) : own;
  const flows = side === 'left' || side === 'right';
  return flows || caption === 'beside' ? beside(flows ? within(container) : own, picture) : picture;
}

/** Width of a cell by the window's; in justified rows, where it hangs on the neighbours, the most that it can be. */
function widthOf({ options, container }: Arranged): WidthRule {
  switch (options.kind) {
    case 'figure':
      return figureWidth(container, options);
    case 'grid':
    case 'index': {
      const inner = options.columns.map(({ from, count }) => ({
        from,
        vw: 1 / count,
        px: (-options.gap * (count - 1)) / count - matOf(options),
      }));
      return composed(container, inner);
    }
    case 'strip':
      return constant(STRIP.thumb);
    case 'feed':
      return options.direction === 'down'
        ? container
        : extreme(scaled(container, SIDEWAYS.part), constant(SIDEWAYS.most), 'min');
    case 'rows':
    case 'rotating':
    case 'zoom':
    case 'cover':
      return container;
  }
}

/** The shape of its cells where nothing else is said, and the one of narrow windows where that is another. */
function shapesOf(options: ArrangementOptions): Pick<Part, 'shape' | 'narrow'> {
  if (options.kind === 'rows') return { shape: 'own' };
  if (options.kind === 'strip') return { shape: '1:1' };
  // Seen whole in an even cell, it keeps its own shape; `ruleFor` knows the cell's.
  if (options.kind === 'grid' && options.fit === 'whole') return { shape: 'own' };
  const { shape } = options;
  const narrow = options.kind === 'rotating' ? options.narrowShape : null;
  return narrow && narrow !== shape ? { shape, narrow } : { shape };
}

interface Part {
  id: string;
  rule: WidthRule;
  shape: ShapeId;
  narrow?: ShapeId;
  fit?: Size;
  alone?: boolean;
}

function placeOf(title: string, { id, rule, shape, narrow, fit, alone = false }: Part): Slot {
  const slot = {
    id,
    name: title,
    hint: '',
    rule,
    shapes: narrow
      ? [
          { shape, from: NARROW, to: null },
          { shape: narrow, from: 0, to: NARROW },
        ]
      : [{ shape, from: 0, to: null }],
    loading: 'lazy' as const,
    fit: fit ?? null,
  };
  return { ...slot, budget: derivedBudget(slot, { alone }) };
}

/** What a click or a choice shows, or null. */
function largeOf({ shortName, title, options, container }: Arrangement): Slot | null {
  const id = largeId(shortName);
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

/** Rows are seldom higher than they were wanted by more than this. */
const HIGHEST_ROW = 1.25;
/** No picture in a row is wider; CSS px. */
const WIDEST_IN_ROW = 4000;

/**
 * The places of an arrangement as they are kept and planned for, whichever photos stand there. In justified rows a picture's
 * width hangs on its neighbours; files are planned for the row at its highest.
 */
export function slotsOfArrangement(arrangement: Arrangement): { cell: Slot; large: Slot | null } {
  const { shortName, title, options, container, order, words } = arrangement;
  const part: Part = {
    ...{ id: shortName, rule: widthOf(arrangement), ...shapesOf(options) },
    ...(options.kind === 'rows' && {
      fit: { width: WIDEST_IN_ROW, height: Math.round(options.height * HIGHEST_ROW) },
    }),
  };
  const large = largeOf(arrangement);
  return {
    cell: {
      ...placeOf(title, part),
      arranged: { options, container, ...(order && { order }) },
      ...(words && { words }),
    },
    large: large && { ...large, name: `${title}, large`, of: shortName },
  };
}

export const largeId = (shortName: string): string => `${shortName}-large`;

/** The arrangements among a site's places. */
export const arrangementsIn = (slots: readonly Slot[]): Arrangement[] =>
  slots.flatMap((slot) => arrangementIn(slot) ?? []);

/** An arrangement's place as the arrangement; null for any other. */
export const arrangementIn = ({ id, name, arranged, words }: Slot): Arrangement | null =>
  arranged
    ? {
        ...{ shortName: id, title: name, ...arranged, options: wholeOptions(arranged.options) },
        ...(words && { words }),
      }
    : null;

/**
 * The cells of an arrangement, in its photos' order, each as wide as it will be. All have the name of the one place that
 * is planned for.
 */
export function cellsOf(arrangement: Arrangement, photos: readonly ArrangedPhoto[]): Cell[] {
  const { shortName, title, options, container } = arrangement;
  const { cell, large } = slotsOfArrangement(arrangement);
  if (options.kind !== 'rows') return photos.map(({ id }) => ({ photo: id, cell, large, inside: null }));
  const ratios = photos.map(({ size }) => size.width / size.height);
  const mat = matOf(options);
  // Paper lies around each: pictures share what it leaves, and a row's are as high as each other.
  const less = (piece: WidthPiece): WidthPiece => ({ ...piece, px: piece.px - piece.vw * mat });
  const more = (piece: WidthPiece): WidthPiece => ({ ...piece, px: piece.px + mat });
  return justifiedWidths(ratios, options.height, options.gap + mat).map((between, n) => {
    const inside = between.map(less);
    return {
      photo: photos[n]!.id,
      cell: placeOf(title, { id: shortName, rule: composed(container, inside), ...shapesOf(options) }),
      large,
      inside: inside.map(more),
    };
  });
}
