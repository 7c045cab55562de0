// A page's byte limit for one kind of screen: which files it counts, what each could be had for, and what is decided.
import type {
  PhotoRow,
  PlanContext,
  QualityDecision,
  RowVariant,
  SetPlaces,
  Slot,
} from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { cropIn } from '../plan/plan.ts';
import { slotsOf } from '../plan/set-places.ts';
import { variantSentTo } from './weight.ts';
import { ruleFor, shapeAt, slotsIn } from '../slots/slots.ts';
import type { Screen } from '../source/choice.ts';
import { isLossy, type LossyFormat } from '../weight/curves.ts';
import type { RatePoint } from '../weight/hull.ts';
import { allocatePage, type PagePlan } from '../weight/page-budget.ts';

/** A picture of the page as a screen is sent it. */
export interface SentPicture {
  /** Photo and place: one photo may stand in several. */
  id: string;
  row: PhotoRow;
  slot: Slot;
  variant: RowVariant;
  bytes: number;
  /** Visible difference; 0 without loss, or where it is not measured. */
  difference: number;
  /** Its share of what is seen: the square root of its area on the screen, in CSS px. */
  importance: number;
  /** Why its bytes stay as they are, or null. */
  fixed: 'pinned' | 'without loss' | 'moves' | null;
}

/** A way to have a picture. */
export interface QualityPoint extends RatePoint {
  quality: number;
}

function fixedBy(
  decision: QualityDecision,
  { format, quality }: RowVariant,
  moves: boolean,
): SentPicture['fixed'] {
  if (moves) return 'moves';
  if (!isLossy(format) || quality === null) return 'without loss';
  return decision.pinned === undefined ? null : 'pinned';
}

/** The pictures that a screen is sent for a page, in its order; those whose file is not made yet are left out. */
export function picturesSent(
  rows: readonly PhotoRow[],
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots'>,
  screen: Screen,
): SentPicture[] {
  return rows.flatMap((row) =>
    slotsIn(context, slotsOf(row, setPlaces)).flatMap((slot): SentPicture[] => {
      const variant = variantSentTo(row, slot, screen);
      if (!variant || variant.bytes === null) return [];
      const part = shapeAt(slot, screen.viewport)!;
      const width = widthAt(ruleFor(slot, part.shape, cropIn(row, slot.id, part.shape)), screen.viewport);
      const decision = row.quality[slot.id] ?? {};
      const moves = row.original.frames > 1 && !decision.still;
      return [
        {
          id: `${row.id} ${slot.id}`,
          ...{ row, slot, variant, bytes: variant.bytes, difference: variant.difference ?? 0 },
          importance: Math.max(1, Math.sqrt((width * width * variant.height) / variant.width)),
          fixed: fixedBy(decision, variant, moves),
        },
      ];
    }),
  );
}

/** What is often taken for every picture alike. */
export const ONE_QUALITY: Readonly<Record<LossyFormat, number>> = { jpeg: 80, webp: 80, avif: 60 };

/** A point between those that were measured, on straight lines of the logarithms; beyond them the nearest. */
function pointAt(points: readonly QualityPoint[], quality: number): QualityPoint {
  const sorted = [...points].sort((a, b) => a.quality - b.quality);
  const above = sorted.findIndex((point) => point.quality >= quality);
  if (above <= 0) return above === 0 ? sorted[0]! : sorted.at(-1)!;
  const [low, high] = [sorted[above - 1]!, sorted[above]!];
  const part = (quality - low.quality) / (high.quality - low.quality);
  const between = (a: number, b: number) => a * (b / a) ** part;
  return {
    quality,
    bytes: Math.round(between(low.bytes, high.bytes)),
    difference: between(Math.max(low.difference, 1e-3), Math.max(high.difference, 1e-3)),
  };
}

/** The page if every picture that may change had the same encoder quality: bytes, and how many go above a target. */
export function withOneQuality(
  pictures: readonly SentPicture[],
  points: ReadonlyMap<string, readonly QualityPoint[]>,
  target: number,
): { bytes: number; above: number } {
  const each = pictures.map((picture): RatePoint => {
    const own = points.get(picture.id);
    if (picture.fixed !== null || !own || own.length === 0) return picture;
    return pointAt(own, ONE_QUALITY[picture.variant.format as LossyFormat]);
  });
  return {
    bytes: each.reduce((sum, { bytes }) => sum + bytes, 0),
    above: each.filter(({ difference }) => difference > target).length,
  };
}

export interface Within {
  plan: PagePlan<QualityPoint>;
  /** Least that the page can have, with the smallest file of each picture that may change. */
  least: number;
}

/** A picture as it is, as one more way to have it. */
const asItIs = ({ variant, bytes, difference }: SentPicture): QualityPoint => ({
  quality: variant.quality ?? 0,
  bytes,
  difference,
});

/**
 * What each picture becomes so that all fit a limit and least is seen.
 * @param points by picture; one without points stays as it is
 * @param kept pictures that are to stay as they are
 * @param limit in bytes, for all pictures together
 */
export function planWithin(
  pictures: readonly SentPicture[],
  points: ReadonlyMap<string, readonly QualityPoint[]>,
  kept: ReadonlySet<string>,
  limit: number,
): Within {
  const all = pictures.map((picture) => {
    const { id, importance } = picture;
    const own = points.get(id);
    const now = asItIs(picture);
    const stays = picture.fixed !== null || kept.has(id) || !own || own.length === 0;
    return { id, importance, points: stays ? [now] : [now, ...own], ...(stays && { pinned: now }) };
  });
  const least = all.reduce((sum, one) => sum + Math.min(...one.points.map(({ bytes }) => bytes)), 0);
  return { plan: allocatePage(all, limit), least };
}

/** The decision that makes a picture what was planned; null where it stays as it is. */
export function decisionFor(
  { row, slot, variant, bytes, fixed }: SentPicture,
  point: QualityPoint,
): QualityDecision | null {
  if (fixed !== null || point.bytes === bytes) return null;
  const format = variant.format as LossyFormat;
  const { quality, difference } = point;
  const decision = { ...row.quality[slot.id], pinned: { format, quality, difference } };
  // A point says what may be seen, and a target would say it again.
  delete decision.target;
  return decision;
}
