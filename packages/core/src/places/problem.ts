// What is wrong with a place that somebody sends.
import type { Slot } from '../contract/index.ts';
import { CssError } from '../css/errors.ts';
import { widthAt } from '../css/width-rule.ts';
import { SHAPE } from '../geometry/geometry.ts';
import { lineProblem, othersProblem, textsProblem } from '../html/languages.ts';
import { largeId, slotsOfArrangement } from '../arrange/cells.ts';
import { arrangementProblems } from '../arrange/options.ts';
import { TALLEST_MOST } from '../slots/phrase-height.ts';
import { LONGEST_WIDTH, readWidth } from '../slots/typed-width.ts';

export const LONGEST_SLOT_ID = 40;
const MOST_PIECES = 40;
const MOST_SHAPES = 10;
/** What numbers and texts of a place can be, wherever it comes from: typed, sent, or read from a file. */
export const PLACE_LIMITS = {
  /** Characters. */
  name: 100,
  hint: 200,
  /** What it says under its title. */
  note: 500,
  /** CSS px. */
  window: 100_000,
  px: 100_000,
  fit: 20_000,
  /** Parts of the window. */
  vw: 10,
  /** Bytes. */
  budget: 100_000_000,
} as const;

/** Decisions lie in objects under the names of their places: none may be called what every object has ("constructor"). */
export const isSlotId = (text: string): boolean =>
  text.length <= LONGEST_SLOT_ID && /^[a-z][a-z0-9]*(-[a-z0-9]+)*$/.test(text) && !(text in {});

function ruleProblem({ rule }: Slot): string | null {
  if (rule.length === 0 || rule.length > MOST_PIECES) return `A width rule has 1 to ${MOST_PIECES} pieces.`;
  const ascending = rule.every((piece, i) => (i === 0 ? piece.from === 0 : piece.from > rule[i - 1]!.from));
  if (!ascending) return 'The pieces of a width rule start at 0 and go up.';
  const { vw: mostVw, px: mostPx, window } = PLACE_LIMITS;
  return rule.every(
    ({ vw, px, from }) => Math.abs(vw) <= mostVw && Math.abs(px) <= mostPx && from >= 0 && from <= window,
  )
    ? null
    : `A width rule is made of numbers, of up to ${mostVw * 100} vw and ${mostPx} px.`;
}

function shapesProblem({ shapes }: Slot): string | null {
  if (shapes.length === 0 || shapes.length > MOST_SHAPES) return `A place has 1 to ${MOST_SHAPES} shapes.`;
  const falling = shapes.every((part, i) => part.to === (i === 0 ? null : shapes[i - 1]!.from));
  if (!falling || shapes.at(-1)!.from !== 0)
    return 'The shapes of a place cover every viewport once, the largest first.';
  if (new Set(shapes.map(({ shape }) => shape)).size !== shapes.length) return 'A shape is named twice.';
  if (shapes.some(({ from }) => !(from >= 0 && from <= PLACE_LIMITS.window)))
    return `Shapes change at windows of 0 to ${PLACE_LIMITS.window} px.`;
  const odd = shapes.find(({ shape }) => !SHAPE.test(shape));
  return odd ? `“${odd.shape.slice(0, 40)}” is not a ratio such as 3:2.` : null;
}

/** Windows at which what was said and the rule that is stored are compared. */
const WINDOWS = [320, 390, 600, 820, 1280, 1920, 2560];

/** What an editor reads as the width has to be the width that is planned. */
function saidProblem({ said, rule, tallest }: Slot): string | null {
  if (said === undefined) return null;
  try {
    const { rule: read, height } = readWidth(said);
    if (height && (height.height !== tallest?.height || height.unit !== tallest.unit))
      return 'The height that was said is not the height that is kept.';
    const same = WINDOWS.every((window) => Math.abs(widthAt(read, window) - widthAt(rule, window)) < 0.01);
    return same ? null : 'The width that was said is not the width of the rule.';
  } catch (error) {
    if (error instanceof CssError) return error.message;
    throw error;
  }
}

/** Width and shape of an arrangement's places are those that its options make. */
function arrangedProblem({ id, name, rule, shapes, fit, arranged, of }: Slot): string | null {
  if (of !== undefined && id !== largeId(of))
    return 'The place of large pictures is called after its arrangement.';
  if (!arranged) return null;
  const [problem] = arrangementProblems(arranged);
  if (problem !== undefined) return problem;
  const { cell } = slotsOfArrangement({ shortName: id, title: name, ...arranged });
  const same = JSON.stringify([cell.rule, cell.shapes, cell.fit]) === JSON.stringify([rule, shapes, fit]);
  return same ? null : 'The place of an arrangement is as wide as its kind makes it.';
}

/** Whatever is sent may be looked at. */
function wordsProblem({ words }: Slot): string | null {
  if (words === undefined) return null;
  const note = lineProblem(PLACE_LIMITS.note);
  const { others, note: main, ...unknown } = words;
  if (Object.keys(unknown).length > 0) return 'A place says its title and a note.';
  return (
    (main === undefined ? null : note(main)) ??
    othersProblem(others, textsProblem({ title: lineProblem(PLACE_LIMITS.name), note }))
  );
}

/** What is wrong with a place, as a sentence, or null. */
export function slotProblem(slot: Slot): string | null {
  if (!isSlotId(slot.id)) return 'A place’s short name has small letters, digits and hyphens.';
  if (slot.name.trim() === '') return 'A place needs a name.';
  const { name, hint, fit, budget } = PLACE_LIMITS;
  if (slot.name.length > name) return `A name has up to ${name} characters.`;
  if (slot.hint.length > hint) return `A hint has up to ${hint} characters.`;
  if (slot.said !== undefined && slot.said.length > LONGEST_WIDTH)
    return `A width has up to ${LONGEST_WIDTH} characters.`;
  if (!(slot.budget >= 1 && slot.budget <= budget)) return `A budget is 1 to ${budget} bytes.`;
  if (slot.fit && [slot.fit.width, slot.fit.height].some((side) => !(side >= 1 && side <= fit)))
    return `A box to fit into is 1 to ${fit} px wide and high.`;
  if (slot.tallest && !(slot.tallest.height >= 1 && slot.tallest.height <= TALLEST_MOST[slot.tallest.unit]))
    return `A picture may be 1 to ${TALLEST_MOST.px} px high, or 1 to ${TALLEST_MOST.vh} vh.`;
  return (
    ruleProblem(slot) ??
    shapesProblem(slot) ??
    saidProblem(slot) ??
    arrangedProblem(slot) ??
    wordsProblem(slot)
  );
}
