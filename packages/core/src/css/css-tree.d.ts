// The parts of css-tree that are used, by their own entries: the whole of it brings a dictionary of CSS along.
declare module 'css-tree/tokenizer' {
  export function tokenize(source: string, onToken: (type: number, start: number, end: number) => void): void;
  export const tokenTypes: Readonly<
    Record<
      | 'Ident'
      | 'Function'
      | 'AtKeyword'
      | 'String'
      | 'BadString'
      | 'Url'
      | 'BadUrl'
      | 'Dimension'
      | 'WhiteSpace'
      | 'Colon'
      | 'Semicolon'
      | 'LeftSquareBracket'
      | 'RightSquareBracket'
      | 'LeftParenthesis'
      | 'RightParenthesis'
      | 'LeftCurlyBracket'
      | 'RightCurlyBracket'
      | 'CDO'
      | 'CDC'
      | 'Comment',
      number
    >
  >;
}

declare module 'css-tree/utils' {
  interface Codec {
    decode: (text: string) => string;
    encode: (text: string) => string;
  }
  export const ident: Codec;
  export const string: Codec;
  export const url: Codec;
}

declare module 'css-tree/parser' {
  import type { parse } from 'css-tree';
  const parser: typeof parse;
  export default parser;
}

declare module 'css-tree/generator' {
  import type { generate } from 'css-tree';
  const generator: typeof generate;
  export default generator;
}

declare module 'css-tree/walker' {
  import type { walk } from 'css-tree';
  const walker: typeof walk;
  export default walker;
}
