// A stylesheet that loads nothing but what it is given. It is read as browsers read it, token by token, with escapes
// undone; whatever could load something and is not known to be harmless becomes a name that nobody knows. Every other
// token stays as it is, so that what stays reads as before.
import { tokenize, tokenTypes as TYPE } from 'css-tree/tokenizer';
import { ident, string, url } from 'css-tree/utils';
import { HARMLESS_AT_RULES, HARMLESS_FUNCTIONS } from './words-of-css.ts';

/** What becomes of an address: another one, or null for nothing that could be loaded. */
export type Readdress = (address: string) => string | null;

interface Token {
  type: number;
  text: string;
}

export interface HarmlessRules {
  address: Readdress;
  /** Is told of stylesheets that are imported: their address, and the conditions behind it. They are left out. */
  imported?: (address: string, conditions: string) => void;
}

/** Blocks and functions inside each other; nobody writes more. */
const DEEPEST = 64;

/** What stands where something was that loads nothing any more. */
const NOTHING = 'data:,';

/** An address as it may stand between double quotes in CSS, also inside a `<style>` element. */
const quoted = (address: string): string =>
  `"${address.replace(/["\\\n\r\f<]/g, (c) => `\\${c.codePointAt(0)!.toString(16)} `)}"`;

const CLOSER = new Map([
  [TYPE.LeftCurlyBracket, '}'],
  [TYPE.LeftParenthesis, ')'],
  [TYPE.LeftSquareBracket, ']'],
  [TYPE.Function, ')'],
]);
const CLOSERS = new Set([TYPE.RightCurlyBracket, TYPE.RightParenthesis, TYPE.RightSquareBracket]);

/** Names without their mark at the end or the beginning, as they are compared. */
const functionName = ({ text }: Token): string => ident.decode(text.slice(0, -1)).toLowerCase();
const ruleName = ({ text }: Token): string => ident.decode(text.slice(1)).toLowerCase();

/** A name that no browser knows. */
const unknown = (name: string): string => {
  const plain = name.replace(/[^a-z0-9-]/g, '');
  return plain.startsWith('no-') ? plain : `no-${plain}`;
};

/** Tokens of a text, as the standard reads it (CSS Syntax 3, 4). */
export function tokensOf(css: string): Token[] {
  const tokens: Token[] = [];
  tokenize(css, (type, start, end) => tokens.push({ type, text: css.slice(start, end) }));
  return tokens;
}

class Filter {
  private out = '';
  private readonly open: string[] = [];
  private at = 0;

  constructor(
    private readonly tokens: readonly Token[],
    private readonly rules: HarmlessRules,
  ) {}

  run(): string {
    while (this.at < this.tokens.length) this.take(this.tokens[this.at++]!);
    // What is not closed is closed by the end of a sheet: others may stand behind it.
    return this.out + this.open.reverse().join('');
  }

  private take(token: Token): void {
    const { type, text } = token;
    if (type === TYPE.Url) this.out += this.addressed(url.decode(text));
    else if (type === TYPE.Function) this.takeFunction(token);
    else if (type === TYPE.AtKeyword) this.takeRule(token);
    else if (type === TYPE.Comment) this.out += '/**/';
    // Neither means anything; what stands around them must not become one word.
    else if (type === TYPE.BadUrl || type === TYPE.BadString) this.out += ' ';
    else if (CLOSERS.has(type)) this.close(text);
    else this.write(token);
  }

  private write({ type, text }: Token): void {
    const closer = CLOSER.get(type);
    // Browsers call themselves for what stands inside each other, and fall when it is too deep.
    if (closer !== undefined && this.open.length >= DEEPEST) return this.skipTo(closer);
    this.out += text;
    if (closer !== undefined) this.open.push(closer);
  }

  /** What closes nothing spoils the rule it stands in, as in browsers, and never what stands around the sheet. */
  private close(text: string): void {
    if (this.open.at(-1) === text) this.open.pop();
    else text = `\\${text.codePointAt(0)!.toString(16)} `;
    this.out += text;
  }

  private addressed(address: string): string {
    const bare = address.trim();
    if (bare === '') return 'url()';
    if (bare.startsWith('#')) return `url(${/^#[\w.:-]+$/.test(bare) ? bare : quoted(bare)})`;
    return `url(${quoted(this.rules.address(bare) ?? NOTHING)})`;
  }

  private takeFunction(token: Token): void {
    const name = functionName(token);
    if (name === 'url') {
      const address = this.quotedUrl();
      if (address !== null) {
        this.out += this.addressed(address);
        return;
      }
    }
    const known = HARMLESS_FUNCTIONS.has(name) || name.startsWith('--');
    // An escaped name reads otherwise than it looks: it is written out. Names of one's own keep theirs.
    if (name.startsWith('--')) this.write(token);
    else if (known) this.write({ type: token.type, text: `${name}(` });
    else {
      this.skipTo(')');
      this.out += `${unknown(name)}()`;
    }
  }

  /** Up to the end of a block, or a function, whose beginning was read. */
  private skipTo(end: string): void {
    const open = [end];
    while (open.length > 0 && this.at < this.tokens.length) {
      const token = this.tokens[this.at++]!;
      const closer = CLOSER.get(token.type);
      if (closer !== undefined) open.push(closer);
      else if (token.text === open.at(-1)) open.pop();
    }
  }

  /** The address of `url("…")`, whose beginning was read; null where it holds anything else. */
  private quotedUrl(): string | null {
    let at = this.at;
    const skip = () => {
      while (this.tokens[at] && SPACE.has(this.tokens[at]!.type)) at++;
    };
    skip();
    const held = this.tokens[at];
    if (held?.type !== TYPE.String) return null;
    at++;
    skip();
    const end = this.tokens[at];
    // At the end of a sheet everything is closed.
    if (end && end.type !== TYPE.RightParenthesis) return null;
    this.at = at + 1;
    return string.decode(held.text);
  }

  private takeRule(token: Token): void {
    const name = ruleName(token);
    if (name === 'import') return this.takeImport();
    if (name === 'charset') {
      this.statement();
      return;
    }
    if (name === 'namespace') return this.takeNamespace();
    this.out += HARMLESS_AT_RULES.has(name) ? `@${name}` : `@${unknown(name)}`;
  }

  /** Tokens of a rule without a block up to its end, which is read as well. A block ends it before. */
  private statement(): Token[] {
    const from = this.at;
    const open: string[] = [];
    for (; this.at < this.tokens.length; this.at++) {
      const token = this.tokens[this.at]!;
      const closer = CLOSER.get(token.type);
      if (open.length === 0) {
        if (token.type === TYPE.Semicolon) return this.tokens.slice(from, this.at++);
        if (token.type === TYPE.LeftCurlyBracket || CLOSERS.has(token.type)) break;
      }
      if (closer !== undefined) open.push(closer);
      else if (token.text === open.at(-1)) open.pop();
    }
    return this.tokens.slice(from, this.at);
  }

  private takeImport(): void {
    const said = this.statement().filter(({ type }) => type !== TYPE.Comment);
    const [first, ...rest] = said.filter(({ type }, at) => at > 0 || type !== TYPE.WhiteSpace);
    // Inside of a block, or without an address, it imports nothing.
    if (!first || this.open.length > 0) return;
    const quotedAddress = first.type === TYPE.Function && functionName(first) === 'url';
    const held = quotedAddress ? rest.find(({ type }) => type === TYPE.String) : first;
    if (!held || (held.type !== TYPE.String && held.type !== TYPE.Url)) return;
    const address = held.type === TYPE.Url ? url.decode(held.text) : string.decode(held.text);
    const behind = quotedAddress ? rest.slice(rest.indexOf(held) + 1) : rest;
    const closed = quotedAddress
      ? behind.slice(behind.findIndex(({ type }) => type === TYPE.RightParenthesis) + 1)
      : behind;
    const conditions = new Filter(closed, { address: () => null }).run().trim();
    this.rules.imported?.(address.trim(), conditions);
  }

  /** Namespaces are names that look like addresses; nobody loads them. */
  private takeNamespace(): void {
    const said = this.statement().map(({ type, text }) =>
      type === TYPE.Url ? quoted(url.decode(text)) : text,
    );
    const plain = said.join('');
    if (/^[\s\w-]*"[^"]*"\s*$/.test(plain) && this.open.length === 0) this.out += `@namespace${plain};`;
  }
}

const SPACE = new Set([TYPE.WhiteSpace, TYPE.Comment]);

/**
 * The stylesheet, or the declarations of a style attribute, or a value, with every address as `rules` says, without
 * imports, and with nothing else in it that could be loaded. Time and memory go with its length.
 */
export const harmless = (css: string, rules: HarmlessRules): string => new Filter(tokensOf(css), rules).run();
