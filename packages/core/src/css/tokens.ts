// The few tokens of CSS that lengths, media conditions and `sizes` are made of (CSS Syntax Level 3, section 4).
import { CssError } from './errors.ts';

export type TokenKind = 'number' | 'name' | 'open' | 'close' | 'comma' | 'colon' | 'sign' | 'end';

export interface Token {
  kind: TokenKind;
  /** The name in lower case, the sign (+ - * / < <= > >= =), or the text as it stands. */
  text: string;
  value: number;
  /** Unit of a number in lower case, "%", or "" for a plain number. */
  unit: string;
  position: number;
  /** White space stands before it: + and − need it on both sides. */
  spaced: boolean;
}

const NUMBER = /[+-]?(?:\d+\.\d+|\d+|\.\d+)(?:e[+-]?\d+)?/iy;
const NAME = /-?[a-z_][\w-]*/iy;
const SPACE = /(?:\s|\/\*[^]*?\*\/)+/y;
const SIGN = /<=|>=|[-+*/<>=]/y;
const MARKS: Partial<Record<string, TokenKind>> = { '(': 'open', ')': 'close', ',': 'comma', ':': 'colon' };

/** Characters of the longest expression that is read: nobody writes more, and rules of rules take longer than they are long. */
const LONGEST_EXPRESSION = 2_000;

/**
 * Splits CSS text into tokens, with an end token last.
 * @throws CssError at a character that can't begin a token, or where the text is longer than 2,000 characters.
 */
export function tokenize(text: string): Token[] {
  if (text.length > LONGEST_EXPRESSION)
    throw new CssError(text, LONGEST_EXPRESSION, `an expression has up to ${LONGEST_EXPRESSION} characters.`);
  const tokens: Token[] = [];
  let at = 0;
  let spaced = false;
  const match = (pattern: RegExp): string | undefined => {
    pattern.lastIndex = at;
    return pattern.exec(text)?.[0];
  };
  const push = (kind: TokenKind, raw: string, more: Partial<Token> = {}) => {
    tokens.push({ kind, text: raw.toLowerCase(), value: 0, unit: '', position: at, spaced, ...more });
    at += raw.length;
    spaced = false;
  };
  while (at < text.length) {
    const space = match(SPACE);
    if (space) {
      at += space.length;
      spaced = true;
      continue;
    }
    // "1+2" and "a -2": a sign belongs to the number unless something that it could add to stands right before.
    const before = tokens.at(-1)?.kind;
    const glued = !spaced && (before === 'number' || before === 'close');
    const number = glued && /[+-]/.test(text[at]!) ? undefined : match(NUMBER);
    if (number !== undefined) {
      const from = at;
      at += number.length;
      const unit = text[at] === '%' ? '%' : (match(NAME) ?? '');
      at = from;
      push('number', number + unit, { value: Number(number), unit: unit.toLowerCase() });
      continue;
    }
    const mark = MARKS[text[at]!];
    const name = match(NAME);
    const sign = match(SIGN);
    if (mark) push(mark, text[at]!);
    else if (name) push('name', name);
    else if (sign) push('sign', sign);
    else throw new CssError(text, at, 'this character has no meaning here.');
  }
  push('end', '');
  return tokens;
}

/** Reads tokens one after the other. */
export class TokenReader {
  private at = 0;
  constructor(
    readonly text: string,
    private readonly tokens: readonly Token[] = tokenize(text),
  ) {}

  get next(): Token {
    return this.tokens[this.at]!;
  }

  peek(ahead: number): Token {
    return this.tokens[Math.min(this.at + ahead, this.tokens.length - 1)]!;
  }

  take(): Token {
    const token = this.next;
    if (token.kind !== 'end') this.at++;
    return token;
  }

  is(kind: TokenKind, text?: string): boolean {
    return this.next.kind === kind && (text === undefined || this.next.text === text);
  }

  /** Takes the token if it is the one asked for. */
  accept(kind: TokenKind, text?: string): boolean {
    const found = this.is(kind, text);
    if (found) this.take();
    return found;
  }

  expect(kind: TokenKind, reason: string): Token {
    if (this.next.kind !== kind) this.fail(reason);
    return this.take();
  }

  fail(reason: string, token: Token = this.next): never {
    throw new CssError(this.text, token.position, reason);
  }

  /** Goes back to a place that `mark` gave. */
  get mark(): number {
    return this.at;
  }

  reset(mark: number): void {
    this.at = mark;
  }
}
