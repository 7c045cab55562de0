// CSS lengths (CSS Values and Units Level 4, section 10) as piecewise linear functions of the viewport width.
import { CssError } from './errors.ts';
import type { WidthRule } from '../contract/index.ts';
import { constant, extreme, scaled, sum } from './width-rule.ts';
import { TokenReader, type Token } from './tokens.ts';

export interface LengthContext {
  /** Font size of the root element in px, for rem. */
  rem: number;
  /** Font size in px where the length stands, for em; in `sizes` and media conditions the initial 16 px. */
  em: number;
  /** Device px per CSS px, for conditions on the resolution; 1 where it is not given. */
  density?: number;
  /** Height of the window in CSS px; without it a part of it is an error. */
  height?: number;
  /** What 100 % is; without it a percentage is an error, as it is in `sizes`. */
  container?: WidthRule;
}

export const INITIAL_CONTEXT: LengthContext = { rem: 16, em: 16 };

/** A plain number, or a length as a function of the viewport. */
type Value = { kind: 'number'; value: number } | { kind: 'length'; rule: WidthRule };

/** px of the absolute units (CSS Values 4, section 6.2). */
const ABSOLUTE = new Map(
  Object.entries({
    px: 1,
    in: 96,
    cm: 96 / 2.54,
    mm: 9.6 / 2.54,
    q: 2.4 / 2.54,
    pt: 96 / 72,
    pc: 16,
  }),
);
const OF_WIDTH = new Set(['vw', 'svw', 'lvw', 'dvw', 'vi', 'svi', 'lvi', 'dvi']);
const OF_HEIGHT = /^[sld]?(?:vh|vb|vmin|vmax)$/;
const UNITS = 'px, vw, rem, em or % of a container';

/** A part of the window's height, or of the smaller or larger of its sides. */
function ofHeight(unit: string, part: number, height: number): WidthRule {
  const [high, wide]: WidthRule[] = [constant(part * height), [{ from: 0, vw: part, px: 0 }]];
  if (unit.endsWith('vmin')) return extreme(high!, wide!, 'min');
  return unit.endsWith('vmax') ? extreme(high!, wide!, 'max') : high!;
}

function lengthOf(reader: TokenReader, token: Token, context: LengthContext): WidthRule {
  const { value, unit } = token;
  const absolute = ABSOLUTE.get(unit);
  if (absolute !== undefined) return constant(value * absolute);
  if (OF_WIDTH.has(unit)) return [{ from: 0, vw: value / 100, px: 0 }];
  if (unit === 'rem') return constant(value * context.rem);
  if (unit === 'em') return constant(value * context.em);
  if (unit === '%') {
    if (context.container) return scaled(context.container, value / 100);
    reader.fail('a percentage needs a container to be a part of, and here is none.', token);
  }
  if (OF_HEIGHT.test(unit)) {
    if (context.height !== undefined) return ofHeight(unit, value / 100, context.height);
    reader.fail(
      `“${unit}” hangs on the height of the window; use ${UNITS}, and say “at most 70vh high” behind the width.`,
      token,
    );
  }
  return reader.fail(`“${unit}” is not a unit that works here; use ${UNITS}.`, token);
}

/** A value of calculations: number, length, parentheses or a function. */
function primary(reader: TokenReader, context: LengthContext): Value {
  const token = reader.next;
  if (token.kind === 'number') {
    reader.take();
    if (token.unit === '') return { kind: 'number', value: token.value };
    return { kind: 'length', rule: lengthOf(reader, token, context) };
  }
  if (reader.accept('open')) {
    const inside = additive(reader, context);
    reader.expect('close', 'a closing parenthesis is missing.');
    return inside;
  }
  if (token.kind === 'name') return call(reader, context);
  return reader.fail('a length is expected here, such as 50vw or 320px.');
}

function call(reader: TokenReader, context: LengthContext): Value {
  const name = reader.take();
  if (!['calc', 'min', 'max', 'clamp'].includes(name.text)) {
    reader.fail(`“${name.text}” is not known; calc(), min(), max() and clamp() are.`, name);
  }
  if (reader.next.spaced || !reader.accept('open')) {
    reader.fail(`“${name.text}” must be followed by an opening parenthesis.`);
  }
  const values = [additive(reader, context)];
  while (reader.accept('comma')) values.push(additive(reader, context));
  reader.expect('close', 'a comma or a closing parenthesis is expected here.');
  const count = values.length;
  if (name.text === 'calc' && count !== 1) reader.fail('calc() takes one expression.', name);
  if (name.text === 'clamp' && count !== 3) {
    reader.fail('clamp() takes three lengths: least, wanted, most.', name);
  }
  const pick = (which: 'min' | 'max', list: Value[]): Value =>
    list.reduce((a, b) => {
      if (a.kind === 'number' && b.kind === 'number') {
        return { kind: 'number', value: Math[which](a.value, b.value) };
      }
      if (a.kind !== 'length' || b.kind !== 'length') {
        return reader.fail('numbers and lengths can’t be compared; give every value a unit.', name);
      }
      return { kind: 'length', rule: extreme(a.rule, b.rule, which) };
    });
  if (name.text === 'min' || name.text === 'max') return pick(name.text, values);
  if (name.text === 'clamp') return pick('max', [values[0]!, pick('min', [values[1]!, values[2]!])]);
  return values[0]!;
}

function product(reader: TokenReader, context: LengthContext): Value {
  let left = primary(reader, context);
  while (reader.is('sign', '*') || reader.is('sign', '/')) {
    const sign = reader.take();
    const at = reader.next;
    const right = primary(reader, context);
    if (sign.text === '/') {
      if (right.kind !== 'number') reader.fail('only a plain number can divide.', at);
      if (right.value === 0) reader.fail('nothing can be divided by zero.', at);
      left = times(left, 1 / right.value);
    } else if (left.kind === 'number') left = times(right, left.value);
    else if (right.kind === 'number') left = times(left, right.value);
    else reader.fail('two lengths can’t be multiplied.', at);
  }
  return left;
}

const times = (value: Value, factor: number): Value =>
  value.kind === 'number'
    ? { kind: 'number', value: value.value * factor }
    : { kind: 'length', rule: scaled(value.rule, factor) };

function additive(reader: TokenReader, context: LengthContext): Value {
  let left = product(reader, context);
  while (reader.is('sign', '+') || reader.is('sign', '-')) {
    const sign = reader.take();
    // CSS asks for the spaces since "1-2" could be a name or a negative number.
    if (!sign.spaced || !reader.next.spaced) reader.fail('+ and − need a space on both sides.', sign);
    const right = times(product(reader, context), sign.text === '-' ? -1 : 1);
    if (left.kind === 'number' && right.kind === 'number') {
      left = { kind: 'number', value: left.value + right.value };
    } else if (left.kind === 'length' && right.kind === 'length') {
      left = { kind: 'length', rule: sum(left.rule, right.rule) };
    } else reader.fail('a number can’t be added to a length; give both a unit.', sign);
  }
  return left;
}

/**
 * Reads one length from a reader: `320px`, `50vw`, `calc(100vw - 32px)`, `min(…)`, `max(…)`, `clamp(…)`. A
 * plain 0 is a length.
 * @throws CssError that names the character.
 */
export function readLength(reader: TokenReader, context: LengthContext): WidthRule {
  const start = reader.next;
  const value = primary(reader, context);
  if (value.kind === 'length') return value.rule;
  if (value.value === 0 && start.kind === 'number') return constant(0);
  return reader.fail('a number alone is no length; give it a unit, such as px.', start);
}

/**
 * Parses a CSS length into display width by viewport width, in CSS px.
 * @throws CssError that names the character.
 */
export function parseLength(text: string, context: LengthContext = INITIAL_CONTEXT): WidthRule {
  const reader = new TokenReader(text);
  if (reader.is('end')) throw new CssError(text, 0, 'a length is expected, such as 50vw or 320px.');
  const rule = readLength(reader, context);
  if (!reader.is('end')) reader.fail('the length is complete; nothing more can follow.');
  return rule;
}
