// A slot's byte budget that can't be met at the target: the ways out, each as a concrete plan.
import type {
  Photo,
  PlanContext,
  PlannedVariant,
  QualityDecision,
  Slot,
  StoredFacts,
  TargetName,
} from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { PHONE } from '../slots/devices.ts';
import { ruleFor, shapeAt } from '../slots/slots.ts';
import { chosenWidth } from '../source/choice.ts';
import { TARGET_NAMES, TARGETS } from '../weight/target.ts';
import { bytesInWords } from '../weight/units.ts';
import { cropIn, planShape } from './plan.ts';

/** In the order in which they are offered. */
export type Way = 'smaller-set' | 'lower-target' | 'fewer-pixels' | 'fewer-frames' | 'still';

export interface WayOut {
  way: Way;
  /** What is decided for the slot when it is taken. */
  decision: QualityDecision;
  /** What it does, for the editor. */
  what: string;
  /** The same with what it is expected to weigh. */
  sentence: string;
  /** The pixel widths that the slot's shape would have. */
  widths: number[];
  /** The file that a phone would be sent: rendering it measures bytes and D. */
  variant: PlannedVariant;
  /** What it is expected to weigh, from the files that are stored; null where nothing tells. */
  expected: { bytes: number; difference: number } | null;
  /** Whether the expected bytes are within the budget; null where nothing tells. */
  fits: boolean | null;
}

export interface OverBudget {
  budget: number;
  /** The file that a phone is sent now. */
  variant: PlannedVariant;
  bytes: number;
  ways: WayOut[];
}

/** How bytes go with width where only one width is known, and with D: measured (docs/methods/budgets.md). */
const BYTES_BY_WIDTH = 1.6;
const BYTES_BY_DIFFERENCE = -1.1;
/** What half of an animation's frames need, roughly: it is tried before it is taken. */
const BYTES_OF_HALF = 0.55;

interface Known {
  width: number;
  bytes: number;
  difference: number;
}

/** Bytes at a width, by a power of it through the two nearest widths that are known. */
function bytesAt(width: number, known: readonly Known[]): number {
  const [first, second] = [...known].sort(
    (a, b) => Math.abs(Math.log(a.width / width)) - Math.abs(Math.log(b.width / width)),
  );
  if (!first) throw new RangeError('Nothing is known to go by.');
  const power =
    second && second.width !== first.width
      ? Math.min(2, Math.max(1, Math.log(second.bytes / first.bytes) / Math.log(second.width / first.width)))
      : BYTES_BY_WIDTH;
  return first.bytes * (width / first.width) ** power;
}

/**
 * The ways out where the file that a phone is sent is over its slot's budget, in the domain's order: a smaller
 * candidate set, a lower target, fewer pixels. Null while it is within, not made yet, or lossless by its kind and
 * so without a target.
 * @param stored what is known of stored variants, by key.
 */
export function waysOut(
  photo: Photo,
  slot: Slot,
  context: Pick<PlanContext, 'devices' | 'policy'>,
  stored: (key: string) => StoredFacts | undefined,
): OverBudget | null {
  const part = shapeAt(slot, PHONE.viewport);
  const present = photo.quality[slot.id]?.target ?? context.policy.target;
  if (!part) return null;
  const display = widthAt(ruleFor(slot, part.shape, cropIn(photo, slot.id, part.shape)), PHONE.viewport);
  const sent = (variants: readonly PlannedVariant[]): PlannedVariant | undefined => {
    const modern = variants.filter((v) => v.format === variants[0]?.format);
    const width = chosenWidth(
      modern.map((v) => v.width),
      display,
      PHONE.density,
    );
    return modern.find((v) => v.width === width);
  };
  const planned = planShape(photo, slot, part.shape, context);
  const now = sent(planned);
  const facts = now && stored(now.key);
  if (!now || !facts || facts.bytes <= slot.budget) return null;
  const known = planned.flatMap((variant): Known[] => {
    const made = stored(variant.key);
    if (variant.format !== now.format || !made) return [];
    return [{ width: variant.width, bytes: made.bytes, difference: made.difference ?? 0 }];
  });
  const difference = facts.difference ?? 0;

  const decided = photo.quality[slot.id] ?? {};
  const wayOf = (
    way: Way,
    change: QualityDecision,
    expected: ((variant: PlannedVariant) => { bytes: number; difference: number }) | null,
    said: (variant: PlannedVariant) => string,
  ): WayOut[] => {
    const decision = { ...decided, ...change };
    const variants = planShape(withDecision(photo, slot, decision), slot, part.shape, context);
    const variant = sent(variants);
    if (!variant || variant.key === now.key) return [];
    const foretold = expected?.(variant);
    const about = foretold
      ? `about ${bytesInWords(foretold.bytes)} instead of ${bytesInWords(facts.bytes)}`
      : `instead of ${bytesInWords(facts.bytes)}`;
    return [
      {
        way,
        decision,
        widths: [...new Set(variants.map((v) => v.width))],
        variant,
        expected: foretold ? { ...foretold, bytes: Math.round(foretold.bytes) } : null,
        fits: foretold ? foretold.bytes <= slot.budget : null,
        what: `${said(variant)}.`,
        sentence: `${said(variant)}: ${about}.`,
      },
    ];
  };
  const widths = [...new Set(planned.map((v) => v.width))];
  const atWidth = (variant: PlannedVariant) => ({ bytes: bytesAt(variant.width, known), difference });
  const dense = (variant: PlannedVariant): string => (variant.width / display).toFixed(1);

  // A larger file in the set would be loaded instead, so that a set with less for phones ends there.
  const below = widths.filter((width) => width < now.width);

  const lower = lowerTargets(present).map((target) => {
    const ratio = TARGETS[target] / TARGETS[present];
    const bytes = facts.bytes * ratio ** BYTES_BY_DIFFERENCE;
    return { target, bytes, difference: difference * ratio };
  });
  const lowest = lower.find((l) => l.bytes <= slot.budget) ?? lower.at(-1);

  // At 1× at least: below, the picture is blurred for everybody.
  const least = Math.min(now.width, Math.ceil(display));
  let width = Math.max(least, now.width - 1);
  while (width > least && bytesAt(width, known) > slot.budget) width -= 1;
  return {
    budget: slot.budget,
    variant: now,
    bytes: facts.bytes,
    ways: [
      ...(below.length > 0
        ? wayOf(
            'smaller-set',
            { widest: below.at(-1)! },
            atWidth,
            (v) => `A set that ends at ${v.width} px, for large screens too`,
          )
        : []),
      ...(lowest && now.settings.target !== undefined
        ? wayOf(
            'lower-target',
            { target: lowest.target },
            () => ({ bytes: lowest.bytes, difference: lowest.difference }),
            () => `Target “${lowest.target}”, a visible difference up to ${TARGETS[lowest.target]}`,
          )
        : []),
      ...wayOf(
        'fewer-pixels',
        { widest: width },
        atWidth,
        (v) => `Fewer pixels: ${v.width} px at most, ${dense(v)} for each that a phone shows`,
      ),
      ...(photo.original.frames > 2 * (decided.every ?? 1) && (decided.every ?? 1) <= 5 && !decided.still
        ? wayOf(
            'fewer-frames',
            { every: 2 * (decided.every ?? 1) },
            // Frames that lie farther apart differ more, and need more each.
            () => ({ bytes: facts.bytes * BYTES_OF_HALF, difference }),
            ({ settings }) =>
              `${Math.ceil(photo.original.frames / settings.every!)} frames of its ${photo.original.frames}, at the same pace`,
          )
        : []),
      ...(photo.original.frames > 1 && !decided.still
        ? wayOf('still', { still: true }, null, () => 'One frame of it, as a still')
        : []),
    ],
  };
}

/** The photo as it would be with another decision in one slot. */
const withDecision = (photo: Photo, { id }: Slot, decision: QualityDecision): Photo => ({
  ...photo,
  quality: { ...photo.quality, [id]: decision },
});

/** Targets that allow more than this one, the strictest first. */
const lowerTargets = (target: TargetName): TargetName[] =>
  TARGET_NAMES.filter((name) => TARGETS[name] > TARGETS[target]).sort((a, b) => TARGETS[a] - TARGETS[b]);
